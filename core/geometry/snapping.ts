import type { Dimensions, Window } from '../model/index.ts';
import type { Rect } from './rect.ts';
import { originalToFrame } from './turned.ts';
import { type Bounds, nudge } from './window.ts';

/** What a moved window can snap to: a line of the frame, and what of the picture came to lie on it. */
export interface Snap {
  /** Runs downwards (`x`) or across (`y`). */
  axis: 'x' | 'y';
  /** Where it lies in the frame, 0..1. */
  at: number;
  what: 'edge of the picture' | 'middle of the picture' | 'middle of a mark' | 'edge of a mark';
}

/** The lines of a frame that the middles of marks snap to. */
const thirdsAndMiddle = [1 / 3, 1 / 2, 2 / 3];

interface Candidate extends Snap {
  /** So many pixels of the frame the picture has to move. */
  shift: number;
}

/** From `start` to `end` along one axis of the frame. */
interface Extent {
  start: number;
  end: number;
}

/**
 * The window moved a little so that the picture's edges and middle, or its marks, lie on the frame's edges, thirds and
 * middle: on each axis the nearest of them, if it is within `distance`.
 *
 * @param distance in pixels of the frame
 */
export function snapWindow(
  window: Window,
  marks: readonly Rect[],
  bounds: Bounds,
  output: Dimensions,
  distance: number,
): { window: Window; snaps: Snap[] } {
  // A turned picture's edges run across the frame: only its middle and its marks can lie on anything.
  const alongEdges = window.turn % 90 === 0;
  const picture = extents(bounds.box, window, output);
  const regions = marks.map((mark) => extents(mark, window, output));
  const best = (['x', 'y'] as const).map((axis) => {
    const length = axis === 'x' ? output.width : output.height;
    const candidates: Candidate[] = [
      { axis, at: 0.5, what: 'middle of the picture', shift: length / 2 - middleOf(picture[axis]) },
      ...(alongEdges ? onEdges(picture[axis], axis, length, 'edge of the picture') : []),
      ...regions.flatMap((region) => [
        ...thirdsAndMiddle.map(
          (at): Candidate => ({ axis, at, what: 'middle of a mark', shift: at * length - middleOf(region[axis]) }),
        ),
        ...(alongEdges ? onEdges(region[axis], axis, length, 'edge of a mark') : []),
      ]),
    ];
    const nearest = candidates.reduce((a, b) => (Math.abs(b.shift) < Math.abs(a.shift) ? b : a));
    return Math.abs(nearest.shift) <= distance ? nearest : null;
  });
  const [x, y] = best;
  const moved = nudge(window, { x: -(x?.shift ?? 0), y: -(y?.shift ?? 0) }, bounds, output);
  const after = extents(bounds.box, moved, output);
  // The picture's edges may have kept the window from going all the way.
  const held = best.filter(
    (one) => one && Math.abs(after[one.axis].start - picture[one.axis].start - one.shift) < 0.01,
  ) as Candidate[];
  return { window: moved, snaps: held.map(({ axis, at, what }) => ({ axis, at, what })) };
}

const middleOf = ({ start, end }: Extent) => (start + end) / 2;

const onEdges = ({ start, end }: Extent, axis: Snap['axis'], length: number, what: Snap['what']): Candidate[] => [
  { axis, at: 0, what, shift: -start },
  { axis, at: 1, what, shift: length - end },
];

/** Where a rectangle of the original lies along the frame's axes, in pixels of the frame. */
function extents({ left, top, width, height }: Rect, window: Window, output: Dimensions): Record<Snap['axis'], Extent> {
  const corners = [left, left + width].flatMap((x) =>
    [top, top + height].map((y) => originalToFrame(window, output, { x, y })),
  );
  const along = (values: number[]): Extent => ({ start: Math.min(...values), end: Math.max(...values) });
  return { x: along(corners.map((corner) => corner.x)), y: along(corners.map((corner) => corner.y)) };
}
