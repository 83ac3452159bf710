import type { ScalingKernel } from '../../model/index.ts';

interface Kernel {
  /** Beyond this, in pixels of the coarser picture, it is 0. */
  support: number;
  weight: (distance: number) => number;
}

const sinc = (x: number) => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
const lanczos = (lobes: number): Kernel => ({
  support: lobes,
  weight: (x) => (x < lobes ? sinc(x) * sinc(x / lobes) : 0),
});

/** The piecewise cubics of Mitchell and Netravali, "Reconstruction Filters in Computer Graphics" (1988). */
const cubic = (b: number, c: number): Kernel => ({
  support: 2,
  weight(x) {
    if (x < 1) return ((12 - 9 * b - 6 * c) * x ** 3 + (-18 + 12 * b + 6 * c) * x ** 2 + (6 - 2 * b)) / 6;
    if (x < 2) return ((-b - 6 * c) * x ** 3 + (6 * b + 30 * c) * x ** 2 + (-12 * b - 48 * c) * x + 8 * b + 24 * c) / 6;
    return 0;
  },
});

const kernels: Record<ScalingKernel, Kernel> = {
  lanczos3: lanczos(3),
  lanczos2: lanczos(2),
  mitchell: cubic(1 / 3, 1 / 3),
  cubic: cubic(0, 1 / 2),
};

/** Which source pixels make each of a row of output pixels, and how much each of them counts. */
export interface Weights {
  /** Of each output pixel: its first source pixel, which may lie outside of the source. */
  first: Int32Array;
  /** Source pixels to an output pixel. */
  taps: number;
  /** `taps` to each output pixel, together 1. */
  weights: Float32Array;
}

/** How far an output pixel looks, in source pixels, when `ratio` of them become one. */
export const kernelRadius = (kernel: ScalingKernel, ratio: number): number =>
  Math.ceil(kernels[kernel].support * Math.max(1, ratio)) + 1;

/**
 * The weights that make output pixels `start` to `start + count` of a row.
 *
 * @param ratio source pixels to one output pixel, along the row
 */
export function weightsOf(kernel: ScalingKernel, ratio: number, start: number, count: number): Weights {
  const { support, weight } = kernels[kernel];
  const stretch = Math.max(1, ratio);
  const taps = Math.ceil(2 * support * stretch) + 1;
  const first = new Int32Array(count);
  const weights = new Float32Array(count * taps);
  for (let index = 0; index < count; index += 1) {
    const middle = (start + index + 0.5) * ratio - 0.5;
    const from = Math.ceil(middle - support * stretch);
    first[index] = from;
    let sum = 0;
    for (let tap = 0; tap < taps; tap += 1) {
      const share = weight(Math.abs(from + tap - middle) / stretch);
      weights[index * taps + tap] = share;
      sum += share;
    }
    for (let tap = 0; tap < taps; tap += 1) weights[index * taps + tap] = (weights[index * taps + tap] as number) / sum;
  }
  return { first, taps, weights };
}
