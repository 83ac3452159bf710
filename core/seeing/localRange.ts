import type { Plane } from '../planes/index.ts';

/** The darkest and the lightest value within `radius` pixels each way, for every pixel. */
export function localRange({ data, width, height }: Plane, radius: number): { low: Float32Array; high: Float32Array } {
  const [acrossLow, acrossHigh] = [data.slice(), data.slice()];
  // Each step of one pixel to the left and to the right widens what is looked at by one.
  for (let step = 0; step < radius; step += 1) {
    for (let y = 0; y < height; y += 1) {
      widenLow(acrossLow, y * width, width);
      widenHigh(acrossHigh, y * width, width);
    }
  }
  const [low, high] = [acrossLow.slice(), acrossHigh.slice()];
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    for (let near = Math.max(0, y - radius); near <= Math.min(height - 1, y + radius); near += 1) {
      if (near === y) continue;
      const other = near * width;
      for (let x = 0; x < width; x += 1) {
        const lower = acrossLow[other + x] as number;
        const higher = acrossHigh[other + x] as number;
        if (lower < (low[row + x] as number)) low[row + x] = lower;
        if (higher > (high[row + x] as number)) high[row + x] = higher;
      }
    }
  }
  return { low, high };
}

/** Every value of a row becomes the least of itself and its two neighbours. */
function widenLow(data: Float32Array, start: number, width: number): void {
  let before = data[start] as number;
  let value = before;
  for (let x = 0; x < width; x += 1) {
    const after = x + 1 < width ? (data[start + x + 1] as number) : value;
    const least = Math.min(before, after);
    data[start + x] = Math.min(least, value);
    before = value;
    value = after;
  }
}

/** Every value of a row becomes the greatest of itself and its two neighbours. */
function widenHigh(data: Float32Array, start: number, width: number): void {
  let before = data[start] as number;
  let value = before;
  for (let x = 0; x < width; x += 1) {
    const after = x + 1 < width ? (data[start + x + 1] as number) : value;
    const most = Math.max(before, after);
    data[start + x] = Math.max(most, value);
    before = value;
    value = after;
  }
}
