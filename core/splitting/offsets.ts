/** An interval that a seam must not lie in: a mark, from edge to edge along the seams' axis. */
export interface Guarded {
  markId: string;
  start: number;
  end: number;
}

/** A seam, from the start of the strip along the same axis. */
export interface SeamAt {
  start: number;
  width: number;
}

/** A mark that a seam runs through. */
export interface SeamCut {
  markId: string;
  /** How far the seam lies inside of the mark, from its nearer edge. */
  depth: number;
}

export interface OffsetChoice {
  offset: number;
  /** Empty where the offset is free. */
  cuts: SeamCut[];
}

/** Where the strip may begin. */
interface Room {
  low: number;
  high: number;
}

/**
 * Where a strip begins so that none of its seams runs through a guarded interval: each seam and interval forbid an open
 * interval of offsets, and of what is left the offset nearest to the wish wins. Where nothing is left, the offset at
 * which the seams run least deep into the intervals, in sum. Each depth rises to the middle of a forbidden interval and falls
 * again, so that the sum is least at an end of one, at an end of the room, or, where it is level, at the wish.
 *
 * All lengths in one unit along one axis.
 */
export function chooseOffset(
  seams: readonly SeamAt[],
  guarded: readonly Guarded[],
  room: Room,
  wish: number,
): OffsetChoice {
  const wanted = Math.min(room.high, Math.max(room.low, wish));
  const forbidden = seams.flatMap((seam) =>
    guarded.map(({ start, end }) => ({ from: start - seam.start - seam.width, to: end - seam.start })),
  );
  const nearest = (a: number, b: number) => (Math.abs(b - wanted) < Math.abs(a - wanted) ? b : a);
  const within = (offset: number) => offset >= room.low && offset <= room.high;
  const ends = [wanted, room.low, room.high, ...forbidden.flatMap(({ from, to }) => [from, to])].filter(within);
  const depthAt = (offset: number) =>
    guarded.reduce((sum, one) => sum + seams.reduce((deep, seam) => deep + depthOf(seam, one, offset), 0), 0);
  const offset = ends.reduce((best, one) => {
    const [a, b] = [depthAt(best), depthAt(one)];
    return b < a - tiny || (Math.abs(b - a) <= tiny && nearest(best, one) === one) ? one : best;
  }, wanted);
  return { offset, cuts: cutsAt(seams, guarded, offset) };
}

/** Less than this is rounding. */
const tiny = 1e-9;

/** How far a seam has to move to leave an interval; 0 where it is outside. */
function depthOf(seam: SeamAt, { start, end }: Pick<Guarded, 'start' | 'end'>, offset: number): number {
  const from = offset + seam.start;
  return Math.max(0, Math.min(from + seam.width - start, end - from));
}

/** The guarded intervals that seams run through at an offset, each once, with its deepest cut. */
export function cutsAt(seams: readonly SeamAt[], guarded: readonly Guarded[], offset: number): SeamCut[] {
  return guarded.flatMap(({ markId, start, end }) => {
    const depth = Math.max(0, ...seams.map((seam) => depthOf(seam, { start, end }, offset)));
    return depth > tiny ? [{ markId, depth }] : [];
  });
}
