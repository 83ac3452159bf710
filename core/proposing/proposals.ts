import { type Rect, sharedPart } from '../geometry/index.ts';
import type { Analysis, Decided, Mark, Original, Proposal } from '../model/index.ts';

/** Two regions are about the same thing where they share this much of what both cover (intersection over union). */
const sameThing = 0.5;

const isDecided = (decided: readonly Decided[], { kind, ...region }: Proposal) =>
  decided.some((one) => one.kind === kind && sharedPart(one, region) >= sameThing);

const isMarked = (marks: readonly Mark[], region: Rect) => marks.some((mark) => sharedPart(mark, region) >= sameThing);

type Edited = Pick<Original, 'marks' | 'decided'>;

/** What was seen in an original and nobody has decided on: what a person has marked is not proposed to them. */
export function openProposals({ marks, decided }: Edited, analysis: Analysis | null): Proposal[] {
  return (analysis?.proposals ?? []).filter((one) => !isDecided(decided, one) && !isMarked(marks, one));
}

/** How far an original leans, clockwise in degrees, as far as that is still proposed; null where nothing is. */
export const openTilt = ({ decided }: Pick<Original, 'decided'>, analysis: Analysis | null): number | null =>
  decided.some(({ kind }) => kind === 'tilt') ? null : (analysis?.tilt ?? null);

/** The body of artwork, as far as a trim to it is still proposed; null where nothing is. */
export const openBody = (
  { decided, trim }: Pick<Original, 'decided' | 'trim'>,
  analysis: Analysis | null,
): Analysis['body'] => (trim !== null || decided.some(({ kind }) => kind === 'body') ? null : (analysis?.body ?? null));

/** What says that a person has decided on a proposal. */
export const decisionOn = ({ kind, left, top, width, height }: Proposal): Decided => ({
  kind,
  left,
  top,
  width,
  height,
});
