import fc from 'fast-check';
import { expect, test } from 'vitest';
import { sampleWeight } from '../testing/index.ts';
import { isBeyond, lightestFrom, lowestQualityThatKeeps, marginOver, tierFloors, usualAim } from './index.ts';
import { nearest } from './nearest.ts';

test('the nearest of some values is that with the least distance; of two as near, the first', () => {
  const values = fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 8 });
  fc.assert(
    fc.property(values, fc.integer({ min: -60, max: 60 }), (all, to) => {
      const least = Math.min(...all.map((value) => Math.abs(value - to)));
      expect(nearest(all, to)).toBe(all.find((value) => Math.abs(value - to) === least));
    }),
  );
  expect(() => nearest([], 1)).toThrow('at least one');
});

test('a limit of three bits a pixel or more is generous: then no more bytes are spent than it takes', () => {
  const aim = (bytes: number) => usualAim(bytes, { width: 400, height: 200 }).kind;
  expect([aim(29_999), aim(30_000), aim(30_001)]).toEqual([
    'as good as fits',
    'no heavier than it needs',
    'no heavier than it needs',
  ]);
});

const floor = tierFloors.look;
const [file] = sampleWeight().files;
/** A similarity that just reaches a floor, with one of its numbers moved. */
function reaching(by: { overall?: number; worst?: number; flatAreaError?: number; blockError?: number }) {
  if (!file) throw new Error('no file');
  const { overall = 0, worst = 0, flatAreaError = 0, blockError = 0 } = by;
  return {
    ...file.similarity,
    overall: floor.overall + overall,
    worst: { ...file.similarity.worst, similarity: floor.worst + worst },
    flatAreaError: floor.flatAreaError + flatAreaError,
    blockError: floor.blockError + blockError,
  };
}

test('a file is as much better than a floor as the number by which it is least better', () => {
  expect(marginOver(reaching({}), floor)).toBeCloseTo(0, 9);
  const better = { overall: 2, worst: 3, flatAreaError: -1, blockError: -4 };
  expect(marginOver(reaching(better), floor)).toBeCloseTo(1, 9);
  for (const worse of [{ overall: -0.5 }, { worst: -0.5 }, { flatAreaError: 0.5 }, { blockError: 0.5 }])
    expect(marginOver(reaching({ ...better, ...worse }), floor)).toBeCloseTo(-0.5, 9);
});

test('a file is beyond a floor where one number misses it by more than its encoder strays', () => {
  const straying = { points: 0.4, levels: 0.3 };
  expect(isBeyond(reaching({}), floor, straying)).toBe(false);
  for (const [near, far] of [
    [{ overall: -0.39 }, { overall: -0.41 }],
    [{ worst: -0.39 }, { worst: -0.41 }],
    [{ flatAreaError: 0.29 }, { flatAreaError: 0.31 }],
    [{ blockError: 0.29 }, { blockError: 0.31 }],
  ] as const) {
    expect(isBeyond(reaching(near), floor, straying)).toBe(false);
    expect(isBeyond(reaching(far), floor, straying)).toBe(true);
  }
  const half = { points: 0.5, levels: 0.5 };
  for (const just of [{ overall: -0.5 }, { worst: -0.5 }, { flatAreaError: 0.5 }, { blockError: 0.5 }])
    expect(isBeyond(reaching(just), floor, half)).toBe(false);
});

test('the lightest file that is good enough is found, the same as trying all, and no more than it takes is tried', async () => {
  const ladder = fc.array(fc.record({ stray: fc.double({ min: 0, max: 1, noNaN: true }), isGood: fc.boolean() }), {
    minLength: 1,
    maxLength: 12,
  });
  await fc.assert(
    fc.asyncProperty(
      ladder,
      fc.double({ min: 1.001, max: 1.2, noNaN: true }),
      fc.double({ min: 0, max: 0.1, noNaN: true }),
      fc.integer({ min: 0, max: 300 }),
      async (steps, growth, tolerance, slack) => {
        // More quality, more bytes, but for what the encoder strays.
        const bytes = steps.map(({ stray }, at) => (10_000 * growth ** at - slack * stray) * (1 - tolerance * stray));
        const isGood = (at: number) => at === 0 || steps[at]?.isGood === true;
        const above = steps.map((_, at) => at).slice(1);
        const search = { lowest: 0, above, tolerance, slack };
        const found = await lightestFrom({
          ...search,
          bytes: async (at) => bytes[at] as number,
          isGood: async (at) => isGood(at),
        });
        const good = steps.map((_, at) => at).filter(isGood);
        expect(bytes[found]).toBe(Math.min(...good.map((at) => bytes[at] as number)));
      },
    ),
  );
  const tried: number[] = [];
  const bytes = async (quality: number) => {
    tried.push(quality);
    return 1000 * quality;
  };
  const search = { lowest: 50, above: [51, 52, 53, 54, 55], bytes, isGood: async () => true };
  // At 52 no file further up can be lighter any more: 52 less 2 % and 500 bytes is more than 50.
  expect(await lightestFrom({ ...search, tolerance: 0.02, slack: 500 })).toBe(50);
  expect(tried).toEqual([50, 51, 52]);
  // Of two that weigh the same, the lower quality stays.
  expect(await lightestFrom({ ...search, bytes: async () => 9, tolerance: 0, slack: 0 })).toBe(50);
});

test('a file that is close enough ends the search, one that is too good does not', async () => {
  const tried: number[] = [];
  const search = (close: number) =>
    lowestQualityThatKeeps({
      qualities: Array.from({ length: 90 }, (_, at) => at + 5),
      encode: async (quality) => {
        tried.push(quality);
        return quality / 10;
      },
      margin: (similarity) => similarity - 5,
      close,
      guess: 53,
    });
  expect(await search(0.35)).toMatchObject({ best: { quality: 53 }, encodings: 1 });
  expect((await search(0.25)).best?.quality).toBeLessThan(53);
  expect((await search(0)).best?.quality).toBe(50);
});
