import { intersection, type Rect } from '../geometry/index.ts';
import type { Dimensions, LostEdges } from '../model/index.ts';
import type { Plane } from '../planes/index.ts';

/** The axis along which something was cut off a picture, and the part of it that is left, 0..1. */
export interface Cut {
  axis: 'x' | 'y';
  left: number;
}

/** Sides that are rounded to whole pixels may be so far from the same shape, in pixels. */
const rounding = 1;

/** What a change of shape says: a picture that is only scaled keeps its shape, so that along one axis something is gone. Null where nothing is. */
export function cutOf(before: Dimensions, after: Dimensions): Cut | null {
  const kept = (before.height * after.width) / before.width;
  if (Math.abs(kept - after.height) <= rounding) return null;
  return kept > after.height
    ? { axis: 'y', left: (before.width * after.height) / (after.width * before.height) }
    : { axis: 'x', left: (before.height * after.width) / (after.height * before.width) };
}

/** Coarse steps, in which only every so many-th row and column is looked at. */
const coarse = 4;

/**
 * Where a part lies in a whole, along an axis along which it is shorter: the offset at which the mean square difference of luminance
 * is least. Of offsets that fit alike, the one nearest the middle: that is where networks cut.
 *
 * @param whole and @param part at the same scale; across the axis both have the same side
 * @returns pixels of the whole
 */
export function offsetOf(whole: Plane, part: Plane, axis: 'x' | 'y'): number {
  const last = axis === 'x' ? whole.width - part.width : whole.height - part.height;
  if (last <= 0) return 0;
  const all = Array.from({ length: last + 1 }, (_, at) => at);
  const rough = nearest(
    all.filter((at) => at % coarse === 0 || at === last),
    last / 2,
    (at) => error(whole, part, axis, at, coarse),
  );
  const near = all.filter((at) => Math.abs(at - rough) <= coarse);
  return nearest(near, last / 2, (at) => error(whole, part, axis, at, 1));
}

/** The candidate with the least error; of equals the one nearest to `middle`. */
function nearest(candidates: readonly number[], middle: number, errorAt: (at: number) => number): number {
  const fromMiddle = [...candidates].sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle));
  let best = { at: fromMiddle[0] ?? 0, error: Number.POSITIVE_INFINITY };
  for (const at of fromMiddle) {
    const found = errorAt(at);
    if (found < best.error) best = { at, error: found };
  }
  return best.at;
}

function error(whole: Plane, part: Plane, axis: 'x' | 'y', offset: number, step: number): number {
  const [dx, dy] = axis === 'x' ? [offset, 0] : [0, offset];
  const [width, height] = [Math.min(part.width, whole.width - dx), Math.min(part.height, whole.height - dy)];
  let [sum, count] = [0, 0];
  for (let y = 0; y < height; y += step) {
    for (let x = 0; x < width; x += step) {
      const by = (whole.data[(y + dy) * whole.width + x + dx] ?? 0) - (part.data[y * part.width + x] ?? 0);
      sum += by * by;
      count += 1;
    }
  }
  return count === 0 ? Number.POSITIVE_INFINITY : sum / count;
}

/** What is gone at each edge of a file, in its pixels. @param offset of the part that is left, as a share of the side along the axis */
export function lostEdges({ width, height }: Dimensions, cut: Cut | null, offset: number): LostEdges {
  const nothing: LostEdges = { left: 0, top: 0, right: 0, bottom: 0 };
  if (!cut) return nothing;
  const side = cut.axis === 'x' ? width : height;
  const before = Math.round(offset * side);
  const after = Math.max(0, Math.round((1 - cut.left) * side) - before);
  return cut.axis === 'x' ? { ...nothing, left: before, right: after } : { ...nothing, top: before, bottom: after };
}

/** Scaling moves pictures by up to so many pixels: a cut that is no further from the middle is one from the middle. */
const scalingMoves = 1.5;

/** What is gone at each edge, as it was meant: networks cut from the middle. */
export function fromTheMiddle(lost: LostEdges): LostEdges {
  const even = (a: number, b: number): [number, number] =>
    Math.abs(a - b) / 2 <= scalingMoves ? [Math.floor((a + b) / 2), Math.ceil((a + b) / 2)] : [a, b];
  const [left, right] = even(lost.left, lost.right);
  const [top, bottom] = even(lost.top, lost.bottom);
  return { left, right, top, bottom };
}

/** The part of a file that is left. */
export const leftOf = ({ width, height }: Dimensions, { left, top, right, bottom }: LostEdges): Rect => ({
  left,
  top,
  width: Math.max(1, width - left - right),
  height: Math.max(1, height - top - bottom),
});

/**
 * The gap between two tiles, as a share of a tile's width, by the width of a post and of its tiles as they are shown; null where no two
 * stand side by side.
 */
export const gapBetween = (postWidth: number, tileWidth: number, columns: number): number | null =>
  columns < 2 ? null : Math.max(0, (postWidth - columns * tileWidth) / (columns - 1) / tileWidth);

/** Less of a thing than this may go without anybody seeing it. */
const leastCut = 0.005;

/** What of named things is gone with the edges; only of what the file shows counts. */
export function cutThings(
  things: readonly { name: string; isMust: boolean; rect: Rect }[],
  file: Dimensions,
  lost: LostEdges,
): { name: string; isMust: boolean; share: number }[] {
  const left = leftOf(file, lost);
  return things.flatMap(({ name, isMust, rect }) => {
    const before = intersection(rect, { left: 0, top: 0, ...file });
    const after = intersection(rect, left);
    const area = before.width * before.height;
    const share = area === 0 ? 0 : 1 - (after.width * after.height) / area;
    return share > leastCut ? [{ name, isMust, share: Math.round(share * 1000) / 1000 }] : [];
  });
}
