import fc from 'fast-check';
import { expect, test } from 'vitest';
import { dimensionsProblem, dimensionsToChoose } from '../geometry/index.ts';
import { type Mark, type OtherDimensions, PlaceSchema, plainSettings, saidOf } from '../model/index.ts';
import { sampleArea, sampleMark, samplePlace } from '../testing/index.ts';
import { servingDimensions, settledPlace } from './index.ts';

const window = { centreX: 0, centreY: 0, span: 100, turn: 0, mirror: false };
const settings = { ...plainSettings, window };
const picture = (width: number, height: number, marks: Mark[] = []) => ({ width, height, trim: null, marks });
const ratios: OtherDimensions = { kind: 'ratios', least: 0.8, most: 1.91, leastSide: 320, mostSide: 1440 };
const feed = samplePlace({ width: 1080, height: 1080, otherDimensions: ratios });

test('of a range of ratios the one that shows the most of a picture is taken, within the range and its rules', () => {
  expect(settledPlace(feed, picture(3000, 2000), settings)).toMatchObject({ width: 1080, height: 720 });
  // Beyond the range its end is next.
  expect(settledPlace(feed, picture(1000, 4000), settings)).toMatchObject({ width: 1080, height: 1350 });
  expect(settledPlace(feed, picture(2000, 2010), settings)).toMatchObject({ width: 1080, height: 1080 });
  const even = { ...feed, multipleOf: 4, mostPixels: 1_000_000, width: 1000, height: 1000 };
  const { width, height } = settledPlace(even, picture(3000, 2000), settings);
  expect([width % 4, (height as number) % 4]).toEqual([0, 0]);
  expect(width * (height as number)).toBeLessThanOrEqual(1_000_000);
});

test('whatever the rules of a place, all that may be chosen is taken by it', () => {
  const side = fc.integer({ min: 8, max: 4000 });
  const rules = fc.record({
    ratio: fc.double({ min: 0.3, max: 3, noNaN: true }),
    share: fc.double({ min: 1.05, max: 4, noNaN: true }),
    sides: fc.tuple(side, side),
    wished: fc.tuple(side, side),
    multipleOf: fc.constantFrom(undefined, 2, 8, 16),
    mostPixels: fc.constantFrom(undefined, 200_000, 5_000_000),
    picture: fc.tuple(side, side),
  });
  let found = 0;
  fc.assert(
    fc.property(rules, ({ ratio, share, sides, wished, multipleOf, mostPixels, picture: [across, down] }) => {
      // What a place wishes for is divisible as it demands.
      const step = multipleOf ?? 1;
      const [width, height] = [Math.ceil(wished[0] / step) * step, Math.ceil(wished[1] / step) * step];
      const place = PlaceSchema.safeParse({
        ...samplePlace({ width, height }),
        otherDimensions: {
          kind: 'ratios',
          least: ratio,
          most: ratio * share,
          leastSide: Math.min(...sides),
          mostSide: Math.max(...sides),
        },
        ...(multipleOf ? { multipleOf } : {}),
        ...(mostPixels ? { mostPixels } : {}),
      });
      if (!place.success) return;
      const [first, ...others] = dimensionsToChoose(place.data, picture(across, down));
      expect(first).toEqual({ width, height });
      found += others.length;
      for (const one of others) expect(dimensionsProblem(place.data, one)).toBeNull();
    }),
    { numRuns: 3000 },
  );
  expect(found).toBeGreaterThan(100);
});

test('marks decide before extent: what has to be in is kept by another of the dimensions that a place takes', () => {
  const tall = sampleMark({ left: 900, top: 100, width: 300, height: 1800, priority: 'must' });
  const list = {
    kind: 'list' as const,
    dimensions: [
      { width: 1080, height: 1350 },
      { width: 1080, height: 566 },
    ],
  };
  const place = samplePlace({ width: 1080, height: 566, otherDimensions: list });
  const wide = servingDimensions(place, picture(3000, 2000), settings);
  expect(wide?.best.dimensions).toEqual({ width: 1080, height: 566 });
  const found = servingDimensions(place, picture(3000, 2000, [tall]), settings);
  expect(found).toMatchObject({ best: { dimensions: { height: 1350 }, kept: 1 }, wished: { kept: 0 } });
  // With a backing the whole picture is shown: then its own ratio is best.
  const backed = { ...settings, backing: { kind: 'echo' as const } };
  expect(settledPlace(place, picture(1600, 2000), backed)).toMatchObject({ height: 1350 });
});

test('what is set by hand holds; areas lie where they do at those dimensions; the place is known as it is said', () => {
  const covered = [sampleArea(0, 980, 1080, 100)];
  const place = { ...feed, covered };
  const settled = settledPlace(place, picture(3000, 2000), { ...settings, dimensions: { width: 1080, height: 540 } });
  expect(settled).toMatchObject({ width: 1080, height: 540, covered: [{ top: 490, height: 50, width: 1080 }] });
  expect(saidOf(settled)).toBe(place);
  expect(settledPlace(settled, picture(1, 1), settings)).toBe(settled);
  const fixed = samplePlace();
  expect(settledPlace(fixed, picture(3000, 2000), settings)).toBe(fixed);
  const free = samplePlace({ width: 600, height: { min: 300, max: 900 }, multipleOf: 2 });
  expect(settledPlace(free, picture(600, 501), settings)).toMatchObject({ width: 600, height: 502 });
});
