import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readCurve } from './qualityCurve.ts';

const quality = fc.integer({ min: 1, max: 99 });

test('a curve passes through the points it was measured at', () => {
  const points = [
    { quality: 30, bytes: 40_000 },
    { quality: 60, bytes: 90_000 },
    { quality: 90, bytes: 260_000 },
  ];
  for (const point of points) expect(readCurve(points, point.quality)).toBeCloseTo(point.bytes, 3);
  expect(readCurve(points.slice(0, 1), 30)).toBeCloseTo(40_000, 3);
});

test('between two points it lies between their bytes, and it never falls with quality', () => {
  fc.assert(
    fc.property(
      quality,
      quality,
      fc.integer({ min: 1000, max: 1e6 }),
      fc.double({ min: 1.01, max: 20, noNaN: true }),
      (a, b, bytes, growth) => {
        fc.pre(Math.abs(a - b) > 1);
        const [low, high] = [Math.min(a, b), Math.max(a, b)];
        const points = [
          { quality: low, bytes },
          { quality: high, bytes: bytes * growth },
        ];
        let before = 0;
        for (let at = 1; at <= 99; at += 1) {
          const here = readCurve(points, at);
          expect(here).toBeGreaterThanOrEqual(before * (1 - 1e-9));
          if (at >= low && at <= high) {
            expect(here).toBeGreaterThanOrEqual(bytes * (1 - 1e-9));
            expect(here).toBeLessThanOrEqual(bytes * growth * (1 + 1e-9));
          }
          before = here;
        }
      },
    ),
  );
});

test('of one point the curve falls as photographs do; of more it goes on beyond the last', () => {
  const one = [{ quality: 80, bytes: 100_000 }];
  // Twice as fine a quantiser at 90, with the usual slope.
  expect(readCurve(one, 90)).toBeCloseTo(100_000 * 2 ** 0.7, 3);
  expect(readCurve(one, 60)).toBeCloseTo(100_000 / 2 ** 0.7, 3);
  const three = [
    { quality: 25, bytes: 20_000 },
    { quality: 50, bytes: 40_000 },
    { quality: 75, bytes: 120_000 },
  ];
  expect(readCurve(three, 87.5)).toBeCloseTo(360_000, 3);
  expect(readCurve(three, 12.5)).toBeCloseTo(10_000, 3);
});

test('without a point there is no curve', () => {
  expect(() => readCurve([], 50)).toThrow('at least one point');
});
