import fc from 'fast-check';
import { expect, test } from 'vitest';
import { sharedPart } from '../../geometry/index.ts';
import { steadyNoise, target } from '../../testing/index.ts';
import { saliencyOf } from './saliency.ts';
import { salientRegions } from './salientRegions.ts';

const size = { width: 160, height: 110 };
const share = fc.double({ min: 0, max: 1, noNaN: true });

test('what stands on a ground stands out by just how much it differs, wherever it is and however the light falls', () => {
  const thing = fc.record({
    x: share,
    y: share,
    width: fc.integer({ min: 20, max: 60 }),
    height: fc.integer({ min: 20, max: 50 }),
    ground: fc.integer({ min: 30, max: 120 }),
    step: fc.integer({ min: 70, max: 120 }),
    slope: fc.double({ min: -0.15, max: 0.15, noNaN: true }),
  });
  fc.assert(
    fc.property(thing, ({ x, y, width, height, ground, step, slope }) => {
      const left = Math.round(8 + x * (size.width - 16 - width));
      const top = Math.round(8 + y * (size.height - 16 - height));
      const picture = target(size.width, size.height, (px, py) => {
        const isIn = px >= left && px < left + width && py >= top && py < top + height;
        return ground + slope * px + (isIn ? step : 0);
      });
      const { data } = saliencyOf(picture);
      const middle = (top + Math.floor(height / 2)) * size.width + left + Math.floor(width / 2);
      // From the edge to the thing the light changes as well, and from its rim to its middle.
      expect(Math.abs((data[middle] as number) - step)).toBeLessThan(2 + Math.abs(slope) * size.width);
      expect(data[0]).toBe(0);
      const [region, ...others] = salientRegions(picture);
      expect(others).toEqual([]);
      expect(
        sharedPart(region?.rect ?? { left: 0, top: 0, width: 0, height: 0 }, { left, top, width, height }),
      ).toBeGreaterThan(0.8);
    }),
    { numRuns: 40 },
  );
});

test('colour alone is enough, two things are two regions, and sand, grain, slow light and rings are none', () => {
  const disc = (x: number, y: number, atX: number, atY: number) => Math.hypot(x - atX, y - atY) < 18;
  const red = target(size.width, size.height, (x, y) => (disc(x, y, 60, 50) ? [200, 70, 90] : [90, 105, 90]));
  expect(salientRegions(red)).toHaveLength(1);
  const two = target(size.width, size.height, (x, y) => (disc(x, y, 40, 50) || disc(x, y, 120, 60) ? 210 : 90));
  expect(salientRegions(two)).toHaveLength(2);
  const random = steadyNoise(3);
  const plain = [
    target(size.width, size.height, () => 120),
    target(size.width, size.height, () => 150 + 30 * random()),
    target(size.width, size.height, (x, y) => 60 + x / 2 + y / 3),
    target(size.width, size.height, (x, y) => 150 + 18 * Math.sin(x / 5 + Math.sin(y / 9)) + 10 * random()),
    ...[0.25, 0.3, 0.4].map((often) =>
      target(size.width, size.height, (x, y) => 128 + 80 * Math.sign(Math.sin(often * Math.hypot(x - 48, y - 55)))),
    ),
  ];
  for (const picture of plain) expect(salientRegions(picture)).toEqual([]);
});
