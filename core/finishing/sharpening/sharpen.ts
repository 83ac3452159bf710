import type { Sharpening, Treatment } from '../../model/index.ts';
import { inPlaneMemory, type Plane, sharpenPlane } from '../../planes/index.ts';
import { blurRadius, halfGaussian } from './blur.ts';

/** A blur of less than this, in pixels, changes nothing that could be seen: in small proofs nothing is left to sharpen. */
const leastDeviation = 0.15;

type Passes = Pick<Treatment, 'sharpen' | 'second' | 'blend'>;

const isOn = ({ amount, radius }: Sharpening, scale: number) => amount > 0 && radius * scale >= leastDeviation;

/** Whether a treatment sharpens at all, at a scale of `scale` pixels to one of the file. */
export const sharpens = ({ sharpen, second, blend }: Passes, scale: number): boolean =>
  isOn(sharpen, scale) || (blend > 0 && isOn(second, scale));

/** How many pixels round a pixel have a say in its sharpened value. */
export function sharpeningRadius({ sharpen, second, blend }: Passes, scale: number): number {
  const first = isOn(sharpen, scale) ? blurRadius(sharpen.radius * scale) : 0;
  return first + (blend > 0 && isOn(second, scale) ? blurRadius(second.radius * scale) : 0);
}

/**
 * A luminance plane sharpened by unsharp masking (the difference to a blurred copy, amplified), where differences up to
 * the threshold are left alone and larger ones shortened by it, so that nothing jumps at the threshold. The second pass
 * works on what the first has made and is blended in.
 *
 * @param scale pixels of the plane to one of the file: radii are given in pixels of the file
 */
export function sharpened(plane: Plane, { sharpen, second, blend }: Passes, scale: number): Plane {
  const once = isOn(sharpen, scale) ? sharpenedOnce(plane, sharpen, scale, 1) : plane;
  return blend > 0 && isOn(second, scale) ? sharpenedOnce(once, second, scale, blend) : once;
}

/** @param share how much of it is blended in, 0..1 */
function sharpenedOnce(plane: Plane, { amount, radius, threshold }: Sharpening, scale: number, share: number): Plane {
  const { width, height } = plane;
  const half = halfGaussian(radius * scale);
  const kernelRadius = half.length - 1;
  return inPlaneMemory((arena) => {
    const [from, across, to] = [arena.reservePlane(plane), arena.reservePlane(plane), arena.reservePlane(plane)];
    const [weights, line] = [arena.reserve(half.length), arena.reserve(width + 2 * kernelRadius + 8)];
    arena.commit();
    arena.put(from, plane);
    arena.floats(weights, half.length).set(half);
    const strength = amount * share;
    const kernel = { weights, radius: kernelRadius };
    sharpenPlane(arena, { at: from, width, height }, { half: kernel, strength, threshold, line, across, to });
    return arena.get(to, plane);
  });
}
