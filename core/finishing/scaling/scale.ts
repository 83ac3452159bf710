import type { Rect } from '../../geometry/index.ts';
import type { ScalingKernel } from '../../model/index.ts';
import { inPlaneMemory, type Plane, PlaneMemory, type ScalingAt, scalePlane } from '../../planes/index.ts';
import { levelOf, levelSteps, levelTable, lightSteps, lightTable } from './light.ts';
import { kernelRadius, type Weights, weightsOf } from './scalingKernels.ts';

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
  if (!alpha) return scaledPlane(plane, across, down, null);
  const share = { ...plane, data: Float32Array.from(alpha, (value) => value / 255) };
  const scaled = scaledPlane(plane, across, down, share.data);
  const seen = scaledPlane(share, across, down, null, false);
  for (let at = 0; at < scaled.data.length; at += 1) {
    const opacity = seen.data[at] as number;
    scaled.data[at] = opacity > leastSeen ? levelOf((scaled.data[at] as number) / opacity) : 0;
  }
  return scaled;
}

/** What is less opaque than this has no colour. */
const leastSeen = 1e-4;

/** Source pixels that a rectangle of the output looks at, each way beyond its own. */
export const scalingRadius = (kernel: ScalingKernel, ratio: Ratio): number =>
  kernelRadius(kernel, Math.max(ratio.x, ratio.y));

const shifted = (weights: Weights, by: number): Weights => ({ ...weights, first: weights.first.map((at) => at - by) });

/**
 * A plane scaled by weights.
 *
 * @param share what each pixel is weighted with as light; the result is then light as well. Null for none
 * @param isLevels whether the plane holds encoded levels, which are scaled as light, or plain numbers
 */
export function scaledPlane(
  plane: Plane,
  across: Weights,
  down: Weights,
  share: Float32Array | null,
  isLevels = true,
): Plane {
  const output = { width: across.first.length, height: down.first.length };
  // With the outermost pixels repeated, no tap has to look whether it is inside.
  const before = Math.max(0, -(across.first[0] ?? 0));
  const inFours = withTapsInFours(across);
  const after = Math.max(0, (across.first[output.width - 1] ?? 0) + inFours.taps - plane.width);
  return inPlaneMemory((arena) => {
    const [from, to] = [arena.reservePlane(plane), arena.reservePlane(output)];
    const reserved = (weights: Weights): ScalingAt => ({
      first: arena.reserve(weights.first.length),
      weights: arena.reserve(weights.weights.length),
      taps: weights.taps,
      count: weights.first.length,
    });
    const [downAt, acrossAt] = [reserved(down), reserved(inFours)];
    const [lights, levels] = [arena.reserve(lightTable.length), arena.reserve(levelTable.length)];
    const line = arena.reserve(before + plane.width + after + 8);
    arena.commit();
    arena.put(from, plane);
    const fill = (at: ScalingAt, { first, weights }: Weights) => {
      arena.wholes(at.first, first.length).set(first);
      arena.floats(at.weights, weights.length).set(weights);
    };
    fill(downAt, down);
    fill(acrossAt, inFours);
    if (isLevels) {
      arena.floats(lights, lightTable.length).set(lightTable);
      arena.kernels.lookUp(from, PlaneMemory.lengthOf(plane), lights, lightTable.length, lightSteps);
    }
    if (share) {
      const light = arena.get(from, plane);
      for (let at = 0; at < share.length; at += 1) light.data[at] = (light.data[at] as number) * (share[at] as number);
      arena.put(from, light);
    }
    const { width, height } = plane;
    scalePlane(arena, { at: from, width, height }, { down: downAt, across: acrossAt, before, after, line, to });
    if (isLevels && !share) {
      arena.floats(levels, levelTable.length).set(levelTable);
      arena.kernels.lookUp(to, PlaneMemory.lengthOf(output), levels, levelTable.length, levelSteps);
    }
    return arena.get(to, output);
  });
}

/** The same weights, with some of nothing after them: along a row four pixels are weighted at a time. */
function withTapsInFours({ first, taps, weights }: Weights): Weights {
  const padded = Math.ceil(taps / 4) * 4;
  const filled = new Float32Array(first.length * padded);
  for (let at = 0; at < first.length; at += 1) filled.set(weights.subarray(at * taps, (at + 1) * taps), at * padded);
  return { first, taps: padded, weights: filled };
}
