import { hardToRead, isCut } from '@inkwell/core/dryRunning';
import type { ComeBack, DryRun, DryRunCounts, DryRunOutcome, LostEdges } from '@inkwell/core/model';
import { counted } from '../../parts/counted.ts';

/** What a person should look at in an outcome: it was not taken, something was cut, or words are hard to read. */
export type Level = 'blocker' | 'caution' | 'fine';

export function levelOf(outcome: DryRunOutcome | null): Level {
  if (!outcome) return 'fine';
  if (outcome.state !== 'shown') return 'blocker';
  const { cut, shown } = outcome.back;
  return cut.length > 0 || isCut(outcome.back.lost) || shown.some(({ words }) => hardToRead(words).length > 0)
    ? 'caution'
    : 'fine';
}

/** Which edges lost how much: `34 px left and right`. */
export function lostWords({ left, right, top, bottom }: LostEdges): string {
  const sides = (a: number, b: number, one: string, other: string) => {
    if (a === b) return a > 0 ? [`${a} px ${one} and ${other}`] : [];
    return [...(a > 0 ? [`${a} px ${one}`] : []), ...(b > 0 ? [`${b} px ${other}`] : [])];
  };
  return [...sides(left, right, 'left', 'right'), ...sides(top, bottom, 'top', 'bottom')].join(', ');
}

/** The width at which least is left: that counts. */
const leastShown = ({ shown }: Pick<ComeBack, 'shown'>) =>
  shown.length === 0 ? null : shown.reduce((least, one) => (one.similarity < least.similarity ? one : least));

/** What became of a file, in one line. */
export function outcomeWords(outcome: DryRunOutcome | null): string {
  if (!outcome) return 'waiting';
  if (outcome.state === 'refused') return `Refused: ${outcome.refusal.rule}`;
  if (outcome.state === 'held back') return 'Not posted';
  if (outcome.state === 'not reached') return 'Not reached';
  const { back } = outcome;
  if (isCut(back.lost)) return `Cut: ${lostWords(back.lost)}`;
  const least = leastShown(back);
  return least ? `${least.similarity.toFixed(1)} at ${least.shownWidth} px` : 'Taken';
}

/** How a run went so far, in one sentence. */
export function runWords(state: DryRun['state'], { files, over, shown, refused, cut }: DryRunCounts): string {
  if (state === 'waiting') return files === 0 ? 'Waiting for the delivery to be made.' : 'Waiting to begin.';
  const other = over - shown - refused;
  const parts = [
    `${shown} of ${counted(files, 'file')} shown`,
    ...(refused > 0 ? [`${refused} refused`] : []),
    ...(cut > 0 ? [`${cut} cut`] : []),
    ...(other > 0 ? [`${other} not posted`] : []),
  ];
  return `${state === 'cancelled' ? 'Cancelled. ' : ''}${parts.join(', ')}.`;
}
