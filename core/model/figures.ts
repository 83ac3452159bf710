import { z } from 'zod';

/** What was measured of one picture; levels are of 255. */
export const PictureFiguresSchema = z.object({
  /** The energy of its edges, in levels a pixel. */
  acutance: z.number(),
  luminance: z.number(),
  chroma: z.number(),
  /** Shares of the pixels that are black and white, 0..1. */
  shadows: z.number(),
  lights: z.number(),
  /** How much calm places move, in levels. */
  noise: z.number(),
});
export type PictureFigures = z.infer<typeof PictureFiguresSchema>;

/** A picture plainly scaled and finished, side by side. */
export const FinishFiguresSchema = z.object({
  plain: PictureFiguresSchema,
  finished: PictureFiguresSchema,
  /** How far edges of the finished picture shoot over and under their plain surroundings: a share of the contrast. */
  halo: z.number(),
});
export type FinishFigures = z.infer<typeof FinishFiguresSchema>;
