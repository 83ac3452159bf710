import fc from 'fast-check';
import { expect, test } from 'vitest';
import { clipPolygon, nearestPoint, type Polygon } from './convexPolygon.ts';

const square = [
  { x: 0, y: 0 },
  { x: 10, y: 0 },
  { x: 10, y: 10 },
  { x: 0, y: 10 },
];
const number = fc.double({ min: -20, max: 20, noNaN: true });
const hundredths = (most: number) => fc.integer({ min: -100 * most, max: 100 * most }).map((value) => value / 100);
const cuts = fc.array(
  fc.record({ x: hundredths(1), y: hundredths(1), limit: hundredths(20) }).filter(({ x, y }) => Math.hypot(x, y) > 0.1),
  { maxLength: 6 },
);

test('what is left of a polygon lies on the right side of every cut, and nothing that lies there is lost', () => {
  fc.assert(
    fc.property(cuts, (some) => {
      const left = some.reduce<Polygon>((polygon, { x, y, limit }) => clipPolygon(polygon, x, y, limit), square);
      const holds = (px: number, py: number, slack: number) =>
        some.every(({ x, y, limit }) => x * px + y * py <= limit + slack);
      for (const corner of left) expect(holds(corner.x, corner.y, 1e-6)).toBe(true);
      for (let px = 0.5; px < 10; px += 1) {
        for (let py = 0.5; py < 10; py += 1) {
          if (!holds(px, py, -1e-6)) continue;
          const nearest = nearestPoint(left, { x: px, y: py });
          expect(nearest?.x).toBeCloseTo(px, 5);
          expect(nearest?.y).toBeCloseTo(py, 5);
        }
      }
    }),
    { numRuns: 60, examples: [[[{ x: -0.1, y: 0, limit: 0 }]]] },
  );
});

test('a cut along an edge leaves the polygon whole', () => {
  const cut = clipPolygon(clipPolygon(square, -1, 0, 0), 0, 1, 10);
  for (const [x, y] of [
    [0.5, 0.5],
    [9.5, 9.5],
  ] as const)
    expect(nearestPoint(cut, { x, y })).toEqual({ x, y });
});

test('the nearest point is no further away than any other', () => {
  fc.assert(
    fc.property(number, number, (x, y) => {
      const point = nearestPoint(square, { x, y });
      const distance = Math.hypot((point?.x ?? 0) - x, (point?.y ?? 0) - y);
      const clamped = { x: Math.min(10, Math.max(0, x)), y: Math.min(10, Math.max(0, y)) };
      expect(distance).toBeCloseTo(Math.hypot(clamped.x - x, clamped.y - y), 9);
    }),
  );
});

test('a polygon that is cut away altogether has no nearest point; a single corner is its own', () => {
  expect(nearestPoint(clipPolygon(square, 1, 0, -1), { x: 3, y: 3 })).toBeNull();
  expect(nearestPoint([{ x: 4, y: 5 }], { x: 90, y: 90 })).toEqual({ x: 4, y: 5 });
});
