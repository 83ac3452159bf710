import type { Plane } from './raster.ts';

/** The darkest and the lightest value within `reach` pixels each way, for every pixel. */
export function localRange({ data, width, height }: Plane, reach: number): { low: Float32Array; high: Float32Array } {
  const [acrossLow, acrossHigh] = [new Float32Array(data.length), new Float32Array(data.length)];
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    for (let x = 0; x < width; x += 1) {
      const last = Math.min(width - 1, x + reach);
      let low = data[row + x] as number;
      let high = low;
      for (let at = Math.max(0, x - reach); at <= last; at += 1) {
        const value = data[row + at] as number;
        if (value < low) low = value;
        if (value > high) high = value;
      }
      acrossLow[row + x] = low;
      acrossHigh[row + x] = high;
    }
  }
  const [low, high] = [acrossLow.slice(), acrossHigh.slice()];
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    for (let near = Math.max(0, y - reach); near <= Math.min(height - 1, y + reach); near += 1) {
      const other = near * width;
      for (let x = 0; x < width; x += 1) {
        if ((acrossLow[other + x] as number) < (low[row + x] as number)) low[row + x] = acrossLow[other + x] as number;
        if ((acrossHigh[other + x] as number) > (high[row + x] as number))
          high[row + x] = acrossHigh[other + x] as number;
      }
    }
  }
  return { low, high };
}
