import { z } from 'zod';
import { BackingSchema } from './backing.ts';
import { DeliveryFormatSchema } from './format.ts';
import { WindowSchema } from './window.ts';

/** One original fitted to one place. `version` grows by one with every save. */
export const FrameSchema = z.object({
  id: z.uuid(),
  projectId: z.uuid(),
  originalId: z.uuid(),
  placeId: z.string(),
  /** Set by hand; of a composed frame only its turn and mirroring count. */
  window: WindowSchema,
  /** True while the window follows from the original's marks; false once a hand has moved it. */
  composed: z.boolean(),
  /** Null where the picture has to reach every edge of the frame. */
  backing: BackingSchema.nullable(),
  format: DeliveryFormatSchema,
  version: z.int().positive(),
});
export type Frame = z.infer<typeof FrameSchema>;

/** The part of a frame that people set by hand. */
export const FrameSettingsSchema = FrameSchema.pick({
  window: true,
  composed: true,
  backing: true,
  format: true,
});
export type FrameSettings = z.infer<typeof FrameSettingsSchema>;

/** A change to a frame: what a fix carries, and what the bench saves. */
export const FrameChangeSchema = FrameSettingsSchema.partial();
export type FrameChange = z.infer<typeof FrameChangeSchema>;
