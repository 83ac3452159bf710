import { expect, test } from 'vitest';
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
