import fc from 'fast-check';
import { expect, test } from 'vitest';
import { steadyNoise } from '../testing/index.ts';
import { detailKept, type Luminance } from './index.ts';

const side = 48;
const picture = (value: (x: number, y: number) => number): Luminance => ({
  data: Array.from({ length: side * side }, (_, at) => value(at % side, Math.floor(at / side))),
  width: side,
  height: side,
});
const stripes = (period: number) => picture((x) => (x % period < period / 2 ? 40 : 200));
/** Every pixel becomes the mean of the block that it lies in: the same picture shown `factor` times smaller. */
function shownSmaller(from: Luminance, factor: number): Luminance {
  return picture((x, y) => {
    const [left, top] = [x - (x % factor), y - (y % factor)];
    let sum = 0;
    for (let at = 0; at < factor * factor; at += 1)
      sum += from.data[(top + Math.floor(at / factor)) * side + left + (at % factor)] ?? 0;
    return sum / factor ** 2;
  });
}

test('nothing lost is 1, everything lost is 0, and finer detail goes first', () => {
  expect(detailKept(stripes(8), stripes(8), 12)).toBe(1);
  expect(detailKept(stripes(8), shownSmaller(stripes(8), 8), 12)).toBeLessThan(0.05);
  const kept = [4, 8, 14, 20].map((period) => detailKept(stripes(period), shownSmaller(stripes(period), 3), 12) ?? 0);
  expect([...kept].sort((a, b) => a - b)).toEqual(kept);
  expect(kept[3]).toBeGreaterThan(0.5);
});

test('a plain region and a slow change of light have no detail to lose', () => {
  expect(
    detailKept(
      stripes(0),
      picture(() => 0),
      12,
    ),
  ).toBeNull();
  expect(
    detailKept(
      picture((x) => 100 + x / 4),
      picture(() => 100),
      12,
    ),
  ).toBeNull();
});

test('is one less the share of lost energy, of what differs from the mean of the surroundings', () => {
  const sides = fc.integer({ min: 1, max: 14 });
  fc.assert(
    fc.property(sides, sides, fc.integer({ min: 0, max: 5 }), fc.nat(999), (width, height, radius, seed) => {
      const random = steadyNoise(seed);
      const drawn = (levels: number) => Array.from({ length: width * height }, () => 128 + levels * random());
      const [before, after] = [drawn(seed % 20), drawn(20)];
      let [energy, lost] = [0, 0];
      for (let y = 0; y < height; y += 1) {
        for (let x = 0; x < width; x += 1) {
          const near = before.filter(
            (_, at) => Math.abs((at % width) - x) <= radius && Math.abs(Math.floor(at / width) - y) <= radius,
          );
          const value = before[y * width + x] ?? 0;
          energy += (value - near.reduce((sum, one) => sum + one, 0) / near.length) ** 2;
          lost += (value - (after[y * width + x] ?? 0)) ** 2;
        }
      }
      const kept = detailKept({ data: before, width, height }, { data: after, width, height }, radius);
      if (energy < 16 * width * height - 1e-6) expect(kept).toBeNull();
      else if (energy > 16 * width * height + 1e-6) expect(kept).toBeCloseTo(Math.max(0, 1 - lost / energy), 6);
    }),
  );
});
