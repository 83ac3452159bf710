import { expect, test } from 'vitest';
import { kneeOf } from './index.ts';

test('the knee is where more bytes begin to buy little', () => {
  const bent = [10, 20, 40, 80, 160, 320].map((bytes, at) => ({
    bytes,
    similarity: [80, 90, 98, 98.6, 99, 99.2][at] ?? 0,
  }));
  expect(kneeOf(bent)?.bytes).toBe(40);
  expect(kneeOf([...bent].reverse())?.bytes).toBe(40);
});

test('a straight line, a falling one and too few encodings have none', () => {
  const straight = [10, 100, 1000].map((bytes, at) => ({ bytes, similarity: 90 + at }));
  expect(kneeOf(straight)).toBeNull();
  expect(kneeOf(straight.map((one) => ({ ...one, similarity: -one.similarity })))).toBeNull();
  expect(kneeOf(straight.slice(0, 2))).toBeNull();
  expect([kneeOf([]), kneeOf(straight.slice(0, 1))]).toEqual([null, null]);
  const three = (bytes: number[], similarity: number[]) =>
    kneeOf(bytes.map((one, at) => ({ bytes: one, similarity: similarity[at] ?? 0 })))?.bytes ?? null;
  expect(three([10, 100, 1000], [80, 98, 99])).toBe(100);
  expect([three([10, 10, 10], [80, 98, 99]), three([10, 100, 1000], [80, 98, 80])]).toEqual([null, null]);
  // What gets worse the more it weighs has no knee, however it is bent.
  expect(three([10, 100, 1000], [99, 80, 79])).toBeNull();
  // Of two that lie as far above the line, the lighter.
  expect(three([1, 10, 100, 1000], [0, 60, 90, 90])).toBe(10);
});
