import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Raster } from '../../planes/index.ts';
import { contentBox } from '../index.ts';

type Colour = number[];

/** A picture of one colour with a rectangle of another in it. */
function framed(
  width: number,
  height: number,
  ground: Colour,
  content: Colour,
  box: { left: number; top: number; width: number; height: number },
): Raster {
  const channels = ground.length as Raster['channels'];
  const data = new Uint8Array(width * height * channels);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const inside = x >= box.left && x < box.left + box.width && y >= box.top && y < box.top + box.height;
      data.set(inside ? content : ground, (y * width + x) * channels);
    }
  }
  return { data, width, height, channels };
}

test('finds a rectangle wherever it lies, to the pixel, on any margin', () => {
  const grounds = fc.constantFrom<[Colour, Colour]>(
    [
      [250, 248, 240],
      [120, 30, 40],
    ],
    [
      [20, 20, 20],
      [90, 90, 90],
    ],
    [[200], [90]],
    [
      [0, 0, 0, 0],
      [10, 200, 30, 255],
    ],
    [
      [90, 0],
      [255, 255],
    ],
  );
  const part = fc.integer({ min: 1, max: 20 });
  fc.assert(
    fc.property(
      grounds,
      part,
      part,
      part,
      part,
      part,
      part,
      ([ground, content], left, top, right, bottom, width, height) => {
        const box = { left, top, width, height };
        const seen = framed(left + width + right, top + height + bottom, ground, content, box);
        // A picture that is mostly content has its own colour on the rim only where the margin is gone.
        expect(contentBox(seen)).toEqual(box);
      },
    ),
  );
});

test('grain of the margin within the tolerance, and specks of dust, are no content', () => {
  const box = { left: 300, top: 250, width: 400, height: 300 };
  const seen = framed(1000, 800, [240, 236, 228], [60, 70, 90], box);
  for (let at = 0; at < seen.data.length; at += 1)
    seen.data[at] = Math.max(0, (seen.data[at] ?? 0) - ((at * 7919) % 9));
  seen.data.set([0, 0, 0], (20 * 1000 + 31) * 3);
  expect(contentBox(seen)).toEqual(box);
  expect(contentBox(seen, { tolerance: 1 })).not.toEqual(box);
});

test('a soft shadow belongs to the content or not, as asked, on colour and on transparency', () => {
  const content = { left: 40, top: 30, width: 50, height: 40 };
  const shade = (x: number, y: number) => {
    const away = Math.max(
      content.left - x,
      x - content.left - content.width + 1,
      content.top - y,
      y - content.top - content.height + 1,
      0,
    );
    return away > 10 ? 0 : 0.5 * (1 - away / 11);
  };
  const onCream = framed(140, 110, [250, 244, 230], [30, 90, 160], content);
  const onNothing = framed(140, 110, [0, 0, 0, 0], [30, 90, 160, 255], content);
  for (let y = 0; y < 110; y += 1) {
    for (let x = 0; x < 140; x += 1) {
      const inside = x >= 40 && x < 90 && y >= 30 && y < 70;
      if (inside || shade(x, y) === 0) continue;
      const at = y * 140 + x;
      onCream.data.set(
        [250, 244, 230].map((value) => Math.round(value * (1 - shade(x, y)))),
        at * 3,
      );
      onNothing.data.set([0, 0, 0, Math.round(255 * shade(x, y))], at * 4);
    }
  }
  for (const seen of [onCream, onNothing]) {
    expect(contentBox(seen, { shadow: false })).toEqual(content);
    const whole = contentBox(seen, { shadow: true });
    expect(whole?.left).toBeLessThan(content.left - 7);
    expect(whole?.width).toBeGreaterThan(content.width + 14);
  }
});

test('content begins just beyond the tolerance, and where a shadow is too dark, too light or of another colour', () => {
  const box = { left: 9, top: 7, width: 12, height: 8 };
  const finds = (ground: Colour, content: Colour, options = {}) =>
    contentBox(framed(40, 30, ground, content, box), options) !== null;
  expect([112, 113, 88, 87].map((value) => finds([100], [value]))).toEqual([false, true, false, true]);
  expect([103, 104].map((value) => finds([100], [value], { tolerance: 3 }))).toEqual([false, true]);
  // On a transparent margin what is seen at all counts; without shadows only what covers.
  const clear = (alpha: number, options = {}) => finds([0, 0, 0, 0], [0, 0, 0, alpha], options);
  expect([12, 13].map((alpha) => clear(alpha))).toEqual([false, true]);
  expect([229, 230].map((alpha) => clear(alpha, { shadow: false }))).toEqual([false, true]);
  // A hole in what is opaque is no margin.
  expect([11, 12].map((alpha) => finds([90, 255], [90, alpha]))).toEqual([true, false]);
  expect([127, 128].map((alpha) => finds([90, alpha], [90, 255]))).toEqual([true, false]);
  const solid = (ground: Colour, content: Colour) => finds(ground, content, { shadow: false });
  expect([70, 69, 150, 213].map((value) => solid([200], [value]))).toEqual([false, true, false, true]);
  expect([solid([200, 100, 50], [100, 50, 25]), solid([200, 100, 50], [100, 50, 40])]).toEqual([false, true]);
  expect(solid([200, 100, 50], [100, 75, 25])).toBe(true);
});

test('the margin has the median colour of the whole rim, corners once, whatever lies inside', () => {
  const sides = fc.integer({ min: 1, max: 9 });
  fc.assert(
    fc.property(
      sides,
      sides,
      fc.array(fc.constantFrom(20, 120, 220), { minLength: 81, maxLength: 81 }),
      (wide, high, all) => {
        const at = (x: number, y: number) => all[y * 9 + x] ?? 0;
        const data = Uint8Array.from({ length: wide * high }, (_, index) => at(index % wide, Math.floor(index / wide)));
        const rim: number[] = [];
        for (let x = 0; x < wide; x += 1) rim.push(at(x, 0), at(x, high - 1));
        for (let y = 1; y < high - 1; y += 1) rim.push(at(0, y), at(wide - 1, y));
        rim.sort((a, b) => a - b);
        const margin = rim[rim.length >> 1];
        const [xs, ys] = [[], []] as [number[], number[]];
        for (let y = 0; y < high; y += 1)
          for (let x = 0; x < wide; x += 1)
            if (at(x, y) !== margin) {
              xs.push(x);
              ys.push(y);
            }
        const [left, top] = [Math.min(...xs), Math.min(...ys)];
        const box =
          xs.length === 0 ? null : { left, top, width: Math.max(...xs) - left + 1, height: Math.max(...ys) - top + 1 };
        expect(contentBox({ data, width: wide, height: high, channels: 1 })).toEqual(box);
      },
    ),
    { numRuns: 300 },
  );
});

test('specks of up to a five-hundredth of a row or column are dust, wherever they lie', () => {
  const seen = (content: { left: number; top: number; width: number; height: number }) =>
    contentBox(framed(1000, 500, [240], [20], content));
  // Two in a thousand are dust, three are not; one in five hundred is dust, two are not.
  expect(seen({ left: 100, top: 100, width: 2, height: 2 })).toBeNull();
  expect(seen({ left: 100, top: 100, width: 3, height: 1 })).toBeNull();
  const large = { left: 100, top: 100, width: 3, height: 2 };
  expect(seen(large)).toEqual(large);
});

test('where there is nothing but margin there is no box', () => {
  expect(contentBox(framed(30, 20, [9, 9, 9], [9, 9, 9], { left: 0, top: 0, width: 1, height: 1 }))).toBeNull();
});
