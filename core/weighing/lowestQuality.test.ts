import fc from 'fast-check';
import { expect, test } from 'vitest';
import { lowestQualityThatKeeps } from './index.ts';

const qualities = Array.from({ length: 86 }, (_, at) => at + 10);

const pictures = fc.record({
  /** Points that are lost at a quality of 50. */
  lost: fc.double({ min: 0.2, max: 12, noNaN: true }),
  bend: fc.double({ min: 0.4, max: 2.5, noNaN: true }),
  level: fc.double({ min: 85, max: 99.8, noNaN: true }),
  waviness: fc.double({ min: 0, max: 1, noNaN: true }),
  guess: fc.integer({ min: 0, max: 100 }),
});

async function searchAll(tolerance: number): Promise<{ mean: number; most: number }> {
  const counts: number[] = [];
  await fc.assert(
    fc.asyncProperty(pictures, async ({ lost, bend, level, waviness, guess }) => {
      // A wave between 0 and 1 at most: no lower quality is ever better by more than `tolerance`.
      const stray = (quality: number) => (tolerance * waviness * (Math.sin(quality * 12.9898) + 1)) / 2;
      const similarity = (quality: number) => 100 - lost * ((101 - quality) / 51) ** bend - stray(quality);
      const found = await lowestQualityThatKeeps({
        qualities,
        encode: async (quality) => similarity(quality),
        margin: (one) => one - level,
        tolerance: tolerance * 1.01,
        guess,
      });
      const wanted = qualities.find((quality) => similarity(quality) >= level) ?? null;
      expect(found.best?.quality ?? null).toBe(wanted);
      if (found.best) expect(found.best.encoded).toBe(similarity(found.best.quality));
      counts.push(found.encodings);
    }),
    { numRuns: 500, seed: 2 },
  );
  return { mean: counts.reduce((sum, count) => sum + count, 0) / counts.length, most: Math.max(...counts) };
}

test('finds the lowest quality that is good enough, the same as trying all, in few encodings', async () => {
  const { mean, most } = await searchAll(0);
  // The means are those of the 500 pictures of the seed: whoever makes the search worse sees by how much.
  expect(mean).toBeLessThan(3.62);
  expect(most).toBeLessThanOrEqual(11);
});

test('does so where a lower quality now and then comes out better', async () => {
  expect((await searchAll(0.1)).mean).toBeLessThan(4.67);
});

test('says so where nothing is good enough', async () => {
  const found = await lowestQualityThatKeeps({
    qualities,
    encode: async () => 50,
    margin: (one) => one - 90,
    guess: 80,
  });
  expect(found.best).toBeNull();
});
