import { z } from 'zod';

/**
 * What part of an original a frame shows. All values are in original pixels and may be fractions.
 * The window's height follows from `span` and the place's dimensions, so proportions cannot drift; and because the
 * window says nothing about output pixels, it survives a change of the place's dimensions.
 */
export const WindowSchema = z.object({
  centreX: z.number(),
  centreY: z.number(),
  /** The window's width on the original. */
  span: z.number().positive(),
});
export type Window = z.infer<typeof WindowSchema>;
