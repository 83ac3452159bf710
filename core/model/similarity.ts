import { z } from 'zod';

/** How much of a picture is still there in its file: 0 (nothing) to 100 (every pixel as it was). */
const share = z.number().min(0).max(100);

/** The place of a file that is least like the picture, in whole pixels. */
export const SpotSchema = z.object({
  left: z.int().min(0),
  top: z.int().min(0),
  width: z.int().positive(),
  height: z.int().positive(),
  similarity: share,
});
export type Spot = z.infer<typeof SpotSchema>;

/** How alike a file and the uncompressed picture are, as it was measured on the file's own bytes. */
export const SimilaritySchema = z.object({
  overall: share,
  worst: SpotSchema,
  /** How far calm areas have moved at the spot where they did most, in levels of 255: steps in a sky, specks round lettering. */
  flatAreaError: z.number().min(0),
  /** The error of the most damaged block of 8 × 8 pixels, less by what its texture hides, in levels of 255. */
  blockError: z.number().min(0),
  /** Of each region that counts on its own, in the order in which they were given. */
  regions: z.array(share),
});
export type Similarity = z.infer<typeof SimilaritySchema>;

/** What a file is judged by: the whole, or the region that came out worse than it. */
export const countingSimilarity = ({ overall, regions }: Similarity): number => Math.min(overall, ...regions);
