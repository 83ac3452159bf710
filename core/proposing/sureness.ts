import type { Proposal } from '../model/index.ts';

/**
 * From which score on something that a detector reports is sure, and from which on it is likely; what has less is not proposed.
 * Found on photographs with and without such things. The detector of faces sees some in fruit, flowers and sand up to 0.75, where
 * real ones have 0.77 to 0.94; the one of objects reports birds and clocks in fronts of houses up to 0.5, and real people, cats
 * and vehicles from 0.5 on. bench/RESULTS.md says what comes of it.
 */
const scores = {
  face: { sure: 0.82, likely: 0.76 },
  object: { sure: 0.62, likely: 0.5 },
} as const;

/** How sure a detector is, in a word; null where it is too little to say anything. */
export function surenessOf(what: keyof typeof scores, score: number): Proposal['sureness'] | null {
  const { sure, likely } = scores[what];
  return score >= sure ? 'sure' : score >= likely ? 'likely' : null;
}
