import { z } from 'zod';
import { countingSimilarity, type FidelityTier, type Similarity } from '../model/index.ts';

/** What a file has to reach. */
export const QualityFloorSchema = z.object({
  /** Similarity over all of it, and in every region that counts; 0..100. */
  overall: z.number(),
  /** At its worst spot; 0..100. */
  worst: z.number(),
  /** How far calm areas may move at their worst spot, in levels of 255. */
  flatAreaError: z.number(),
  /** The error that its most damaged block of 8 × 8 pixels may have, in levels of 255. */
  blockError: z.number(),
});
export type QualityFloor = z.infer<typeof QualityFloorSchema>;

/**
 * What a file has to reach to hold a level, the strictest first. The numbers were set by looking at the demo's photographs,
 * drawings and lettering, flicking between file and picture at 100 %.
 */
export const tierFloors: Record<FidelityTier, QualityFloor> = {
  flick: { overall: 98.5, worst: 94, flatAreaError: 1.8, blockError: 8 },
  look: { overall: 97, worst: 90, flatAreaError: 3, blockError: 10 },
  glance: { overall: 95, worst: 84, flatAreaError: 5, blockError: 15 },
};

/** What a level is called and what it promises, as a sentence. */
export const tierWords: Record<FidelityTier, { name: string; promise: string }> = {
  flick: { name: 'Flick', promise: 'No difference even when you flick between the file and the picture at 100 %.' },
  look: {
    name: 'Look',
    promise: 'Nothing is missing when the file is seen alone. Flicking shows that fine grain is gone.',
  },
  glance: {
    name: 'Glance',
    promise: 'Good enough for scrolling past. A careful look shows blocks in smooth areas and noise at edges.',
  },
};

/** Below this a file is not delivered unless a person says so: it is seen to be broken. */
export const similarityFloor: QualityFloor = { overall: 92, worst: 72, flatAreaError: 11, blockError: 30 };

/** By how many points, or levels, a file is better than it has to be; below 0 where it is not good enough. */
export const marginOver = (
  similarity: Similarity,
  { overall, worst, flatAreaError, blockError }: QualityFloor,
): number =>
  Math.min(
    countingSimilarity(similarity) - overall,
    similarity.worst.similarity - worst,
    flatAreaError - similarity.flatAreaError,
    blockError - similarity.blockError,
  );

/** How far an encoder strays from "more quality, more similarity". */
export interface Straying {
  /** In points of similarity. */
  points: number;
  /** In levels of 255. */
  levels: number;
}

/** Whether a file is so far from a demand that no file of a lower quality meets it, as far as its encoder may stray. */
export const isBeyond = (similarity: Similarity, demand: QualityFloor, { points, levels: stray }: Straying): boolean =>
  countingSimilarity(similarity) < demand.overall - points ||
  similarity.worst.similarity < demand.worst - points ||
  similarity.flatAreaError > demand.flatAreaError + stray ||
  similarity.blockError > demand.blockError + stray;
