import { expect, test } from 'vitest';
import type { Raster } from '../planes/index.ts';
import { target } from '../testing/index.ts';
import { differencePixels } from './index.ts';

const before = target(4, 2, (x) => [100, 100 + x, 100]);
const after = target(4, 2, (x, y) => [100 + y * 3, 100 + x, x === 3 ? 40 : 100]);
const pixel = (pixels: Uint8ClampedArray, x: number, y: number) => [
  ...pixels.slice((y * 4 + x) * 4, (y * 4 + x) * 4 + 4),
];

test('what is the same is middle grey; lighter and darker by as much as is asked for, no further than white and black', () => {
  const pixels = differencePixels(before, after, 8);
  expect(pixel(pixels, 0, 0)).toEqual([128, 128, 128, 255]);
  expect(pixel(pixels, 0, 1)).toEqual([152, 128, 128, 255]);
  expect(pixel(pixels, 3, 0)).toEqual([128, 128, 0, 255]);
});

test('grey is compared with colour channel by channel, and alpha is left aside', () => {
  const grey: Raster = { data: Uint8Array.from({ length: 8 }, () => 100), width: 4, height: 2, channels: 1 };
  expect(pixel(differencePixels(grey, before, 2), 3, 0)).toEqual([128, 134, 128, 255]);
  const clear: Raster = {
    data: Uint8Array.from({ length: 16 }, (_, at) => (at % 2 ? 0 : 90)),
    width: 4,
    height: 2,
    channels: 2,
  };
  expect(pixel(differencePixels(grey, clear, 1), 0, 0)).toEqual([118, 118, 118, 255]);
});

test('pictures of other dimensions are not compared', () => {
  expect(() =>
    differencePixels(
      before,
      target(4, 3, () => 0),
      1,
    ),
  ).toThrow('4 × 2 and 4 × 3');
  expect(() =>
    differencePixels(
      before,
      target(3, 2, () => 0),
      1,
    ),
  ).toThrow('4 × 2 and 3 × 2');
});
