import { expect, test } from 'vitest';
import { inPlaneMemory, type Plane } from './index.ts';

const plane = (value: number, width = 5): Plane => ({
  data: new Float32Array(width * 3).fill(value),
  width,
  height: 3,
});

test('work that is part of other work has memory of its own, which is free again afterwards', () => {
  const kept = inPlaneMemory((outer) => {
    const at = outer.reservePlane(plane(1));
    outer.commit();
    outer.put(at, plane(1));
    const starts = [2, 3].map((value) =>
      inPlaneMemory((inner) => {
        // So much that the module's memory has to grow.
        const within = inner.reservePlane(plane(value, 400_000));
        inner.commit();
        inner.put(within, plane(value, 400_000));
        return within;
      }),
    );
    expect(starts[1]).toBe(starts[0]);
    expect(starts[0]).toBeGreaterThan(at);
    return outer.get(at, plane(1));
  });
  expect(kept).toEqual(plane(1));
  expect(() =>
    inPlaneMemory((arena) => {
      arena.reservePlane(plane(1));
      arena.commit();
      throw new Error('It broke off.');
    }),
  ).toThrow('broke off');
  // Everything begins where four floats can be read at once.
  const [at, next, last] = inPlaneMemory((arena) => [arena.reserve(5), arena.reserve(4), arena.reservePlane(plane(1))]);
  expect([(next ?? 0) - (at ?? 0), (last ?? 0) - (next ?? 0)]).toEqual([32, 16]);
  const [first, second] = [inPlaneMemory((arena) => arena.reserve(1)), inPlaneMemory((arena) => arena.reserve(1))];
  expect(second).toBe(first);
});
