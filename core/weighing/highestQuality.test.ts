import fc from 'fast-check';
import { expect, test } from 'vitest';
import { BytesEstimate } from './bytesEstimate.ts';
import { highestQualityThatFits, lastGood } from './index.ts';
import { readCurve } from './qualityCurve.ts';

/** A made encoder: bytes grow with quality along the usual JPEG curve, bent and disturbed by the given amounts. */
function madeEncoder(scale: number, bend: number, stray: (quality: number) => number) {
  const scaleOf = (quality: number) => (quality < 50 ? 5000 / quality : Math.max(1, 200 - 2 * quality));
  return (quality: number) => Math.round(scale * scaleOf(quality) ** -bend * (1 + stray(quality)));
}

const upTo = (floor: number, ceiling: number) => Array.from({ length: ceiling - floor + 1 }, (_, at) => floor + at);

function byTryingAll(encode: (quality: number) => number, budget: number, floor: number, ceiling: number) {
  for (let quality = ceiling; quality >= floor; quality -= 1) if (encode(quality) <= budget) return quality;
  return null;
}

const encoders = fc.record({
  scale: fc.double({ min: 1e5, max: 1e8, noNaN: true }),
  bend: fc.double({ min: 0.4, max: 1.1, noNaN: true }),
  quickFactor: fc.double({ min: 0.9, max: 1.6, noNaN: true }),
  quickBend: fc.double({ min: -0.08, max: 0.08, noNaN: true }),
  budgetAt: fc.double({ min: 1, max: 100, noNaN: true }),
  waviness: fc.double({ min: 0, max: 1, noNaN: true }),
});

async function searchAll(tolerance: number, learned = false, atOnce: 1 | 2 = 2) {
  const counts: number[] = [];
  await fc.assert(
    fc.asyncProperty(encoders, async ({ scale, bend, quickFactor, quickBend, budgetAt, waviness }) => {
      // A wave between -1 and 0: two qualities never stray from each other by more than `tolerance`.
      const stray = (quality: number) => (tolerance * waviness * (Math.sin(quality * 12.9898) - 1)) / 2;
      const encode = madeEncoder(scale, bend, stray);
      const quick = madeEncoder(scale * quickFactor, bend + quickBend, () => 0);
      const budget = Math.max(1, madeEncoder(scale, bend, () => 0)(budgetAt));
      const found = await highestQualityThatFits({
        budget,
        qualities: upTo(5, 95),
        encode: async (quality) => ({ bytes: encode(quality) }),
        sketch: async (quality) => quick(quality),
        ...(learned ? { estimate: async (quality: number) => encode(quality) } : {}),
        tolerance: Math.max(tolerance, 1e-9) * 1.01,
        atOnce: () => atOnce,
      });
      expect(found.best?.quality ?? null).toBe(byTryingAll(encode, budget, 5, 95));
      if (found.best) expect(found.best.encoded.bytes).toBe(encode(found.best.quality));
      counts.push(found.encodings);
      expect(found.encodings).toBeLessThanOrEqual(20);
      expect(found.sketches).toBeLessThanOrEqual(4);
    }),
    { numRuns: 600, seed: 1 },
  );
  return counts.reduce((sum, count) => sum + count, 0) / counts.length;
}

// The means are those of the 600 encoders of the seed: whoever makes the search worse sees by how much.
test('gives the same answer as trying every quality, in about three full encodings', async () => {
  expect(await searchAll(0)).toBeLessThan(2.92);
});

test('needs two where a part of the picture has told how the two encoders compare', async () => {
  expect(await searchAll(0, true)).toBeLessThan(2.02);
});

test('needs fewer where one runs after the other', async () => {
  expect(await searchAll(0.005, true, 1)).toBeLessThan(1.66);
  expect(await searchAll(0.005, true, 2)).toBeLessThan(2.17);
});

test('gives it for encoders that now and then give fewer bytes for more quality, by little or by much', async () => {
  expect(await searchAll(0.005)).toBeLessThan(3.02);
  await searchAll(0.04, false, 1);
});

test('gives it where encoders stray by bytes, and encodes nothing twice', async () => {
  const steps = fc.array(fc.record({ step: fc.integer({ min: 0, max: 9 }), stray: fc.integer({ min: 0, max: 40 }) }), {
    minLength: 1,
    maxLength: 40,
  });
  await fc.assert(
    fc.asyncProperty(steps, fc.integer({ min: 40, max: 500 }), fc.boolean(), async (all, budget, highestFirst) => {
      const bytes = all.map(
        ({ stray }, at) => 100 + all.slice(0, at + 1).reduce((sum, { step }) => sum + step, 0) - stray,
      );
      const tried: number[] = [];
      const { best, encodings } = await highestQualityThatFits({
        budget,
        qualities: bytes.map((_, at) => at),
        encode: async (quality) => {
          tried.push(quality);
          return { bytes: bytes[quality] as number };
        },
        sketch: async (quality) => 100 + 2 * quality,
        tolerance: 0,
        slack: 40,
        highestFirst,
      });
      const fitting = bytes.findLastIndex((one) => one <= budget);
      expect(best?.quality ?? -1).toBe(fitting);
      expect(new Set(tried).size).toBe(tried.length);
      expect(encodings).toBe(tried.length);
    }),
  );
});

