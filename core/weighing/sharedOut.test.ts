import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Sharing, sharedOut } from './index.ts';

const qualities = [10, 20, 30, 40, 50];
/** Ascending curves of bytes and worth over the qualities. */
const rising = (most: number) =>
  fc
    .array(fc.integer({ min: 1, max: most }), { minLength: qualities.length, maxLength: qualities.length })
    .map((steps) => steps.map((_, at) => steps.slice(0, at + 1).reduce((sum, step) => sum + step, 0)));
const curves = fc.array(fc.record({ bytes: rising(40), worth: rising(9) }), { minLength: 1, maxLength: 4 });

const sharing = ({ bytes, worth }: { bytes: number[]; worth: number[] }): Sharing => ({
  qualities,
  bytes: async (quality) => bytes[qualities.indexOf(quality)] ?? Number.NaN,
  worth: async (quality) => worth[qualities.indexOf(quality)] ?? Number.NaN,
});

test('a budget for all is shared out so that the worst is as good as trying every combination finds', async () => {
  await fc.assert(
    fc.asyncProperty(curves, fc.integer({ min: 1, max: 500 }), async (files, budget) => {
      const found = await sharedOut(files.map(sharing), budget);
      const all = files.reduce<number[][]>(
        (some, _) => some.flatMap((one) => qualities.map((_q, at) => [...one, at])),
        [[]],
      );
      const sumOf = (steps: number[]) => steps.reduce((sum, step, at) => sum + (files[at]?.bytes[step] ?? 0), 0);
      const worstOf = (steps: number[]) => Math.min(...steps.map((step, at) => files[at]?.worth[step] ?? 0));
      const fitting = all.filter((steps) => sumOf(steps) <= budget);
      if (fitting.length === 0) {
        expect(found).toBeNull();
        return;
      }
      const steps = (found ?? []).map((quality) => qualities.indexOf(quality));
      expect(sumOf(steps)).toBeLessThanOrEqual(budget);
      expect(worstOf(steps)).toBe(Math.max(...fitting.map(worstOf)));
    }),
    { numRuns: 400 },
  );
});

test('an easy piece leaves its bytes to a hard one', async () => {
  const easy = { bytes: [10, 20, 30, 40, 50], worth: [80, 90, 95, 97, 99] };
  const hard = { bytes: [40, 80, 120, 160, 200], worth: [40, 60, 70, 75, 78] };
  expect(await sharedOut([easy, hard].map(sharing), 180)).toEqual([20, 40]);
  // Divided evenly, the hard one would be worth no more than 60.
  expect(await sharedOut([hard].map(sharing), 90)).toEqual([20]);
});
