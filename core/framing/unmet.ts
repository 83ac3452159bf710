import { frameAxes, intersection, originalToFrame, type Rect } from '../geometry/index.ts';
import type { Dimensions, KeepMark, Mark, Window } from '../model/index.ts';
import { coveredRects, shapeSides } from './constraints.ts';
import type { ContentArea } from './contentArea.ts';
import { facing, framePoseOf, support, withinSides } from './halfSpaces.ts';

/** A mark that a window does not honour. */
export interface Unmet {
  markId: string;
  kind: 'cut' | 'covered' | 'not always shown' | 'shown';
  /** How far the mark reaches out of what is shown, in output pixels; 0 where it is not cut. */
  pixels: number;
  text: string;
}

/** Less than this many output pixels is nothing that anybody could see. */
const unseen = 0.5;

/** The rectangle along the frame's edges that holds a mark, in output pixels. */
export function markInFrame(mark: Mark, window: Window, output: Dimensions): Rect {
  const { across, down } = frameAxes(window);
  const scale = output.width / window.span;
  const zero = originalToFrame(window, output, { x: 0, y: 0 });
  const left = zero.x - support(mark, { x: -across.x, y: -across.y }) * scale;
  const top = zero.y - support(mark, { x: -down.x, y: -down.y }) * scale;
  return {
    left,
    top,
    width: zero.x + support(mark, across) * scale - left,
    height: zero.y + support(mark, down) * scale - top,
  };
}

/** All marks that a window does not honour, in their order, with words for each. */
export function unmetMarks(window: Window, contentArea: ContentArea, marks: readonly Mark[]): Unmet[] {
  const { dimensions } = contentArea;
  return marks.flatMap((mark) => {
    const rect = markInFrame(mark, window, dimensions);
    const found =
      mark.role === 'keep' ? unmetKeep(mark, rect, window, contentArea) : unmetAvoid(mark, rect, dimensions);
    return found ? [found] : [];
  });
}

function unmetKeep(mark: KeepMark, rect: Rect, window: Window, contentArea: ContentArea): Unmet | null {
  const cut = cutBy(mark, window, contentArea);
  if (cut > unseen) {
    return { markId: mark.id, kind: 'cut', pixels: Math.ceil(cut), text: cutText(mark, rect, contentArea) };
  }
  const reasons = coveredRects(contentArea, contentArea.dimensions)
    .filter((area) => overlaps(area, rect))
    .map((area) => area.reason);
  if (reasons.length > 0) {
    const text = `${mark.name} lies under ${[...new Set(reasons)].join(' and ')}.`;
    return { markId: mark.id, kind: 'covered', pixels: 0, text };
  }
  const shown = contentArea.shownPart;
  if (shown && !holds(shown, rect)) {
    const text = `${mark.name} lies outside the part that is always shown (${shown.reason}).`;
    return { markId: mark.id, kind: 'not always shown', pixels: 0, text };
  }
  return null;
}

/** How far a mark reaches out of the shape of the frame, in output pixels. */
function cutBy(mark: Mark, window: Window, contentArea: ContentArea): number {
  const at = [window.centreX, window.centreY, window.span];
  const over = withinSides(mark, facing(shapeSides(contentArea), framePoseOf(contentArea.dimensions, window))).map(
    ({ normal, limit }) => normal.reduce((sum, value, index) => sum + value * (at[index] ?? 0), 0) - limit,
  );
  return (Math.max(...over) * contentArea.dimensions.width) / window.span;
}

function cutText(mark: Mark, rect: Rect, { grouped, shape, dimensions, inset, stretch }: ContentArea): string {
  const what = grouped ? 'strip' : shape === 'circle' ? 'circle' : 'frame';
  const { width, height } = dimensions;
  const over = (first: number, last: number) => Math.max(0, first) + Math.max(0, last);
  const sideways = Math.ceil(over(-rect.left, rect.left + rect.width - width));
  const upDown = Math.ceil(over(-rect.top, rect.top + rect.height - height) / stretch);
  if (sideways + upDown === 0) {
    return inset.x > 0 ? `${mark.name} lies under the ring.` : `${mark.name} is cut by the ${what}’s rounding.`;
  }
  const short = sideways >= upDown ? `${sideways} px too narrow` : `${upDown} px too low`;
  return `${mark.name} is cut: the ${what} is ${short} for it.`;
}

function unmetAvoid(mark: Mark, rect: Rect, output: Dimensions): Unmet | null {
  if (!overlaps({ left: 0, top: 0, ...output }, rect)) return null;
  return { markId: mark.id, kind: 'shown', pixels: 0, text: `${mark.name} is in the frame and should stay out.` };
}

function overlaps(a: Rect, b: Rect): boolean {
  const common = intersection(a, b);
  return common.width > unseen && common.height > unseen;
}

const holds = (outer: Rect, inner: Rect) =>
  inner.left >= outer.left - unseen &&
  inner.top >= outer.top - unseen &&
  inner.left + inner.width <= outer.left + outer.width + unseen &&
  inner.top + inner.height <= outer.top + outer.height + unseen;
