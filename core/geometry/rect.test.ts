import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Mark } from '../model/index.ts';
import { area, clamp, intersection, marksOnPicture, type Rect, rectBetween, rectWithin } from './index.ts';

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

test('the rectangle between two points has them at its corners, whichever comes first', () => {
  expect(rectBetween({ x: 7, y: 2 }, { x: 3, y: 9 })).toEqual({ left: 3, top: 2, width: 4, height: 7 });
  expect(rectBetween({ x: 3, y: 9 }, { x: 7, y: 2 })).toEqual({ left: 3, top: 2, width: 4, height: 7 });
});

test('a rectangle brought within a picture lies in it, has its least sides, and is left alone where it may be', () => {
  const picture = { width: 30, height: 20 };
  fc.assert(
    fc.property(rects, (rect) => {
      const within = rectWithin(rect, picture, 8);
      expect(within.width).toBe(Math.min(30, Math.max(8, rect.width)));
      expect(within.height).toBe(Math.min(20, Math.max(8, rect.height)));
      expect(within.left).toBe(Math.min(30 - within.width, Math.max(0, rect.left)));
      expect(within.top).toBe(Math.min(20 - within.height, Math.max(0, rect.top)));
    }),
  );
  expect(rectWithin({ left: 0, top: 0, width: 1, height: 1 }, { width: 5, height: 6 }, 8)).toMatchObject({
    width: 5,
    height: 6,
  });
});

test('of marks, what lies on the picture stays; what lies beside it is gone', () => {
  const mark = (left: number, top: number): Mark => ({
    id: '00000000-0000-4000-8000-0000000000cc',
    name: 'Bin',
    role: 'avoid',
    shape: 'rectangle',
    left,
    top,
    width: 20,
    height: 10,
  });
  const box = { left: 100, top: 100, width: 50, height: 50 };
  expect(marksOnPicture([mark(90, 95), mark(80, 120), mark(120, 90), mark(110, 120)], box)).toEqual([
    { ...mark(100, 100), width: 10, height: 5 },
    mark(110, 120),
  ]);
});
