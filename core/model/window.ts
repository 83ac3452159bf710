import { z } from 'zod';

/**
 * What part of an original a frame shows. All lengths are in original pixels and may be fractions.
 * The window's height follows from `span` and the place's dimensions, so proportions cannot drift; and because the
 * window says nothing about output pixels, it survives a change of the place's dimensions.
 */
export const WindowSchema = z.object({
  centreX: z.number(),
  centreY: z.number(),
  /** The window's width, along its own axis, on the original. */
  span: z.number().positive(),
  /** How far the picture is turned clockwise in the frame, in degrees, above -180 up to 180. */
  turn: z.number().gt(-180).max(180).default(0),
  /** The picture is mirrored left to right in the frame, after it was turned. */
  mirror: z.boolean().default(false),
});
export type Window = z.infer<typeof WindowSchema>;
