import type { FidelityTier, Similarity } from '@inkwell/core/model';
import { marginOver, similarityFloor, tierFloors } from '@inkwell/core/weighing';

/** What a similarity means to somebody who looks. */
export function similarityWords(similarity: Similarity): string {
  const held = (Object.keys(tierFloors) as FidelityTier[]).find(
    (level) => marginOver(similarity, tierFloors[level]) >= 0,
  );
  if (held) return { flick: 'nothing moves', look: 'nothing is missing', glance: 'good in passing' }[held];
  return marginOver(similarity, similarityFloor) >= 0 ? 'it is seen' : 'broken';
}
