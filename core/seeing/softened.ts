import type { Plane } from '../planes/index.ts';

/**
 * A plane blurred across and down, which takes the edge off its grain; beyond its edge its last pixels go on.
 *
 * @param weights of the pixels up to so many away on either side, from the pixel itself on, which is on both; their sum is a half
 */
export function softened(plane: Plane, weights: readonly number[]): Plane {
  return transposed(softenedAcross(transposed(softenedAcross(plane, weights)), weights));
}

function softenedAcross({ data, width, height }: Plane, weights: readonly number[]): Plane {
  const reach = weights.length - 1;
  const to = new Float32Array(data.length);
  // A row with its ends repeated, so that every pixel has its neighbours.
  const row = new Float32Array(width + 2 * reach);
  for (let start = 0; start < data.length; start += width) {
    row.set(data.subarray(start, start + width), reach);
    row.fill(data[start] as number, 0, reach);
    row.fill(data[start + width - 1] as number, reach + width);
    for (let away = 0; away <= reach; away += 1) {
      const weight = weights[away] as number;
      for (let x = 0; x < width; x += 1) {
        const pair = (row[x + reach - away] as number) + (row[x + reach + away] as number);
        to[start + x] = (to[start + x] as number) + weight * pair;
      }
    }
  }
  return { data: to, width, height };
}

/** The same picture with its rows as columns. */
export function transposed({ data, width, height }: Plane): Plane {
  const turned = new Float32Array(data.length);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) turned[x * height + y] = data[y * width + x] as number;
  }
  return { data: turned, width: height, height: width };
}
