import {
  type Bounds,
  clampWindow,
  frameToOriginal,
  type Grid,
  largestWindow,
  marksOnPicture,
  originalToFrame,
  type Point,
  type Pose,
  seamsOf,
  upright,
  wholeDimensions,
} from '../geometry/index.ts';
import type { Dimensions, KeepMark, Mark, Window } from '../model/index.ts';
import { chooseOffset, cutsAt, type Guarded, type SeamCut } from './offsets.ts';

/** Round a face a seam keeps this part of the face's width away; other marks may be met at their edge. */
const faceMargin = 0.25;
/** So much of the picture is given up, in steps, where that frees a mark from every seam. */
const tightenings = [1, 0.97, 0.94, 0.9, 0.86, 0.82, 0.78];

/** A seam this little inside of a mark, in pixels of the files, is nothing that anybody could see. */
const unseen = 0.5;

/** A seam that runs through a mark. */
export interface CutMark extends SeamCut {
  axis: 'x' | 'y';
  name: string;
  /** In pixels of the files. */
  pixels: number;
}

export interface ComposedStrip {
  window: Window;
  cuts: CutMark[];
  /** How many keep marks do not lie whole in the strip. */
  outside: number;
}

/**
 * The window of a strip or block whose seams avoid the keep marks: as wide as the picture allows, moved as little as it
 * takes; tightened a little where only that helps. What a seam must cut all the same is named.
 *
 * @param wish the window that the strip should stay close to; left out, the largest in the middle
 */
export function composeStrip(
  bounds: Bounds,
  grid: Grid,
  marks: readonly Mark[],
  wish?: Window,
  pose: Pose = upright,
): ComposedStrip {
  const output = wholeDimensions(grid);
  const start = wish ?? largestWindow(bounds, output, pose);
  const keeps = marksOnPicture(marks, bounds.box).filter((mark): mark is KeepMark => mark.role === 'keep');
  let best: ComposedStrip | null = null;
  for (const share of tightenings) {
    const found = atSpan({ ...start, span: start.span * share }, bounds, grid, output, keeps);
    if (!best || weightOf(found) < weightOf(best)) best = found;
    if (best.cuts.length === 0) break;
  }
  return best ?? { window: start, cuts: [], outside: 0 };
}

/** A mark that the strip loses weighs more than any that a seam meets, and one mark more than any depth. */
const weightOf = ({ cuts, outside }: ComposedStrip) =>
  outside * 1e9 + cuts.length * 1e6 + cuts.reduce((sum, { pixels }) => sum + pixels, 0);

/** From where to where a mark reaches along one axis of the strip, in pixels of the files. */
function extentOf(mark: KeepMark, axis: 'x' | 'y', window: Window, output: Dimensions): { start: number; end: number } {
  const corners = [mark.left, mark.left + mark.width].flatMap((x) =>
    [mark.top, mark.top + mark.height].map((y) => originalToFrame(window, output, { x, y })[axis]),
  );
  return { start: Math.min(...corners), end: Math.max(...corners) };
}

function marksOutside(keeps: readonly KeepMark[], window: Window, output: Dimensions): number {
  const isWhole = (mark: KeepMark) =>
    (['x', 'y'] as const).every((axis) => {
      const { start, end } = extentOf(mark, axis, window, output);
      return start >= -unseen && end <= (axis === 'x' ? output.width : output.height) + unseen;
    });
  return keeps.filter((mark) => !isWhole(mark)).length;
}

/** The part of the room in which every mark that fits stays whole in the strip; all of it where there is none. */
function keepingRoom(
  room: { low: number; high: number },
  keeps: readonly KeepMark[],
  axis: 'x' | 'y',
  window: Window,
  output: Dimensions,
  length: number,
): { low: number; high: number } {
  const fitting = keeps
    .map((mark) => extentOf(mark, axis, window, output))
    .filter(({ start, end }) => end - start <= length);
  const low = Math.max(room.low, ...fitting.map(({ end }) => end - length));
  const high = Math.min(room.high, ...fitting.map(({ start }) => start));
  return low <= high ? { low, high } : room;
}

function atSpan(
  window: Window,
  bounds: Bounds,
  grid: Grid,
  output: Dimensions,
  keeps: readonly KeepMark[],
): ComposedStrip {
  const held = clampWindow(window, bounds, output);
  const seams = seamsOf(grid);
  /** How far the strip moves along each of its own axes, in pixels of the files. */
  const shift: Point = { x: 0, y: 0 };
  for (const axis of ['x', 'y'] as const) {
    const along = seams.filter((seam) => seam.axis === axis);
    const guarded = keeps.map((mark) => guardedOf(mark, axis, held, output));
    const room = roomOf(axis, held, bounds, output);
    const length = axis === 'x' ? output.width : output.height;
    shift[axis] = chooseOffset(along, guarded, keepingRoom(room, keeps, axis, held, output, length), 0).offset;
  }
  const at = frameToOriginal(held, output, { x: output.width / 2 + shift.x, y: output.height / 2 + shift.y });
  const moved = clampWindow({ ...held, centreX: at.x, centreY: at.y }, bounds, output);
  return { window: moved, cuts: cutMarks(moved, grid, keeps), outside: marksOutside(keeps, moved, output) };
}

/** The keep marks that the seams of a strip run through, as its window lies. */
export function cutMarks(window: Window, grid: Grid, keeps: readonly KeepMark[]): CutMark[] {
  const output = wholeDimensions(grid);
  const seams = seamsOf(grid);
  return (['x', 'y'] as const).flatMap((axis) => {
    const along = seams.filter((seam) => seam.axis === axis);
    const guarded = keeps.map((mark) => guardedOf(mark, axis, window, output));
    return cutsAt(along, guarded, 0)
      .filter(({ depth }) => depth > unseen)
      .map(({ markId, depth }) => {
        const name = keeps.find((mark) => mark.id === markId)?.name ?? '';
        return { markId, depth, axis, name, pixels: Math.ceil(depth) };
      });
  });
}

/** What of a mark no seam should meet, along one axis of the strip, in pixels of the files. */
function guardedOf(mark: KeepMark, axis: 'x' | 'y', window: Window, output: Dimensions): Guarded {
  const { start, end } = extentOf(mark, axis, window, output);
  const margin = mark.kind === 'face' ? (end - start) * faceMargin : 0;
  return { markId: mark.id, start: start - margin, end: end + margin };
}

/** How far the strip can move along one of its axes, in pixels of the files. */
function roomOf(axis: 'x' | 'y', window: Window, bounds: Bounds, output: Dimensions): { low: number; high: number } {
  const far = 1e6;
  const reached = ([-far, far] as const).map((by) => {
    const at = frameToOriginal(window, output, {
      x: output.width / 2 + (axis === 'x' ? by : 0),
      y: output.height / 2 + (axis === 'y' ? by : 0),
    });
    const held = clampWindow({ ...window, centreX: at.x, centreY: at.y }, bounds, output);
    const back = originalToFrame(window, output, { x: held.centreX, y: held.centreY });
    return back[axis] - (axis === 'x' ? output.width : output.height) / 2;
  });
  return { low: Math.min(0, ...reached), high: Math.max(0, ...reached) };
}
