import { frameAxes, intersection, originalToFrame, type Rect } from '../geometry/index.ts';
import type { Dimensions, KeepMark, Mark, Place, Window } from '../model/index.ts';
import { coveredRects, shapeSides } from './demands.ts';
import { facing, paneOf, support, withinLimits } from './limits.ts';

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
export function unmetMarks(window: Window, place: Place, output: Dimensions, marks: readonly Mark[]): Unmet[] {
  return marks.flatMap((mark) => {
    const rect = markInFrame(mark, window, output);
    const found = mark.role === 'keep' ? unmetKeep(mark, rect, window, place, output) : unmetAvoid(mark, rect, output);
    return found ? [found] : [];
  });
}

function unmetKeep(mark: KeepMark, rect: Rect, window: Window, place: Place, output: Dimensions): Unmet | null {
  const cut = cutBy(mark, window, place, output);
  if (cut > unseen)
    return { markId: mark.id, kind: 'cut', pixels: Math.ceil(cut), text: cutText(mark, rect, place, output) };
  const reasons = coveredRects(place, output)
    .filter((area) => overlaps(area, rect))
    .map((area) => area.reason);
  if (reasons.length > 0) {
    const text = `${mark.name} lies under ${[...new Set(reasons)].join(' and ')}.`;
    return { markId: mark.id, kind: 'covered', pixels: 0, text };
  }
  const shown = place.shownPart;
  if (shown && !holds(shown, rect)) {
    const text = `${mark.name} lies outside the part that is always shown (${shown.reason}).`;
    return { markId: mark.id, kind: 'not always shown', pixels: 0, text };
  }
  return null;
}

/** How far a mark reaches out of the shape of the frame, in output pixels. */
function cutBy(mark: Mark, window: Window, place: Place, output: Dimensions): number {
  const at = [window.centreX, window.centreY, window.span];
  const over = withinLimits(mark, facing(shapeSides(place, output), paneOf(output, window))).map(
    ({ normal, limit }) => normal.reduce((sum, value, index) => sum + value * (at[index] ?? 0), 0) - limit,
  );
  return (Math.max(...over) * output.width) / window.span;
}

function cutText(mark: Mark, rect: Rect, place: Place, output: Dimensions): string {
  const what = place.group ? 'panel' : place.shape === 'circle' ? 'circle' : 'frame';
  const sideways = Math.ceil(Math.max(0, -rect.left) + Math.max(0, rect.left + rect.width - output.width));
  const upDown = Math.ceil(Math.max(0, -rect.top) + Math.max(0, rect.top + rect.height - output.height));
  if (sideways + upDown === 0) return `${mark.name} is cut by the ${what}’s rounding.`;
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
