import { type ContentArea, markInFrame, unmetMarks } from '../../framing/index.ts';
import { boundsOf, clampWindow } from '../../geometry/index.ts';
import { type Finding, type FrameChange, isMust, type Mark, type Window } from '../../model/index.ts';
import type { FrameToCheck } from '../frameToCheck.ts';

/**
 * Less than this share of its detail, and a face or subject is a smudge; words stop being words much earlier. Found by
 * eye on faces and titles of the demo, shown from 160 down to 20 pixels wide.
 */
const leastKept = { text: 0.8, other: 0.4 };
/** A tightened frame shows the mark in this part of its width or height. */
const tightened = 0.66;

/** Marks whose detail does not survive at a width at which the frame is shown. */
export function detailFindings(frame: FrameToCheck, window: Window, contentArea: ContentArea): Finding[] {
  const { original, place, detail } = frame;
  return original.marks.flatMap((mark): Finding[] => {
    const least = mark.role === 'keep' && mark.kind === 'text' ? leastKept.text : leastKept.other;
    const lost = (detail ?? []).filter(({ markId, kept }) => markId === mark.id && kept < least);
    // Widths come largest first: where it is lost there, it is lost further down as well.
    const [first, ...further] = lost.filter(({ shownWidth }) => place.shownWidths.includes(shownWidth));
    if (!first) return [];
    const kept = `${Math.round(first.kept * 100)} %`;
    const also = further.length > 0 ? ` (and less at ${further.map((one) => one.shownWidth).join(' and ')} px)` : '';
    const fix = tightenedTo(mark, frame, window, contentArea);
    return [
      {
        kind: 'detail lost',
        level: 'caution',
        text: `Shown ${first.shownWidth} px wide, ${mark.name} keeps ${kept} of its detail${also}: tighten the frame on it.`,
        measured: kept,
        allowed: `${least * 100} %`,
        ...(fix ? { fix: { label: 'Tighten', change: fix } } : {}),
      },
    ];
  });
}

/** A window in which the mark is as large as it well can be, unless that costs a mark that must be kept. */
function tightenedTo(
  mark: Mark,
  { original, settings }: FrameToCheck,
  window: Window,
  contentArea: ContentArea,
): FrameChange | null {
  const { dimensions } = contentArea;
  const rect = markInFrame(mark, window, dimensions);
  const factor = Math.max(rect.width / dimensions.width, rect.height / dimensions.height) / tightened;
  if (factor > 0.9) return null;
  const next = clampWindow(
    {
      ...window,
      span: window.span * factor,
      centreX: mark.left + mark.width / 2,
      centreY: mark.top + mark.height / 2,
    },
    boundsOf(original, settings.backing),
    dimensions,
  );
  const musts = original.marks.filter(isMust);
  if (unmetMarks(next, contentArea, musts).length > unmetMarks(window, contentArea, musts).length) return null;
  return { composed: false, window: next };
}
