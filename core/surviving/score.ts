import type { LeftAt, Survival, TriedUpload } from '../model/index.ts';

/** Scores that differ by less are equal: figures are shown with one decimal. */
export const noDifference = 0.05;

/** What is left of a frame at one width, 0..100: all of it and its worst spot count alike. */
export const scoreAt = ({ similarity, worst }: LeftAt): number => (similarity + worst) / 2;

/** What a way to upload is judged by, 0..100: the mean over all widths. */
export const scoreOf = ({ left }: Pick<TriedUpload, 'left'>): number =>
  left.reduce((sum, one) => sum + scoreAt(one), 0) / left.length;

/** The width at which what was found gains most, with what is left there as it is set and at best. */
export function mostGained({
  asSet,
  best,
}: Pick<Survival, 'asSet' | 'best'>): { before: LeftAt; after: LeftAt } | null {
  const pairs = asSet.left.flatMap((before) => {
    const after = best.left.find(({ shownWidth }) => shownWidth === before.shownWidth);
    return after ? [{ before, after }] : [];
  });
  const by = ({ before, after }: { before: LeftAt; after: LeftAt }) => scoreAt(after) - scoreAt(before);
  return pairs.reduce<(typeof pairs)[number] | null>((most, one) => (most && by(most) >= by(one) ? most : one), null);
}

/**
 * The lightest of all that leave as much as the best of them does. Those that leave the finish as it is come first: nobody wants another
 * look for fewer bytes. Of several that weigh the same the first.
 */
export function bestOf(tried: readonly [TriedUpload, ...TriedUpload[]]): TriedUpload {
  const most = Math.max(...tried.map(scoreOf));
  const equal = tried.filter((one) => scoreOf(one) > most - noDifference);
  const asFinished = equal.filter(({ choice }) => choice.strength === 1);
  return (asFinished.length > 0 ? asFinished : equal).reduce((best, one) => (one.bytes < best.bytes ? one : best));
}

/** Whether more of a frame is seen by what was found than as it is set. */
export const isShownBetter = ({ asSet, best }: Pick<Survival, 'asSet' | 'best'>): boolean =>
  scoreOf(best) >= scoreOf(asSet) + noDifference;

/** Whether what was found is worth a change: more of the frame is seen, or as much in a file that is a tenth lighter. */
export const isWorthIt = ({ asSet, best }: Pick<Survival, 'asSet' | 'best'>): boolean =>
  isShownBetter({ asSet, best }) || best.bytes < 0.9 * asSet.bytes;
