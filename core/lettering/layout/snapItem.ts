import type { Point, Rect } from '../../geometry/index.ts';

/** A line that an item was snapped to: across it or down, at a place in pixels of the file. */
export interface SnapLine {
  axis: 'x' | 'y';
  at: number;
}

/** What is free between an item and its neighbour on one side, in pixels of the file: from one place of an axis to another. */
export interface Distance {
  axis: 'x' | 'y';
  from: number;
  to: number;
  /** Where it is shown on the other axis. */
  across: number;
}

/** An item moved a little, so that it stands on lines that are near or as far from one neighbour as from the other. */
export interface Snapped {
  by: Point;
  lines: SnapLine[];
  /** Two of an axis on which it stands as far from one neighbour as from the other; none else. */
  distances: Distance[];
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

const sides = {
  x: { start: 'left', length: 'width', otherStart: 'top', otherLength: 'height' },
  y: { start: 'top', length: 'height', otherStart: 'left', otherLength: 'width' },
} as const;

/** The neighbours of an item along an axis: what ends before it and what begins after it, or the frame. Null where both are the frame. */
function neighbours(
  box: Rect,
  frame: Rect,
  others: readonly Rect[],
  axis: 'x' | 'y',
): { before: number; after: number } | null {
  const { start, length, otherStart, otherLength } = sides[axis];
  const beside = others.filter(
    (one) =>
      one[otherStart] < box[otherStart] + box[otherLength] && box[otherStart] < one[otherStart] + one[otherLength],
  );
  const middle = box[start] + box[length] / 2;
  const ends = beside.map((one) => one[start] + one[length]).filter((end) => end <= middle);
  const starts = beside.map((one) => one[start]).filter((begin) => begin >= middle);
  if (ends.length + starts.length === 0) return null;
  return { before: Math.max(frame[start], ...ends), after: Math.min(frame[start] + frame[length], ...starts) };
}

interface SnappedAxis {
  by: number;
  lines: SnapLine[];
  distances: Distance[];
}

function snapAxis(
  box: Rect,
  frame: Rect,
  bounds: Rect,
  others: readonly Rect[],
  reach: number,
  axis: 'x' | 'y',
): SnappedAxis {
  const { start, length, otherStart, otherLength } = sides[axis];
  const lines = [
    ...places(bounds[start], bounds[length]),
    ...[1 / 3, 2 / 3].map((share) => frame[start] + frame[length] * share),
    ...others.flatMap((other) => places(other[start], other[length])),
  ];
  const line = nearest(places(box[start], box[length]), lines, reach);
  const beside = neighbours(box, frame, others, axis);
  const even = beside && (beside.before + beside.after - box[length]) / 2 - box[start];
  // A line that is as near counts more: it is there to be seen.
  if (beside && even !== null && Math.abs(even) <= reach && (!line || Math.abs(even) < Math.abs(line.by))) {
    const [from, across] = [box[start] + even, box[otherStart] + box[otherLength] / 2];
    const distances = [
      { axis, from: beside.before, to: from, across },
      { axis, from: from + box[length], to: beside.after, across },
    ];
    return { by: even, lines: [], distances };
  }
  return { by: line?.by ?? 0, lines: line ? [{ axis, at: line.at }] : [], distances: [] };
}

/**
 * Snaps an item to the margins, thirds and middles of its frame, to the edges and middles of other items, and to where it is as far
 * from the neighbour on one side as from that on the other.
 *
 * @param bounds the frame within its margins
 * @param reach in pixels of the file
 */
export function snapItem(box: Rect, frame: Rect, bounds: Rect, others: readonly Rect[], reach: number): Snapped {
  const [x, y] = (['x', 'y'] as const).map((axis) => snapAxis(box, frame, bounds, others, reach, axis)) as [
    SnappedAxis,
    SnappedAxis,
  ];
  return {
    by: { x: x.by, y: y.by },
    lines: [...x.lines, ...y.lines],
    distances: [...x.distances, ...y.distances],
  };
}
