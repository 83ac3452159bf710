import type { Point, Rect } from '../../geometry/index.ts';

/** A line that an item was snapped to: across it or down, at a place in pixels of the file. */
export interface SnapLine {
  axis: 'x' | 'y';
  at: number;
}

/** An item moved a little, so that it stands on lines that are near, and those lines. */
export interface Snapped {
  by: Point;
  lines: SnapLine[];
}

/** The places of an interval that are put on lines: its ends and its middle. */
const places = (from: number, length: number) => [from, from + length / 2, from + length];

/** How far one axis is moved: to the nearest of the lines within reach. */
function nearest(own: readonly number[], lines: readonly number[], reach: number): { by: number; at: number } | null {
  let best: { by: number; at: number } | null = null;
  for (const place of own) {
    for (const at of lines) {
      const by = at - place;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, at };
    }
  }
  return best;
}

/**
 * Snaps an item to the margins, thirds and middles of its frame, and to the edges and middles of other items.
 *
 * @param bounds the frame within its margins
 * @param reach in pixels of the file
 */
export function snapItem(box: Rect, frame: Rect, bounds: Rect, others: readonly Rect[], reach: number): Snapped {
  const lines = (from: 'left' | 'top', length: 'width' | 'height') => [
    ...places(bounds[from], bounds[length]),
    ...[1 / 3, 2 / 3].map((share) => frame[from] + frame[length] * share),
    ...others.flatMap((other) => places(other[from], other[length])),
  ];
  const across = nearest(places(box.left, box.width), lines('left', 'width'), reach);
  const down = nearest(places(box.top, box.height), lines('top', 'height'), reach);
  return {
    by: { x: across?.by ?? 0, y: down?.by ?? 0 },
    lines: [
      ...(across ? [{ axis: 'x' as const, at: across.at }] : []),
      ...(down ? [{ axis: 'y' as const, at: down.at }] : []),
    ],
  };
}
