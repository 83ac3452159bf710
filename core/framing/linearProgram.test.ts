import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type HalfSpace, maximise } from './linearProgram.ts';

/**
 * Whole numbers: where three planes meet is a fraction whose denominator is below 5000, so a corner lies on another plane,
 * or clearly to one side of it, and no rounding decides whether it counts.
 */
const upTo = (most: number) => fc.integer({ min: -most, max: most });
const direction = fc.tuple(upTo(9), upTo(9), upTo(9));
const halfSpace = fc
  .record({ normal: direction, limit: upTo(20) })
  .filter(({ normal }) => normal.some((value) => value !== 0));
/** Keeps every answer within a cube of side 20. */
const cube: HalfSpace[] = [0, 1, 2].flatMap((axis) =>
  [1, -1].map((sign) => ({ normal: [0, 1, 2].map((at) => (at === axis ? sign : 0)), limit: 10 })),
);
const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, at) => sum + value * (b[at] ?? 0), 0);

/** The best corner of all, by cutting every three planes with each other (Cramer's rule). */
function byCorners(objective: number[], spaces: HalfSpace[]): number | null {
  let best: number | null = null;
  const at = (row: HalfSpace, column: number) => row.normal[column] ?? 0;
  const determinant = (a: number[], b: number[], c: number[]) =>
    (a[0] ?? 0) * ((b[1] ?? 0) * (c[2] ?? 0) - (b[2] ?? 0) * (c[1] ?? 0)) -
    (a[1] ?? 0) * ((b[0] ?? 0) * (c[2] ?? 0) - (b[2] ?? 0) * (c[0] ?? 0)) +
    (a[2] ?? 0) * ((b[0] ?? 0) * (c[1] ?? 0) - (b[1] ?? 0) * (c[0] ?? 0));
  for (const [i, one] of spaces.entries()) {
    for (const [j, two] of spaces.slice(0, i).entries()) {
      for (const three of spaces.slice(0, j)) {
        const rows = [one, two, three];
        const whole = determinant([...one.normal], [...two.normal], [...three.normal]);
        if (whole === 0) continue;
        const point = [0, 1, 2].map((column) => {
          const [a = [], b = [], c = []] = rows.map((row) =>
            [0, 1, 2].map((index) => (index === column ? row.limit : at(row, index))),
          );
          return determinant(a, b, c) / whole;
        });
        if (spaces.every((space) => dot(space.normal, point) <= space.limit + 1e-7)) {
          const value = dot(objective, point);
          if (best === null || value > best) best = value;
        }
      }
    }
  }
  return best;
}

test('finds the best point of any set of half-spaces, the same as trying all corners, or that there is none', () => {
  let [found, none] = [0, 0];
  fc.assert(
    fc.property(direction, fc.array(halfSpace, { maxLength: 9 }), (objective, some) => {
      const spaces = [...cube, ...some];
      const best = maximise(objective, spaces);
      const corner = byCorners(objective, spaces);
      if (corner === null) {
        none += 1;
        expect(best).toBeNull();
        return;
      }
      found += 1;
      for (const { normal, limit } of spaces) expect(dot(normal, best ?? [])).toBeLessThanOrEqual(limit + 1e-6);
      expect(dot(objective, best ?? [])).toBeCloseTo(corner, 5);
    }),
    { numRuns: 500 },
  );
  expect(Math.min(found, none)).toBeGreaterThan(20);
});

test('in one dimension it is the end of an interval', () => {
  const between = [
    { normal: [2], limit: 6 },
    { normal: [-1], limit: 1 },
  ];
  expect(maximise([1], between)).toEqual([3]);
  expect(maximise([-1], between)).toEqual([-1]);
  expect(maximise([1], [...between, { normal: [1], limit: -5 }])).toBeNull();
});
