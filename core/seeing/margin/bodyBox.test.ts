import fc from 'fast-check';
import { expect, test } from 'vitest';
import { target } from '../../testing/index.ts';
import { bodyBox, contentBox } from '../index.ts';

const size = { width: 240, height: 160 };

test('the body is found to the pixel, without its shadow and without bits that stand apart', () => {
  const whole = fc.record({
    left: fc.integer({ min: 30, max: 70 }),
    top: fc.integer({ min: 26, max: 50 }),
    width: fc.integer({ min: 60, max: 120 }),
    height: fc.integer({ min: 50, max: 70 }),
    light: fc.constantFrom(250, 255, 236),
    shadow: fc.integer({ min: 0, max: 90 }),
    bits: fc.array(fc.constantFrom([3, 5], [228, 6], [6, 150], [230, 151]), { maxLength: 4 }),
  });
  fc.assert(
    fc.property(whole, ({ left, top, width, height, light, shadow, bits }) => {
      const isIn = (x: number, y: number) => x >= left && x < left + width && y >= top && y < top + height;
      const picture = target(size.width, size.height, (x, y) => {
        if (isIn(x, y)) return [40, 90, 140];
        if (bits.some(([bx = 0, by = 0]) => Math.hypot(x - bx, y - by) < 2.5)) return [200, 30, 40];
        const away = Math.max(left - x, x - left - width + 1, top - y, y - top - height + 1, 0);
        return light - shadow * Math.exp(-((away / 5) ** 2));
      });
      expect(bodyBox(picture)).toEqual({ left, top, width, height });
      // What is trimmed to all that lies on the margin holds at least that.
      const all = contentBox(picture);
      expect(all && all.left <= left && all.left + all.width >= left + width).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('parts that lie near belong to it, one after the other, and so does a large one that stands apart', () => {
  const box = (spots: readonly (readonly [left: number, top: number, width: number, height: number])[]) =>
    bodyBox(
      target(size.width, size.height, (x, y) =>
        spots.some(([left, top, width, height]) => x >= left && x < left + width && y >= top && y < top + height)
          ? 30
          : 250,
      ),
    );
  // Three steps of four pixels: each is near only because of the one before.
  expect(
    box([
      [20, 30, 80, 60],
      [104, 50, 6, 6],
      [114, 50, 6, 6],
      [124, 50, 6, 6],
    ]),
  ).toEqual({ left: 20, top: 30, width: 110, height: 60 });
  expect(
    box([
      [20, 30, 80, 60],
      [180, 60, 20, 20],
    ]),
  ).toEqual({ left: 20, top: 30, width: 180, height: 60 });
  expect(
    box([
      [20, 30, 80, 60],
      [220, 140, 5, 5],
    ]),
  ).toEqual({ left: 20, top: 30, width: 80, height: 60 });
  expect(box([])).toBeNull();
});

test('a photograph has no margin to take away', () => {
  expect(bodyBox(target(size.width, size.height, (x, y) => [x, 255 - y, (x * y) % 200]))).toBeNull();
  // A sky that is one colour reaches round less than all of it.
  expect(bodyBox(target(size.width, size.height, (_, y) => (y < 90 ? 230 : 60 + y / 2)))).toBeNull();
});
