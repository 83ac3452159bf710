import type { LeftAt, TriedUpload } from '../model/index.ts';

/** Scores that differ by less are equal: figures are shown with one decimal. */
const noDifference = 0.05;

/** What is left of a frame at one width, 0..100: all of it and its worst spot count alike. */
export const scoreAt = ({ similarity, worst }: LeftAt): number => (similarity + worst) / 2;

/** The width at which the least is left of a frame. */
export function leastLeft({ left }: Pick<TriedUpload, 'left'>): LeftAt {
  const [first, ...others] = left;
  if (!first) throw new RangeError('A frame is shown at one width at least.');
  return others.reduce((least, one) => (scoreAt(one) < scoreAt(least) ? one : least), first);
}

/** What a way to upload is judged by, 0..100: what is left at the width at which that is least. */
export const scoreOf = (tried: Pick<TriedUpload, 'left'>): number => scoreAt(leastLeft(tried));

/** The lightest of all that leave as much as the best of them does. Of several that weigh the same the first. */
export function bestOf(tried: readonly [TriedUpload, ...TriedUpload[]]): TriedUpload {
  const most = Math.max(...tried.map(scoreOf));
  return tried
    .filter((one) => scoreOf(one) > most - noDifference)
    .reduce((best, one) => (one.bytes < best.bytes ? one : best));
}

/** Whether what was found is worth a change: more of the frame is seen, or as much in a file that is a tenth lighter. */
export const isWorthIt = ({ asSet, best }: { asSet: TriedUpload; best: TriedUpload }): boolean =>
  scoreOf(best) >= scoreOf(asSet) + noDifference || best.bytes < 0.9 * asSet.bytes;
