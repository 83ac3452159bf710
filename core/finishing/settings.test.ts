import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Raster } from '../planes/index.ts';
import type { Histogram } from '../seeing/index.ts';
import { steadyNoise } from '../testing/index.ts';
import { oneIn } from './colouring/compensate.ts';
import { tonePoints } from './colouring/tone.ts';
import { plainTreatment } from './index.ts';
import { blurRadius } from './sharpening/blur.ts';
import { sharpened, sharpeningRadius } from './sharpening/sharpen.ts';

const noisePicture = (width: number, height: number, channels: 1 | 3 | 4, seed: number): Raster => {
  const random = steadyNoise(seed);
  return {
    data: Uint8Array.from({ length: width * height * channels }, () => 128 + 120 * random()),
    width,
    height,
    channels,
  };
};

test('one pixel in so many is every so manieth, with its own luminance', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 20 }),
      fc.constantFrom(1, 3, 4),
      fc.integer({ min: 1, max: 9 }),
      (width, height, channels, step) => {
        const picture = noisePicture(width, height, channels, width + height);
        const luminance = { data: Float32Array.from({ length: width * height }, (_, at) => at), width, height };
        const { some, light } = oneIn(step, picture, luminance);
        const picked = Array.from({ length: Math.ceil((width * height) / step) }, (_, index) => index * step);
        expect([...light.data]).toEqual(picked);
        expect([...some.data]).toEqual(
          picked.flatMap((at) => [...picture.data.subarray(at * channels, (at + 1) * channels)]),
        );
        expect([some.width, some.height, some.channels]).toEqual([picked.length, 1, channels]);
      },
    ),
  );
});

test('what lies further away than the sharpening radius has no say in a pixel, what lies within it may have', () => {
  const pass = (amount: number, radius: number) => ({ amount, radius, threshold: 0 });
  const passes = { sharpen: pass(1, 1.2), second: pass(0.7, 0.8), blend: 0.5 };
  const radiusOf = (changes: Partial<typeof passes>, scale = 1) => sharpeningRadius({ ...passes, ...changes }, scale);
  expect(radiusOf({})).toBe(blurRadius(1.2) + blurRadius(0.8));
  expect(radiusOf({}, 2)).toBe(blurRadius(2.4) + blurRadius(1.6));
  expect(radiusOf({ blend: 0 })).toBe(blurRadius(1.2));
  expect(radiusOf({ second: pass(0, 0.8) })).toBe(blurRadius(1.2));
  expect(radiusOf({ sharpen: pass(0, 1.2) })).toBe(blurRadius(0.8));
  // So small that nothing could be seen of it.
  expect(radiusOf({}, 0.1)).toBe(0);
  const width = 41;
  const flat = { data: new Float32Array(width).fill(100), width, height: 1 };
  const spot = { ...flat, data: flat.data.slice() };
  spot.data[20] = 180;
  const moved = [...sharpened(spot, passes, 1).data].map((value) => Math.abs(value - 100) > 1e-3);
  expect(20 - moved.indexOf(true)).toBe(radiusOf({}));
  expect(moved.lastIndexOf(true) - 20).toBe(radiusOf({}));
});

test('paper and lines: the paper becomes white with its unevenness, the darkest lines black, never nearer than 64 levels', () => {
  const counts = (levels: Record<number, number>) => Array.from({ length: 256 }, (_, level) => levels[level] ?? 0);
  const scan = (line: number): Histogram => {
    const levels = counts({ [line]: 500, 208: 8000, 210: 20_000, 212: 8000 });
    return { red: levels, green: levels, blue: levels, luminance: levels, pixels: 36_500 };
  };
  const tone = { ...plainTreatment, tone: { kind: 'paper' } as const }.tone;
  // Two standard deviations above the peak: 2 * sqrt(8000 * 4 / 28,000).
  const white = 210 - 2 * Math.sqrt(32_000 / 28_000);
  expect(tonePoints(tone, scan(40)).black).toEqual([40, 40, 40]);
  for (const value of tonePoints(tone, scan(40)).white) expect(value).toBeCloseTo(white, 9);
  expect(tonePoints(tone, scan(190)).black[0]).toBeCloseTo(white - 64, 9);
  const fog = scan(211);
  expect(tonePoints({ kind: 'automatic', clip: 0.001 }, fog)).toEqual({
    black: [178, 178, 178],
    white: [242, 242, 242],
    midtones: 1,
  });
});
