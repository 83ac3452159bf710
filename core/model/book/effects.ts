import { z } from 'zod';
import { FrameSettingsSchema } from '../frame.ts';
import { WindowSchema } from '../window.ts';
import { DimensionsSchema } from './rules.ts';

const AtSchema = z.object({
  frameId: z.uuid(),
  projectId: z.uuid(),
  originalId: z.uuid(),
  /** `network/place`. */
  placeId: z.string(),
});

/** A frame that gets another shape: what it shows now, and what it would show. */
export const ReshapedSchema = AtSchema.extend({
  before: z.object({ dimensions: DimensionsSchema, window: WindowSchema }),
  after: z.object({ dimensions: DimensionsSchema, window: WindowSchema }),
  settings: FrameSettingsSchema,
  /** Whether a hand had set its window: it is carried over, and marked for a look. */
  isByHand: z.boolean(),
});
export type Reshaped = z.infer<typeof ReshapedSchema>;

/** What a change of a sheet would do to the frames that are made for it. Nothing is rendered to know it. */
export const SheetEffectsSchema = z.object({
  /** Frames at places that are changed in what their files are made by, by project. */
  projects: z.array(z.object({ id: z.uuid(), name: z.string(), frames: z.int().positive() })),
  /** Frames at those places in projects that stay on a version: nothing happens to them. */
  staying: z.int().min(0),
  /** How many get another shape, and of how many of those a hand had set the window. */
  reshaped: z.int().min(0),
  carried: z.int().min(0),
  /** The first of those that get another shape. */
  pairs: z.array(ReshapedSchema),
  /** Files that weigh more than they may then, as they are known: they are made anew, with less quality. */
  tooHeavy: z.array(AtSchema.extend({ bytes: z.int().positive(), budgetBytes: z.int().positive() })),
  /** Frames whose format is not taken any more: they cannot be delivered until another one is chosen. */
  formatLost: z.array(AtSchema.extend({ format: z.string() })),
  /** Frames whose pieces are not taken any more. */
  piecesLost: z.array(AtSchema),
  /** Composed frames at places whose covered areas, shown part or shape change: they are composed anew. */
  composedAnew: z.int().min(0),
});
export type SheetEffects = z.infer<typeof SheetEffectsSchema>;
