import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Plane } from '../planes/index.ts';
import { cutOf, cutThings, fromTheMiddle, leftOf, lostEdges, offsetOf } from './index.ts';

/** Smooth, and nowhere the same. */
const landscape = (width: number, height: number): Plane => ({
  data: Float32Array.from({ length: width * height }, (_, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    return 120 + 60 * Math.sin(x / 9 + (y * y) / 900) + 50 * Math.cos(y / 13 + (x * x) / 1500);
  }),
  width,
  height,
});

const part = ({ data, width }: Plane, left: number, top: number, across: number, down: number): Plane => ({
  data: Float32Array.from(
    { length: across * down },
    (_, at) => data[(top + Math.floor(at / across)) * width + left + (at % across)] ?? 0,
  ),
  width: across,
  height: down,
});

test('a picture that is only scaled has lost nothing; another shape says along which axis something is gone', () => {
  expect([
    cutOf({ width: 1080, height: 1350 }, { width: 864, height: 1080 }),
    cutOf({ width: 1080, height: 566 }, { width: 360, height: 189 }),
  ]).toEqual([null, null]);
  expect(cutOf({ width: 1080, height: 1350 }, { width: 810, height: 1080 })).toEqual({ axis: 'x', left: 0.9375 });
  expect(cutOf({ width: 1000, height: 2000 }, { width: 500, height: 800 })).toEqual({ axis: 'y', left: 0.8 });
});

test('wherever a part was taken from, it is found there, also when it has been compressed', () => {
  const whole = landscape(160, 120);
  fc.assert(
    fc.property(
      fc.constantFrom('x' as const, 'y' as const),
      fc.integer({ min: 0, max: 60 }),
      fc.integer({ min: 0, max: 9 }),
      (axis, at, grain) => {
        const cut = axis === 'x' ? part(whole, at, 0, 100, 120) : part(whole, 0, at, 160, 60);
        const compressed = {
          ...cut,
          data: cut.data.map((level, index) => level + ((index * 7919) % (2 * grain + 1)) - grain),
        };
        expect(offsetOf(whole, compressed, axis)).toBe(at);
      },
    ),
    { numRuns: 80 },
  );
  // Where nothing tells one place from another, the middle is where networks cut.
  const flat: Plane = { data: new Float32Array(160 * 120).fill(80), width: 160, height: 120 };
  expect(offsetOf(flat, part(flat, 0, 0, 100, 120), 'x')).toBe(30);
  expect(offsetOf(whole, whole, 'x')).toBe(0);
});

test('edges that are lost add up to what is gone, and take from marks what lies in them', () => {
  const file = { width: 1080, height: 1350 };
  const cut = cutOf(file, { width: 810, height: 1080 });
  const lost = lostEdges(file, cut, 34 / 1080);
  expect(lost).toEqual({ left: 34, top: 0, right: 34, bottom: 0 });
  expect(leftOf(file, lost)).toEqual({ left: 34, top: 0, width: 1012, height: 1350 });
  const thing = (name: string, left: number, width: number) => ({
    name,
    isMust: true,
    rect: { left, top: 100, width, height: 50 },
  });
  expect(
    cutThings(
      [thing('Face', 200, 300), thing('Kite', 0, 68), thing('Bin', -50, 60), thing('Far', 2000, 10)],
      file,
      lost,
    ),
  ).toEqual([
    { name: 'Kite', isMust: true, share: 0.5 },
    { name: 'Bin', isMust: true, share: 1 },
  ]);
  expect(fromTheMiddle({ left: 33, right: 35, top: 0, bottom: 0 })).toEqual({ left: 34, right: 34, top: 0, bottom: 0 });
  expect(fromTheMiddle({ left: 0, right: 0, top: 20, bottom: 47 })).toEqual({ left: 0, right: 0, top: 20, bottom: 47 });
  expect(lostEdges(file, null, 0)).toEqual({ left: 0, top: 0, right: 0, bottom: 0 });
});
