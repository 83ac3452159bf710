import { expect, test } from 'vitest';
import type { Raster } from '../planes/index.ts';
import { colourShift } from './index.ts';

const plain = (colour: readonly number[], width = 64, height = 48): Raster => ({
  data: Uint8Array.from({ length: width * height * colour.length }, (_, at) => colour[at % colour.length] ?? 0),
  width,
  height,
  channels: colour.length as Raster['channels'],
});

test('the same picture has no shift, in colour or in grey, with alpha or without', () => {
  expect(colourShift(plain([200, 30, 60]), plain([200, 30, 60]))).toEqual({ mean: 0, most: 0 });
  expect(colourShift(plain([90]), plain([90, 90, 90]))).toEqual({ mean: 0, most: 0 });
  expect(colourShift(plain([90, 255]), plain([90, 90, 90, 10]))).toEqual({ mean: 0, most: 0 });
});

test('a shift is that of the colours: black to white is 100, and a level of grey is less than what the eye sees', () => {
  expect(colourShift(plain([0]), plain([255])).mean).toBeCloseTo(100, 1);
  const step = colourShift(plain([128]), plain([129])).mean;
  expect(step).toBeGreaterThan(0.2);
  expect(step).toBeLessThan(0.5);
});

test('what compression moves within an area counts for nothing; an area that has moved is the most', () => {
  const grain = plain([120]);
  const moved: Raster = { ...grain, data: Uint8Array.from(grain.data, (level, at) => level + (at % 2 === 0 ? 6 : -6)) };
  expect(colourShift(grain, moved).mean).toBeLessThan(0.1);
  const spot: Raster = { ...grain, data: Uint8Array.from(grain.data) };
  for (let y = 8; y < 16; y += 1) spot.data.fill(250, y * 64 + 16, y * 64 + 24);
  const { mean, most } = colourShift(grain, spot);
  expect(most).toBeGreaterThan(30);
  // One of 48 areas.
  expect(mean).toBeCloseTo(most / 48, 1);
  expect(() => colourShift(grain, plain([1], 8, 8))).toThrow(RangeError);
});