test('says so when every quality is too heavy, and tries the ceiling alone when the budget is wide', async () => {
  const encode = async (quality: number) => ({ bytes: 1000 * quality });
  const sketch = async (quality: number) => 1200 * quality;
  const none = await highestQualityThatFits({ budget: 999, qualities: upTo(1, 90), encode, sketch });
  expect(none.best).toBeNull();
  const wide = await highestQualityThatFits({
    budget: 1e6,
    qualities: upTo(1, 90),
    encode,
    sketch,
    highestFirst: true,
  });
  expect(wide).toMatchObject({ best: { quality: 90 }, encodings: 1, sketches: 0 });
  const nothing = highestQualityThatFits({ budget: 1, qualities: [], encode, sketch });
  await expect(nothing).rejects.toThrow('at least one quality is needed');
});

test('an estimate passes through what was encoded, and keeps the curve’s shape between', () => {
  const estimate = new BytesEstimate();
  const curve = [
    { quality: 30, bytes: 60_000 },
    { quality: 60, bytes: 120_000 },
    { quality: 90, bytes: 300_000 },
  ];
  // Whatever they come in, the order is that of the qualities.
  for (const at of [2, 0, 1]) estimate.sketch(curve[at]?.quality ?? 0, curve[at]?.bytes ?? 0);
  expect([estimate.sketches, estimate.isSketchedAt(60), estimate.isSketchedAt(61)]).toEqual([3, true, false]);
  expect(estimate.at(60)).toBeCloseTo(120_000, 3);
  estimate.suppose(60, 96_000);
  expect(estimate.at(90)).toBeCloseTo(240_000, 3);
  // What is known takes the place of what was supposed.
  estimate.learn(90, 600_000);
  expect(estimate.at(60)).toBeCloseTo(240_000, 3);
  // Something supposed later counts beside it.
  estimate.suppose(60, 96_000);
  expect(estimate.at(60)).toBeCloseTo(96_000, 3);
  expect(estimate.at(90)).toBeCloseTo(600_000, 3);
  estimate.learn(30, 60_000);
  estimate.learn(60, 180_000);
  expect([30, 60, 90].map((quality) => Math.round(estimate.at(quality)))).toEqual([60_000, 180_000, 600_000]);
  // Between two, half way from one ratio to the other; beyond what is known the last ratio holds.
  const half = Math.exp((Math.log(1.5) + Math.log(2)) / 2);
  expect(estimate.at(75)).toBeCloseTo(readCurve(curve, 75) * half, 3);
  expect(estimate.at(20)).toBeCloseTo(readCurve(curve, 20), 3);
});

test('two at once: the last good one and the first that is not are tried together', async () => {
  const rounds: number[] = [];
  let running = 0;
  const found = await lastGood({
    candidates: upTo(0, 99),
    async attempt(candidate) {
      running += 1;
      await Promise.resolve();
      rounds.push(running);
      running -= 1;
      return candidate <= 41 ? 'good' : 'hopeless';
    },
    expected: () => 41,
    atOnce: () => 2,
  });
  expect([found, rounds]).toEqual([41, [2, 1]]);
});

test('where nothing is good there is none, and nothing is tried twice', async () => {
  const tried: number[] = [];
  const attempt = async (candidate: number) => {
    tried.push(candidate);
    return 'bad' as const;
  };
  expect(await lastGood({ candidates: upTo(0, 12), attempt, expected: () => 12, atOnce: () => 2 })).toBeNull();
  expect(tried.sort((a, b) => a - b)).toEqual(upTo(0, 12));
});

test('what is expected wrongly is found by dividing what is left', async () => {
  const counts = await Promise.all(
    [3, 500, 996].flatMap((last) =>
      ([1, 2] as const).map(async (atOnce) => {
        let count = 0;
        const found = await lastGood({
          candidates: upTo(0, 999),
          async attempt(candidate) {
            count += 1;
            return candidate <= last ? 'good' : 'hopeless';
          },
          expected: () => (last < 500 ? 999 : 0),
          atOnce: () => atOnce,
        });
        expect(found).toBe(last);
        return count;
      }),
    ),
  );
  // Of a thousand, ten steps would do; every second one follows what is expected.
  expect(Math.max(...counts)).toBeLessThanOrEqual(26);
});
