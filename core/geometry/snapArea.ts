import type { Dimensions } from '../model/index.ts';
import type { Rect } from './rect.ts';

/** Which edges of an area are moved: all of them, or those that are pulled. */
export interface Pulled {
  x: 'both' | 'start' | 'end';
  y: 'both' | 'start' | 'end';
}

interface Extent {
  start: number;
  end: number;
}

/** The shift that brings the nearest of some edges onto the nearest of some lines; 0 where none is within `distance`. */
function shiftOf(edges: readonly number[], lines: readonly number[], distance: number): number {
  let best = distance;
  let shift = 0;
  for (const edge of edges) {
    for (const line of lines) {
      if (Math.abs(line - edge) > best) continue;
      best = Math.abs(line - edge);
      shift = line - edge;
    }
  }
  return shift;
}

function snapped(extent: Extent, pulled: Pulled['x'], lines: readonly number[], distance: number): Extent {
  const { start, end } = extent;
  if (pulled === 'both') {
    const shift = shiftOf([start, end, (start + end) / 2], lines, distance);
    return { start: start + shift, end: end + shift };
  }
  const moved = pulled === 'start' ? start : end;
  const to = moved + shiftOf([moved], lines, distance);
  return pulled === 'start' ? { start: to, end } : { start, end: to };
}

const whole = ({ start, end }: Extent): Extent => {
  const from = Math.round(start);
  return { start: from, end: Math.max(from + 1, Math.round(end)) };
};

/**
 * An area of a place that is moved or pulled, brought onto the edges and the middle of the place and the edges of its other areas where it
 * comes within `distance` of them, in whole pixels.
 *
 * @param others the areas that it may be lined up with
 * @param distance in pixels of the place
 */
export function snapArea(
  area: Rect,
  place: Dimensions,
  others: readonly Rect[],
  pulled: Pulled,
  distance: number,
): Rect {
  const across = [0, place.width / 2, place.width, ...others.flatMap(({ left, width }) => [left, left + width])];
  const down = [0, place.height / 2, place.height, ...others.flatMap(({ top, height }) => [top, top + height])];
  const x = whole(snapped({ start: area.left, end: area.left + area.width }, pulled.x, across, distance));
  const y = whole(snapped({ start: area.top, end: area.top + area.height }, pulled.y, down, distance));
  return { left: x.start, top: y.start, width: x.end - x.start, height: y.end - y.start };
}
