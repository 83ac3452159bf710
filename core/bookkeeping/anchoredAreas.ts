import type { Area, Dimensions, Place } from '../model/index.ts';

/** From this share of a side on an area counts as lying along all of it. */
const alongAll = 0.9;

interface Extent {
  start: number;
  length: number;
}

/** An extent of an area after its side has become another length: as far from the nearer edge as it was. */
function anchored({ start, length }: Extent, before: number, after: number): Extent {
  const end = before - start - length;
  if (length >= before * alongAll) return { start, length: Math.max(1, after - start - end) };
  return Math.abs(end) < Math.abs(start) ? { start: after - end - length, length } : { start, length };
}

/**
 * The areas of a place that has other dimensions now: each as far from its nearer edges as it was, for controls hang on edges. What lies along
 * a whole side still does.
 */
export function anchoredAreas(
  { covered, shownPart }: Pick<Place, 'covered' | 'shownPart'>,
  before: Dimensions,
  after: Dimensions,
): Pick<Place, 'covered' | 'shownPart'> {
  const moved = (area: Area): Area => {
    const x = anchored({ start: area.left, length: area.width }, before.width, after.width);
    const y = anchored({ start: area.top, length: area.height }, before.height, after.height);
    if (area.shape === 'circle') return { ...area, left: x.start, top: y.start };
    return { ...area, left: x.start, top: y.start, width: x.length, height: y.length };
  };
  return { covered: covered.map(moved), ...(shownPart ? { shownPart: moved(shownPart) } : {}) };
}
