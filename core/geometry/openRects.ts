import { intersection, type Rect } from './rect.ts';

const holds = (outer: Rect, inner: Rect) =>
  outer.left <= inner.left &&
  outer.top <= inner.top &&
  outer.left + outer.width >= inner.left + inner.width &&
  outer.top + outer.height >= inner.top + inner.height;

/** What is left of a rectangle at each side of an area in it: up to four rectangles, as large as they can be. */
function besideArea(rect: Rect, area: Rect): Rect[] {
  const common = intersection(rect, area);
  if (common.width === 0 || common.height === 0) return [rect];
  const right = rect.left + rect.width;
  const bottom = rect.top + rect.height;
  return [
    { ...rect, width: common.left - rect.left },
    { ...rect, left: common.left + common.width, width: right - common.left - common.width },
    { ...rect, height: common.top - rect.top },
    { ...rect, top: common.top + common.height, height: bottom - common.top - common.height },
  ];
}

/**
 * All rectangles within `whole` that meet none of the areas and cannot grow: whatever upright rectangle fits beside the areas lies in
 * one of them.
 *
 * @param least those narrower or lower than this are left out
 */
export function openRects(whole: Rect, areas: readonly Rect[], least = { width: 0, height: 0 }): Rect[] {
  const isEnough = ({ width, height }: Rect) =>
    width > 0 && height > 0 && width >= least.width && height >= least.height;
  let open = [whole].filter(isEnough);
  for (const area of areas) {
    const untouched: Rect[] = [];
    const cut: Rect[] = [];
    for (const rect of open) {
      const parts = besideArea(rect, area);
      if (parts[0] === rect) untouched.push(rect);
      else cut.push(...parts.filter(isEnough));
    }
    // Only what was cut can have become part of another.
    const kept = cut.filter(
      (one, at) =>
        !untouched.some((other) => holds(other, one)) &&
        !cut.some((other, index) => index !== at && holds(other, one) && (!holds(one, other) || index < at)),
    );
    open = [...untouched, ...kept];
  }
  return open;
}
