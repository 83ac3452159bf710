import { z } from 'zod';
import { placeDimensions, windowRect } from '../geometry/index.ts';
import {
  DeliveryFormatSchema,
  type Dimensions,
  DimensionsSchema,
  type FrameSettings,
  type Original,
  type Place,
} from '../model/index.ts';
import { budgetBytes, defaultHeadroom } from '../weighing/index.ts';

/** Grows when the same plan would come out as other bytes, so that nothing cached under the old number is used. */
export const engineVersion = 1;

/** Transparency becomes this colour where the format cannot carry it. */
export const flattenColour = '#ffffff';

/** Encoder quality where the limit does not ask for less. */
export const bestQuality = 90;

/** Everything about the pixels and the encoding of one file. The same plan gives the same bytes. */
export const RenderPlanSchema = z.object({
  engine: z.int(),
  original: DimensionsSchema.extend({ sha256: z.string() }),
  /** The part of the original that is shown, in original pixels. */
  source: z.object({ left: z.number(), top: z.number(), width: z.number().positive(), height: z.number().positive() }),
  output: DimensionsSchema,
  /** Colour behind transparent parts, `#rrggbb`; null keeps them transparent. */
  flatten: z.string().nullable(),
  encoding: z.object({
    format: DeliveryFormatSchema,
    /** Highest quality that is tried, 1..100. */
    quality: z.int(),
    /** The file may weigh this much at most: the limit less headroom. */
    budgetBytes: z.int().positive(),
  }),
});
export type RenderPlan = z.infer<typeof RenderPlanSchema>;

/** A thousandth of an original pixel: finer differences are arithmetic noise and must not change a plan's hash. */
const grain = 1000;
const settle = (value: number) => Math.round(value * grain) / grain;

export interface FrameToPlan {
  original: Pick<Original, 'sha256' | 'width' | 'height' | 'hasAlpha'>;
  place: Pick<Place, 'width' | 'height' | 'limit'>;
  settings: FrameSettings;
  /** Share of the limit that is left free, 0..1. */
  headroom?: number;
}

/** The plan of one frame at its full dimensions. */
export function planFrame({ original, place, settings, headroom = defaultHeadroom }: FrameToPlan): RenderPlan {
  const output = placeDimensions(place, original);
  const rect = windowRect(settings.window, output);
  return {
    engine: engineVersion,
    original: { sha256: original.sha256, width: original.width, height: original.height },
    source: { left: settle(rect.left), top: settle(rect.top), width: settle(rect.width), height: settle(rect.height) },
    output,
    flatten: original.hasAlpha && settings.format === 'jpeg' ? flattenColour : null,
    encoding: { format: settings.format, quality: bestQuality, budgetBytes: budgetBytes(place.limit, headroom) },
  };
}

/** The same picture at other dimensions: a proof. At least one pixel each way. */
export function scalePlan(plan: RenderPlan, factor: number): RenderPlan {
  const scaled = (pixels: number) => Math.max(1, Math.round(pixels * factor));
  const output: Dimensions = { width: scaled(plan.output.width), height: scaled(plan.output.height) };
  return { ...plan, output };
}
