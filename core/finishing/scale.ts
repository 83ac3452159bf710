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

/** Rows first, then columns. */
function scaledPlane(plane: Plane, across: Weights, down: Weights): Plane {
  const [width, height] = [across.first.length, down.first.length];
  const firstRow = clampTo(plane.height, down.first[0] ?? 0);
  const lastRow = clampTo(plane.height, (down.first[height - 1] ?? 0) + down.taps - 1);
  const rows = new Float32Array((lastRow - firstRow + 1) * width);
  // With the outermost pixels repeated, no tap has to look whether it is inside.
  const before = Math.max(0, -(across.first[0] ?? 0));
  const after = Math.max(0, (across.first[width - 1] ?? 0) + across.taps - plane.width);
  const line = new Float32Array(before + plane.width + after);
  for (let y = firstRow; y <= lastRow; y += 1) {
    const row = y * plane.width;
    line.fill(plane.data[row] as number, 0, before);
    line.set(plane.data.subarray(row, row + plane.width), before);
    line.fill(plane.data[row + plane.width - 1] as number, before + plane.width);
    scaleLine(line, before, across, rows, (y - firstRow) * width);
  }
  const data = new Float32Array(width * height);
  for (let y = 0; y < height; y += 1) {
    const to = y * width;
    for (let tap = 0; tap < down.taps; tap += 1) {
      const weight = down.weights[y * down.taps + tap] as number;
      if (weight === 0) continue;
      const from = (clampTo(plane.height, (down.first[y] as number) + tap) - firstRow) * width;
      for (let x = 0; x < width; x += 1) data[to + x] = (data[to + x] as number) + weight * (rows[from + x] as number);
    }
  }
  return { data, width, height };
}

function scaleLine(
  line: Float32Array,
  before: number,
  { first, taps, weights }: Weights,
  into: Float32Array,
  start: number,
): void {
  for (let x = 0; x < first.length; x += 1) {
    const from = (first[x] as number) + before;
    const at = x * taps;
    let sum = 0;
    for (let tap = 0; tap < taps; tap += 1) sum += (weights[at + tap] as number) * (line[from + tap] as number);
    into[start + x] = sum;
  }
}
