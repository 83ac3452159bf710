import { intersection, openRects, type Rect } from '../geometry/index.ts';
import type { Dimensions, Mark, Window } from '../model/index.ts';
import { coveredRects } from './constraints.ts';
import type { ContentArea } from './contentArea.ts';
import { markInFrame } from './unmet.ts';

/** On which side of a frame room is made for words. */
export type WordsSide = 'left' | 'right' | 'top' | 'bottom';
export const wordsSides: readonly WordsSide[] = ['top', 'bottom', 'left', 'right'];

/** Along a frame's edge this share of its shorter side is no room for words. */
const margin = 0.045;
/** How long words can be, against their height, and how high against their length: they are broken into lines. */
const longest = 8;
const highest = 1.2;

/** The part of a rectangle that words can fill, in square pixels. */
const usable = ({ width, height }: Rect) => Math.min(width, height * longest) * Math.min(height, width * highest);

/**
 * The share of the room that words ask for which is free beside what is kept, 0..1.
 *
 * @param asked in squares of the frame's shorter side
 */
export function wordsShare(
  window: Window,
  contentArea: Pick<ContentArea, 'dimensions' | 'covered' | 'shownPart'>,
  marks: readonly Mark[],
  asked: number,
): number {
  const { dimensions, shownPart } = contentArea;
  const { width, height } = dimensions;
  const shorter = Math.min(width, height);
  const by = shorter * margin;
  const inner = { left: by, top: by, width: width - 2 * by, height: height - 2 * by };
  const closed = marks.flatMap((mark) => (mark.role === 'keep' ? [markInFrame(mark, window, dimensions)] : []));
  const open = openRects(shownPart ? intersection(inner, shownPart) : inner, [
    ...coveredRects(contentArea, dimensions),
    ...closed,
  ]);
  return Math.min(1, Math.max(0, ...open.map(usable)) / (asked * shorter ** 2));
}

/** Words have at least and at most this share of what is open, on their side. */
const depth = { least: 0.2, most: 0.5 } as const;

/** What is left of the open part of a frame for its subject, where words have one side of it. */
export function besideWords(open: Rect, side: WordsSide, asked: number, { width, height }: Dimensions): Rect {
  const area = asked * Math.min(width, height) ** 2;
  const isAcross = side === 'top' || side === 'bottom';
  const [along, whole] = isAcross ? [open.width, open.height] : [open.height, open.width];
  const taken = whole * Math.min(depth.most, Math.max(depth.least, area / (along * whole)));
  const { left, top } = open;
  if (isAcross) return { ...open, top: side === 'top' ? top + taken : top, height: open.height - taken };
  return { ...open, left: side === 'left' ? left + taken : left, width: open.width - taken };
}
