import fc from 'fast-check';
import { expect, test } from 'vitest';
import { levelCount, levelDimensions, type Part, sampling } from '../index.ts';
import { aPart, aShrunkPart } from '../testPlans.ts';

test('what is cut lies inside its level, and every output pixel where the geometry says', () => {
  fc.assert(
    fc.property(aPart, fc.integer({ min: 1, max: 6 }), (part, levels) => {
      const { level, whole, exact } = sampling(part, levels);
      const bounds = levelDimensions(part.original, level);
      expect(level).toBeLessThan(levels);
      const { cut } = whole ?? exact;
      expect(cut.left).toBeGreaterThanOrEqual(0);
      expect(cut.top).toBeGreaterThanOrEqual(0);
      expect(cut.left + cut.width).toBeLessThanOrEqual(bounds.width);
      expect(cut.top + cut.height).toBeLessThanOrEqual(bounds.height);
      if (whole) {
        const { trim, resampleTo } = whole;
        expect(trim.left + trim.width).toBeLessThanOrEqual(resampleTo.width);
        expect(trim.top + trim.height).toBeLessThanOrEqual(resampleTo.height);
      }
      for (const [length, start, before, after] of [
        ['width', 'left', 'left', 'right'],
        ['height', 'top', 'top', 'bottom'],
      ] as const) {
        const axis = length === 'width' ? 'x' : 'y';
        /** Level pixels to one output pixel, and where the first one begins, from the steps alone. */
        const ratio = whole
          ? (whole.pad[before] + cut[length] + whole.pad[after]) / whole.resampleTo[length]
          : exact.ratio[axis];
        const first = cut[start] + (whole ? whole.trim[start] * ratio - whole.pad[before] : exact.from[axis]);
        const growth = part.original[length] / bounds[length];
        const outputPixel = part.source[length] / part.output[length];
        const [missAtFirst, missAtLast] = [0, part.output[length]].map(
          (at) => ((first + at * ratio) * growth - part.source[start] - at * outputPixel) / outputPixel,
        );
        expect(Math.abs(missAtFirst ?? 1)).toBeLessThan(0.051);
        expect(Math.abs(missAtLast ?? 1)).toBeLessThan(0.051);
      }
    }),
    { numRuns: 300 },
  );
});

test('an image library’s steps do for nearly every part that is scaled down, and seldom need padding', () => {
  const parts = fc
    .sample(aShrunkPart, { numRuns: 100, seed: 7 })
    .filter(({ source, output }) => source.width > 1.1 * output.width && source.height > 1.1 * output.height);
  const taken = parts.map((part) => sampling(part, 6).whole);
  expect(parts.length).toBeGreaterThan(80);
  expect(taken.filter(Boolean).length / parts.length).toBeGreaterThan(0.9);
});

test('the coarsest level is used of which four thirds of its pixels or more go into an output pixel', () => {
  fc.assert(
    fc.property(fc.oneof(aPart, aShrunkPart), fc.integer({ min: 1, max: 8 }), (part, levels) => {
      const { level } = sampling(part, levels);
      const scale = Math.min(part.source.width / part.output.width, part.source.height / part.output.height);
      if (level > 0) expect(scale / 2 ** level).toBeGreaterThanOrEqual((4 / 3) * (1 - 1e-9));
      if (level < levels - 1) expect(scale / 2 ** (level + 1)).toBeLessThan((4 / 3) * (1 + 1e-9));
    }),
  );
});

test('levels are halved until the longer side is below 512', () => {
  const counts = [511, 512, 1023, 1024, 4096].map((side) => levelCount({ width: 40, height: side }));
  expect(counts).toEqual([1, 2, 2, 3, 5]);
  expect(levelDimensions({ width: 4099, height: 30 }, 3)).toEqual({ width: 512, height: 3 });
  expect(levelDimensions({ width: 4099, height: 30 }, 6)).toEqual({ width: 64, height: 1 });
});

