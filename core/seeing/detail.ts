/** One value for each pixel, row by row: luminance, 0..255. */
export interface Luminance {
  data: ArrayLike<number>;
  width: number;
  height: number;
}

/** Less energy than this, in squared levels a pixel, is noise or a plain surface: there is no detail to lose. */
const plain = 16;

/**
 * The share of a region's detail that is still there after it was shown smaller: one less the energy of what was lost
 * over the energy of the detail, 0..1. Detail is what differs from the region's mean within `radius`, so that a slow
 * change of light does not count. Null where the region has no detail.
 *
 * @param before the region as large as it takes to recognise it
 * @param after the same region shown smaller and enlarged again to the same dimensions
 */
export function detailKept(before: Luminance, after: Luminance, radius: number): number | null {
  const around = localMean(before, radius);
  let [energy, lost] = [0, 0];
  for (let at = 0; at < around.length; at += 1) {
    const value = before.data[at] ?? 0;
    energy += (value - (around[at] ?? 0)) ** 2;
    lost += (value - (after.data[at] ?? 0)) ** 2;
  }
  if (energy < plain * around.length) return null;
  return Math.max(0, 1 - lost / energy);
}

/** The mean within `radius` pixels each way, by a summed-area table (Crow 1984); at the edges of what there is. */
function localMean({ data, width, height }: Luminance, radius: number): Float64Array {
  const stride = width + 1;
  const sums = new Float64Array(stride * (height + 1));
  for (let y = 0; y < height; y += 1) {
    let row = 0;
    for (let x = 0; x < width; x += 1) {
      row += data[y * width + x] ?? 0;
      sums[(y + 1) * stride + x + 1] = (sums[y * stride + x + 1] ?? 0) + row;
    }
  }
  const mean = new Float64Array(width * height);
  for (let y = 0; y < height; y += 1) {
    const [top, bottom] = [Math.max(0, y - radius), Math.min(height, y + radius + 1)];
    for (let x = 0; x < width; x += 1) {
      const [left, right] = [Math.max(0, x - radius), Math.min(width, x + radius + 1)];
      const sum =
        (sums[bottom * stride + right] ?? 0) -
        (sums[top * stride + right] ?? 0) -
        (sums[bottom * stride + left] ?? 0) +
        (sums[top * stride + left] ?? 0);
      mean[y * width + x] = sum / ((bottom - top) * (right - left));
    }
  }
  return mean;
}
