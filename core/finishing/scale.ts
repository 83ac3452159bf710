import type { Rect } from '../geometry/index.ts';
import type { ScalingKernel } from '../model/index.ts';
import type { Plane } from '../seeing/index.ts';
import { kernelReach, type Weights, weightsOf } from './kernels.ts';
import { levelOf, lightOf } from './light.ts';

/** Source pixels to one output pixel, each way. */
export interface Ratio {
  x: number;
  y: number;
}

/** A part of a luminance plane, and where its first pixel lies in the whole. */
export interface PartOfPlane {
  plane: Plane;
  /** Of each pixel, 0..255; null where everything is opaque. What is transparent has no say. */
  alpha: Uint8Array | null;
  left: number;
  top: number;
}

/**
 * Scales luminance in linear light: two passes of a kernel over light rather than over encoded levels, so that fine
 * bright detail keeps its brightness. Beyond the edges of the part the outermost pixels go on.
 *
 * @param rect what is wanted, in pixels of the whole output
 * @returns encoded levels, 0..255
 */
export function scaledInLight(part: PartOfPlane, ratio: Ratio, kernel: ScalingKernel, rect: Rect): Plane {
  const { plane, alpha } = part;
  const across = shifted(weightsOf(kernel, ratio.x, rect.left, rect.width), part.left);
  const down = shifted(weightsOf(kernel, ratio.y, rect.top, rect.height), part.top);
  const light = new Float32Array(plane.data.length);
  for (let at = 0; at < light.length; at += 1) light[at] = lightOf(plane.data[at] as number);
  if (!alpha) {
    const scaled = scaledPlane({ ...plane, data: light }, across, down);
    for (let at = 0; at < scaled.data.length; at += 1) scaled.data[at] = levelOf(scaled.data[at] as number);
    return scaled;
  }
  const share = new Float32Array(light.length);
  for (let at = 0; at < light.length; at += 1) {
    share[at] = (alpha[at] as number) / 255;
    light[at] = (light[at] as number) * (share[at] as number);
  }
  const scaled = scaledPlane({ ...plane, data: light }, across, down);
  const seen = scaledPlane({ ...plane, data: share }, across, down);
  for (let at = 0; at < scaled.data.length; at += 1) {
    const opacity = seen.data[at] as number;
    scaled.data[at] = opacity > 1e-4 ? levelOf((scaled.data[at] as number) / opacity) : 0;
  }
  return scaled;
}

/** Source pixels that a rectangle of the output looks at, each way beyond its own. */
export const scalingReach = (kernel: ScalingKernel, ratio: Ratio): number =>
  kernelReach(kernel, Math.max(ratio.x, ratio.y));

const clampTo = (length: number, at: number) => Math.min(length - 1, Math.max(0, at));

const shifted = (weights: Weights, by: number): Weights => ({ ...weights, first: weights.first.map((at) => at - by) });

/** Columns first: that leaves fewer rows to go through pixel by pixel. */
function scaledPlane(plane: Plane, across: Weights, down: Weights): Plane {
  const [width, height] = [across.first.length, down.first.length];
  // With the outermost pixels repeated, no tap has to look whether it is inside.
  const before = Math.max(0, -(across.first[0] ?? 0));
  const after = Math.max(0, (across.first[width - 1] ?? 0) + across.taps - plane.width);
  const line = new Float32Array(before + plane.width + after);
  const data = new Float32Array(width * height);
  for (let y = 0; y < height; y += 1) {
    sumOfRows(plane, down, y, line, before);
    line.fill(line[before] as number, 0, before);
    line.fill(line[before + plane.width - 1] as number, before + plane.width);
    scaleLine(line, before, across, data, y * width);
  }
  return { data, width, height };
}

/** The rows that make one row of the output, weighted and added, four at a time. */
function sumOfRows({ data, width, height }: Plane, down: Weights, y: number, into: Float32Array, start: number): void {
  const first = down.first[y] as number;
  const rowAt = (tap: number) => clampTo(height, first + tap) * width;
  const weightAt = (tap: number) => (tap < down.taps ? (down.weights[y * down.taps + tap] as number) : 0);
  for (let tap = 0; tap < down.taps; tap += 4) {
    const [a, b, c, d] = [rowAt(tap), rowAt(tap + 1), rowAt(tap + 2), rowAt(tap + 3)] as const;
    const [wa, wb, wc, wd] = [weightAt(tap), weightAt(tap + 1), weightAt(tap + 2), weightAt(tap + 3)] as const;
    const isFirst = tap === 0;
    for (let x = 0; x < width; x += 1) {
      const sum =
        wa * (data[a + x] as number) +
        wb * (data[b + x] as number) +
        wc * (data[c + x] as number) +
        wd * (data[d + x] as number);
      into[start + x] = isFirst ? sum : (into[start + x] as number) + sum;
    }
  }
}

function scaleLine(
  line: Float32Array,
  before: number,
  { first, taps, weights }: Weights,
  into: Float32Array,
  start: number,
): void {
  const fours = taps - (taps % 4);
  for (let x = 0; x < first.length; x += 1) {
    const from = (first[x] as number) + before;
    const at = x * taps;
    let sum = 0;
    let tap = 0;
    for (; tap < fours; tap += 4) {
      sum +=
        (weights[at + tap] as number) * (line[from + tap] as number) +
        (weights[at + tap + 1] as number) * (line[from + tap + 1] as number) +
        (weights[at + tap + 2] as number) * (line[from + tap + 2] as number) +
        (weights[at + tap + 3] as number) * (line[from + tap + 3] as number);
    }
    for (; tap < taps; tap += 1) sum += (weights[at + tap] as number) * (line[from + tap] as number);
    into[start + x] = sum;
  }
}
