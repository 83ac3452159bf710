import type { Plane } from '../seeing/index.ts';

/** Two and a half standard deviations each way hold 98.8 % of a Gaussian. */
const reachOf = (deviation: number) => Math.max(1, Math.round(2.5 * deviation));

/** The right half of a Gaussian, the middle first; the whole sums to 1. */
function halfGaussian(deviation: number): Float32Array {
  const half = Float32Array.from({ length: reachOf(deviation) + 1 }, (_, at) => Math.exp(-((at / deviation) ** 2) / 2));
  const sum = half.reduce((total, weight, at) => total + (at === 0 ? weight : 2 * weight), 0);
  return half.map((weight) => weight / sum);
}

/**
 * A plane blurred by a Gaussian, columns and rows one after the other. Beyond its edges the outermost pixels go on.
 *
 * @param deviation the standard deviation in pixels, above 0
 */
export function blurred({ data, width, height }: Plane, deviation: number): Plane {
  const half = halfGaussian(deviation);
  const reach = half.length - 1;
  const middle = half[0] as number;
  const across = new Float32Array(data.length);
  const line = new Float32Array(width + 2 * reach);
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    line.fill(data[row] as number, 0, reach);
    line.set(data.subarray(row, row + width), reach);
    line.fill(data[row + width - 1] as number, reach + width);
    for (let x = 0; x < width; x += 1) {
      const at = x + reach;
      let sum = middle * (line[at] as number);
      for (let by = 1; by <= reach; by += 1) {
        sum += (half[by] as number) * ((line[at - by] as number) + (line[at + by] as number));
      }
      across[row + x] = sum;
    }
  }
  const down = new Float32Array(data.length);
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    for (let x = 0; x < width; x += 1) down[row + x] = middle * (across[row + x] as number);
    for (let by = 1; by <= reach; by += 1) {
      const weight = half[by] as number;
      const above = Math.max(0, y - by) * width;
      const below = Math.min(height - 1, y + by) * width;
      for (let x = 0; x < width; x += 1) {
        down[row + x] =
          (down[row + x] as number) + weight * ((across[above + x] as number) + (across[below + x] as number));
      }
    }
  }
  return { data: down, width, height };
}

/** So many pixels round a pixel have a say in its blurred value. */
export const blurReach = reachOf;
