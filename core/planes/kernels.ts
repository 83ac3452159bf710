import { PlaneMemory, type Pointer } from './planeMemory.ts';

/** A plane in the memory. */
export interface PlaneAt {
  at: Pointer;
  width: number;
  height: number;
}

/** The right half of symmetric weights in the memory, the middle first: `radius + 1` of them. */
export interface HalfKernel {
  weights: Pointer;
  radius: number;
}

/** A line of pixels in the memory that a kernel works with: see what each says that it takes. */
interface WithLine {
  line: Pointer;
}

/** Weights of a scaling along one side: of every output pixel `taps` weights, from its `first` source pixel on. */
export interface ScalingAt {
  first: Pointer;
  weights: Pointer;
  taps: number;
  count: number;
}

/** Sharpens a plane once: `strength` of the difference to a blurred copy, as far as that passes `threshold`. */
export function sharpenPlane(
  { kernels }: PlaneMemory,
  plane: PlaneAt,
  how: { half: HalfKernel; strength: number; threshold: number; across: Pointer; to: Pointer } & WithLine,
): void {
  const { half, strength, threshold, line, across, to } = how;
  kernels.sharpen(
    plane.at,
    plane.width,
    plane.height,
    half.weights,
    half.radius,
    strength,
    threshold,
    line,
    across,
    to,
  );
}

/** Scales a plane; `before` and `after` are the pixels by which its outermost are repeated at each end of a row. */
export function scalePlane(
  { kernels }: PlaneMemory,
  plane: PlaneAt,
  how: { down: ScalingAt; across: ScalingAt; before: number; after: number; to: Pointer } & WithLine,
): void {
  const { down, across, before, after, line, to } = how;
  kernels.scale(
    plane.at,
    plane.width,
    plane.height,
    down.first,
    down.weights,
    down.taps,
    down.count,
    across.first,
    across.weights,
    across.taps,
    across.count,
    before,
    after,
    line,
    to,
  );
}

/** Holds a plane within its surroundings in the plain picture; `low` and `high` are planes to work with. */
export function limitHalo(
  { kernels }: PlaneMemory,
  plane: PlaneAt,
  how: { plain: Pointer; radius: number; share: number; calm: number; low: Pointer; high: Pointer } & WithLine,
): void {
  const { plain, radius, share, calm, line, low, high } = how;
  kernels.limit(plane.at, plain, plane.width, plane.height, radius, share, calm, line, low, high);
}

/** How far the surroundings reach in which two planes are compared, in pixels. */
export const comparedRadius = 5;

/** How many floats `fillSsimMap` works with for a plane of some width. */
export const ssimLineLength = (width: number): number =>
  12 + 4 * PlaneMemory.lengthOf({ width, height: 1 }) + 8 * (PlaneMemory.lengthOf(halfOf(width)) + 12);
const halfOf = (width: number) => ({ width: (width + 1) >> 1, height: 1 });

/**
 * Structural similarity of two planes, at every second pixel of every `step`th row from `first` on, into a map of half the width,
 * rounded up; of structure alone, or of light as well.
 *
 * @param half the right half of the weights of a pixel's surroundings, `comparedRadius + 1` of them
 */
export function fillSsimMap(
  { kernels }: PlaneMemory,
  [a, b]: readonly [PlaneAt, Pointer],
  how: {
    half: Pointer;
    rows: { first: number; step: number; count: number };
    kind: 'structure' | 'both';
    to: Pointer;
  } & WithLine,
): void {
  const { half, rows, line, kind, to } = how;
  const { first, step, count } = rows;
  kernels.ssimMap(a.at, b, a.width, a.height, half, first, step, count, line, kind === 'both', to);
}

/** The mean squares of what calm blocks have moved by, and which blocks are calm, as two planes of blocks. The line holds three rows. */
export function findCalmBlocks(
  { kernels }: PlaneMemory,
  [a, b]: readonly [PlaneAt, Pointer],
  how: { range: number; moved: Pointer; calm: Pointer } & WithLine,
): void {
  kernels.calmBlocks(a.at, b, a.width, a.height, how.range, how.line, how.moved, how.calm);
}
