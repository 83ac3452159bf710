import type { Proposal } from '../model/index.ts';

/**
 * From which score on something that a detector reports is sure, and from which on it is likely; what has less is not proposed.
 * Found on photographs with and without such things: bench/RESULTS.md says which. The detector of faces sees some in fruit and
 * flowers up to 0.7, the one of objects reports potted plants and birds in fronts of houses up to 0.5.
 */
const scores = {
  face: { sure: 0.82, likely: 0.74 },
  object: { sure: 0.62, likely: 0.5 },
} as const;

/** How sure a detector is, in a word; null where it is too little to say anything. */
export function surenessOf(what: keyof typeof scores, score: number): Proposal['sureness'] | null {
  const { sure, likely } = scores[what];
  return score >= sure ? 'sure' : score >= likely ? 'likely' : null;
}
