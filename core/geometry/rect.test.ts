import fc from 'fast-check';
import { expect, test } from 'vitest';
import { area, clamp, intersection, type Rect } from './index.ts';

const whole = fc.integer({ min: -40, max: 40 });
const length = fc.integer({ min: 0, max: 40 });
const rects = fc.record({ left: whole, top: whole, width: length, height: length });

/** Counts the unit squares that lie in both. */
function byCounting(a: Rect, b: Rect): number {
  let count = 0;
  for (let x = -40; x < 80; x += 1) {
    for (let y = -40; y < 80; y += 1) {
      if ([a, b].every((one) => x >= one.left && x < one.left + one.width && y >= one.top && y < one.top + one.height))
        count += 1;
    }
  }
  return count;
}

test('an intersection has as many unit squares as lie in both rectangles', () => {
  fc.assert(
    fc.property(rects, rects, (a, b) => {
      expect(area(intersection(a, b))).toBe(byCounting(a, b));
      expect(area(intersection(b, a))).toBe(byCounting(a, b));
    }),
    { numRuns: 60 },
  );
});

test('clamping keeps a value between two bounds, and takes their middle where they have crossed', () => {
  expect([clamp(5, 0, 3), clamp(-5, 0, 3), clamp(2, 0, 3)]).toEqual([3, 0, 2]);
  expect(clamp(99, 10, 4)).toBe(7);
});
