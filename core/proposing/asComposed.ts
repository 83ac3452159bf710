import type { Analysis, Composing, MarkToCompose, Original, Proposal } from '../model/index.ts';
import { keepMarkOf } from './marksFromProposals.ts';
import { openProposals } from './proposals.ts';

/** Which of two proposals goes first where not all can be kept. */
const order = ['face', 'words', 'person', 'animal', 'thing', 'stands out'] as const;

/** Where there are many, the surest and most telling are enough: more than these contradict each other. */
const mostProposals = 24;

const bySureness = (a: Proposal, b: Proposal) =>
  Number(b.sureness === 'sure') - Number(a.sureness === 'sure') ||
  order.indexOf(a.kind) - order.indexOf(b.kind) ||
  b.width * b.height - a.width * a.height;

/**
 * An original with the marks that its frames are composed from: a person's own, and what was seen beside them, each with the
 * weight of how sure it is: a face that is sure must be in, all else should be.
 */
export function asComposed<Edited extends Pick<Original, 'marks' | 'decided'>>(
  original: Edited,
  seen: Analysis | null,
  composing: Composing,
): Omit<Edited, 'marks'> & { marks: MarkToCompose[] } {
  if (composing === 'marks' || !seen) return original;
  const proposed = openProposals(original, seen)
    .sort(bySureness)
    .slice(0, mostProposals)
    .map((one, at): MarkToCompose => {
      const isMust = one.kind === 'face' && one.sureness === 'sure';
      return {
        ...keepMarkOf(one, `proposal ${at}`, one.name),
        priority: isMust ? 'must' : 'should',
        proposed: one.sureness,
      };
    });
  return proposed.length === 0 ? original : { ...original, marks: [...original.marks, ...proposed] };
}
