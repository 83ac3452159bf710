import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Plane, Raster } from '../planes/index.ts';
import { steadyNoise, target } from '../testing/index.ts';
import { histogramOf, localRange, luminancePlane, percentile } from './index.ts';

const aPlane = fc
  .record({ width: fc.integer({ min: 1, max: 23 }), height: fc.integer({ min: 1, max: 17 }), seed: fc.nat(1000) })
  .map(({ width, height, seed }): Plane => {
    const random = steadyNoise(seed);
    return { data: Float32Array.from({ length: width * height }, () => 128 + 127 * random()), width, height };
  });

test('the local range is the least and the greatest of all pixels within radius, edges included', () => {
  fc.assert(
    fc.property(aPlane, fc.integer({ min: 0, max: 4 }), (plane, radius) => {
      const { low, high } = localRange(plane, radius);
      const { data, width, height } = plane;
      for (let y = 0; y < height; y += 1) {
        for (let x = 0; x < width; x += 1) {
          const near: number[] = [];
          for (let row = Math.max(0, y - radius); row <= Math.min(height - 1, y + radius); row += 1) {
            near.push(
              ...data.subarray(row * width + Math.max(0, x - radius), row * width + Math.min(width, x + radius + 1)),
            );
          }
          expect(low[y * width + x]).toBe(Math.min(...near));
          expect(high[y * width + x]).toBe(Math.max(...near));
        }
      }
    }),
    { numRuns: 60 },
  );
});

test('a histogram counts every pixel once in each channel, and leaves out what is transparent', () => {
  const picture = target(16, 4, (x) => [x, 2 * x, 100]);
  const { red, green, blue, luminance, pixels } = histogramOf(picture);
  expect(pixels).toBe(64);
  expect([red[3], green[6], green[7], blue[100]]).toEqual([4, 4, 0, 64]);
  expect(luminance.reduce((sum, count) => sum + count, 0)).toBe(64);

  const half: Raster = {
    data: Uint8Array.from({ length: 8 * 4 }, (_, at) => (at % 4 === 3 ? (at < 16 ? 255 : 10) : 50)),
    width: 8,
    height: 1,
    channels: 4,
  };
  expect(histogramOf(half).pixels).toBe(4);
  const clear = (alpha: number) => ({ ...half, data: Uint8Array.from([9, 9, 9, alpha]), width: 1 });
  expect([127, 128].map((alpha) => histogramOf(clear(alpha)).pixels)).toEqual([0, 1]);
  expect(histogramOf(target(1, 1, () => [200, 100, 50])).luminance[Math.round(42.52 + 71.52 + 3.61)]).toBe(1);
  const grey: Raster = { data: Uint8Array.from([7, 7, 200]), width: 3, height: 1, channels: 1 };
  expect(histogramOf(grey)).toMatchObject({ pixels: 3 });
  expect([histogramOf(grey).green[7], histogramOf(grey).blue[7], histogramOf(grey).luminance[200]]).toEqual([2, 2, 1]);
});

test('a percentile is the level that so much of the picture lies below or at', () => {
  const counts = new Array<number>(256).fill(0);
  counts[10] = 10;
  counts[20] = 80;
  counts[200] = 10;
  expect([0, 0.1, 0.11, 0.9, 0.91, 1].map((share) => percentile(counts, share))).toEqual([10, 10, 20, 20, 200, 200]);
  expect(percentile(new Array<number>(256).fill(0), 0.5)).toBe(0);
});

test('luminance weighs red, green and blue as the eye does, and takes grey as it is', () => {
  const [white, red, green, blue] = [
    [255, 255, 255],
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
  ].map((colour) => luminancePlane(target(1, 1, () => colour as [number, number, number])).data[0]);
  expect(white).toBeCloseTo(255, 3);
  expect([red, green, blue].map((value) => Math.round(value ?? 0))).toEqual([54, 182, 18]);
  expect([
    ...luminancePlane({ data: Uint8Array.from([9, 255, 30, 0]), width: 2, height: 1, channels: 2 }).data,
  ]).toEqual([9, 30]);
  // So wide that only some rows are handed over at a time.
  const grey = Uint8Array.from({ length: 200_000 * 7 }, (_, at) => (at * 7919) % 251);
  const data = Uint8Array.from({ length: 3 * grey.length }, (_, at) => grey[Math.floor(at / 3)] ?? 0);
  const wide = luminancePlane({ data, width: 200_000, height: 7, channels: 3 }).data;
  expect(wide.findIndex((value, at) => Math.abs(value - (grey[at] ?? 0)) > 1e-3)).toBe(-1);
});