/** One side of a part on its level, as the steps see it. */
function sidesOf(part: Part, level: number) {
  const bounds = levelDimensions(part.original, level);
  return (['width', 'height'] as const).map((length) => {
    const start = length === 'width' ? ('left' as const) : ('top' as const);
    const growth = bounds[length] / part.original[length];
    const low = Math.min(Math.max(0, Math.round(part.within[start] * growth)), bounds[length] - 1);
    const end = Math.round((part.within[start] + part.within[length]) * growth);
    return {
      length,
      start,
      from: part.source[start] * growth,
      to: (part.source[start] + part.source[length]) * growth,
      low,
      high: Math.min(Math.max(end, low + 1), bounds[length]),
      output: part.output[length],
    };
  });
}

test('of all cuts that meet the geometry the nearest with the least padding is taken, and none where there is none', () => {
  fc.assert(
    fc.property(fc.oneof(aPart, aShrunkPart, aShrunkPart), fc.integer({ min: 1, max: 6 }), (part, levels) => {
      const { level, whole } = sampling(part, levels);
      const found = sidesOf(part, level).map((side) => {
        const { from, to, low, high, output } = side;
        const ratio = (to - from) / output;
        let [pad, miss] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
        // From the part itself outwards, until a cut needs no padding and misses by no more than half of what may be.
        for (let more = 0; more <= 64 && ratio >= 1 - 1e-9 && !(pad === 0 && miss < 0.025); more += 1) {
          for (let further = 0; further <= 64; further += 1) {
            const [cut, end] = [Math.floor(from + 1e-6) - more, Math.ceil(to - 1e-6) + further];
            const resampled = Math.max(1, Math.round((end - cut) / ratio));
            const step = (end - cut) / resampled;
            const skip = Math.round((from - cut) / step);
            const misses = [cut + skip * step - from, cut + (skip + output) * step - to];
            const most = Math.max(...misses.map(Math.abs)) / ratio;
            const padding = Math.max(0, Math.min(low, high - 1) - cut) + Math.max(0, end - high);
            if (most > 0.05 || padding > pad) continue;
            [pad, miss] = [padding, padding < pad ? most : Math.min(miss, most)];
          }
        }
        return { ...side, pad, miss };
      });
      expect(whole !== null).toBe(found.every(({ pad }) => Number.isFinite(pad)));
      if (!whole) return;
      for (const { start, length, from, to, output, pad, miss } of found) {
        const [before, after] =
          length === 'width' ? [whole.pad.left, whole.pad.right] : [whole.pad.top, whole.pad.bottom];
        expect(before + after).toBe(pad);
        const step = (before + whole.cut[length] + after) / whole.resampleTo[length];
        const first = whole.cut[start] - before + whole.trim[start] * step;
        const most = Math.max(Math.abs(first - from), Math.abs(first + output * step - to)) / ((to - from) / output);
        expect(most).toBeCloseTo(miss, 9);
        // The part lies inside of what was resampled.
        expect(whole.trim[start] + output).toBeLessThanOrEqual(whole.resampleTo[length]);
        expect(whole.trim[start]).toBeGreaterThanOrEqual(0);
      }
    }),
    { numRuns: 80 },
  );
});

test('where no library’s steps do, the pixels that a kernel looks at are there, and hardly more', () => {
  fc.assert(
    fc.property(aPart, fc.integer({ min: 1, max: 6 }), (part, levels) => {
      const { level, exact } = sampling(part, levels);
      if (!exact) return;
      for (const { start, length, from, to, low, high, output } of sidesOf(part, level)) {
        const around = 4 * Math.max(1, (to - from) / output);
        const clamped = (value: number, least: number, most: number) => Math.min(Math.max(value, least), most);
        const first = clamped(Math.floor(from - around), low, high - 1);
        expect(exact.cut[start]).toBe(first);
        expect(exact.cut[start] + exact.cut[length]).toBe(clamped(Math.ceil(to + around), first + 1, high));
        expect(exact.ratio[length === 'width' ? 'x' : 'y']).toBeCloseTo((to - from) / output, 9);
      }
    }),
  );
});
