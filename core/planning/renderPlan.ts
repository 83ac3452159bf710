import { z } from 'zod';
import { frameWindow } from '../framing/index.ts';
import { pictureBox, placeDimensions } from '../geometry/index.ts';
import {
  BackingSchema,
  carriesTransparency,
  DeliveryFormatSchema,
  type Dimensions,
  DimensionsSchema,
  type FrameSettings,
  type Original,
  type Place,
  TrimSchema,
  WindowSchema,
} from '../model/index.ts';
import { budgetBytes, defaultHeadroom } from '../weighing/index.ts';

/** Grows when the same plan would come out as other bytes, so that nothing cached under the old number is used. */
export const engineVersion = 2;

/** Transparency becomes this colour where the format cannot carry it. */
export const flattenColour = '#ffffff';

/** Encoder quality where the limit does not ask for less. */
export const bestQuality = 90;

/** Everything about the pixels and the encoding of one file. The same plan gives the same bytes. */
export const RenderPlanSchema = z.object({
  engine: z.int(),
  original: DimensionsSchema.extend({ sha256: z.string() }),
  /** The part of the original that counts as the picture. */
  picture: TrimSchema,
  window: WindowSchema,
  /** What shows where the window reaches past the picture; null where it does not. */
  backing: BackingSchema.nullable(),
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
  original: Pick<Original, 'sha256' | 'width' | 'height' | 'hasAlpha' | 'trim' | 'marks'>;
  place: Place;
  settings: FrameSettings;
  /** Share of the limit that is left free, 0..1. */
  headroom?: number;
}

/** The plan of one frame at its full dimensions. */
export function planFrame({ original, place, settings, headroom = defaultHeadroom }: FrameToPlan): RenderPlan {
  const window = frameWindow(original, place, settings);
  const isTransparent = settings.backing?.kind === 'transparent';
  return {
    engine: engineVersion,
    original: { sha256: original.sha256, width: original.width, height: original.height },
    picture: pictureBox(original),
    window: {
      ...window,
      centreX: settle(window.centreX),
      centreY: settle(window.centreY),
      span: settle(window.span),
      turn: settle(window.turn),
    },
    backing: settings.backing,
    output: placeDimensions(place, original),
    flatten: !carriesTransparency(settings.format) && (original.hasAlpha || isTransparent) ? flattenColour : null,
    encoding: { format: settings.format, quality: bestQuality, budgetBytes: budgetBytes(place.limit, headroom) },
  };
}

/** The same picture at other dimensions: a proof. At least one pixel each way. */
export function scalePlan(plan: RenderPlan, factor: number): RenderPlan {
  const scaled = (pixels: number) => Math.max(1, Math.round(pixels * factor));
  const output: Dimensions = { width: scaled(plan.output.width), height: scaled(plan.output.height) };
  return { ...plan, output };
}
