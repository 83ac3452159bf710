import { z } from 'zod';
import type { Rect } from '../geometry/index.ts';
import {
  ColoursSchema,
  type Dimensions,
  type FrameSettings,
  ImageFormatSchema,
  limitFor,
  type MetadataPolicy,
  type Original,
  OriginSchema,
  type Place,
  WeighingSchema,
  WordsSchema,
} from '../model/index.ts';
import { budgetBytes, QualityFloorSchema, similarityFloor, tierFloors, usualAim } from '../weighing/index.ts';

/** Encoder quality where neither the limit, nor the level that is to be held, nor a person asks for less. */
export const bestQuality = 95;

const RectSchema = z.object({ left: z.int(), top: z.int(), width: z.int().positive(), height: z.int().positive() });

/** How the pixels of a plan become bytes. */
export const EncodingPlanSchema = z.object({
  format: ImageFormatSchema,
  colours: ColoursSchema,
  chroma: WeighingSchema.shape.chroma,
  /** Highest quality that is tried, 1..100. */
  quality: z.int(),
  /** What is enough; null where the file is to be as good as fits. */
  enough: QualityFloorSchema.nullable(),
  /** Below this it is not delivered; null where a person has said that it may be. */
  least: QualityFloorSchema.nullable(),
  /** The file may weigh this much at most: the limit less headroom. */
  budgetBytes: z.int().positive(),
  /** All files of the post may weigh this much together; left out where that is not limited. */
  postBudgetBytes: z.int().positive().optional(),
  /** All pieces have the quality of the one that needs the lowest. */
  sharedQuality: z.boolean(),
  /** Regions of the file whose similarity counts on its own, in whole pixels. */
  watched: z.array(RectSchema),
  profile: z.boolean(),
  words: WordsSchema.nullable(),
  origin: OriginSchema,
});
export type EncodingPlan = z.infer<typeof EncodingPlanSchema>;

/** An encoding at the best quality with nothing but pixels in it: for pictures that are not delivered. */
export const plainEncoding = (format: EncodingPlan['format']): EncodingPlan => ({
  format,
  colours: 'full',
  chroma: 'measured',
  quality: bestQuality,
  enough: null,
  least: null,
  budgetBytes: Number.MAX_SAFE_INTEGER,
  sharedQuality: true,
  watched: [],
  profile: false,
  words: null,
  origin: { position: null, device: null },
});

export interface EncodingToPlan {
  original: Pick<Original, 'words' | 'origin'>;
  place: Place;
  settings: Pick<FrameSettings, 'format' | 'weighing' | 'sharedQuality' | 'posting'>;
  keeping: MetadataPolicy;
  /** Share of the limit that is left free, 0..1. */
  headroom: number;
  /** Of one file. */
  dimensions: Dimensions;
  watched: Rect[];
  /** Whether its picture is cut into the files of one post. */
  isCut: boolean;
}

export function encodingOf(asked: EncodingToPlan): EncodingPlan {
  const { original, place, settings, keeping, headroom, dimensions, watched, isCut } = asked;
  const { weighing, format, sharedQuality, posting } = settings;
  const words = { ...original.words, altText: posting.altText ?? original.words.altText };
  const post = place.postLimit ? budgetBytes(place.postLimit, headroom) : null;
  const own = budgetBytes(limitFor(place, format), headroom);
  // A single file is all there is of its post.
  const budget = post !== null && !isCut ? Math.min(own, post) : own;
  const aim = weighing.aim ?? usualAim(budget, dimensions);
  return {
    format,
    colours: format === 'png' ? weighing.colours : 'full',
    chroma: weighing.chroma,
    quality: weighing.mostQuality ?? bestQuality,
    enough: aim.kind === 'as good as fits' ? null : tierFloors[aim.level],
    least: weighing.belowFloor ? null : similarityFloor,
    budgetBytes: budget,
    ...(post !== null && isCut ? { postBudgetBytes: post } : {}),
    sharedQuality,
    watched,
    profile: keeping.profile,
    words: keeping.words && Object.values(words).some((one) => one !== '') ? words : null,
    origin: {
      position: keeping.position ? original.origin.position : null,
      device: keeping.device ? original.origin.device : null,
    },
  };
}
