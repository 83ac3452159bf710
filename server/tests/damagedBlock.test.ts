import type { Raster } from '@inkwell/core/planes';
import { similarityOf } from '@inkwell/core/seeing';
import { steadyNoise, target } from '@inkwell/core/testing';
import { marginOver, tierFloors } from '@inkwell/core/weighing';
import { expect, test } from 'vitest';

/** What careful encoding leaves, spread over all of a picture. */
function noisy(photo: Raster): Raster {
  const random = steadyNoise(9);
  return { ...photo, data: Uint8ClampedArray.from(photo.data, (value) => value + 5 * random()) };
}

test.each([400, 1080, 2400])(
  'similarity fails for one damaged block of 8 × 8 px in a picture of %d px, wherever it lies',
  (side) => {
    const random = steadyNoise(side);
    const photo = target(side, side, (x, y) => {
      const light = 120 + 45 * Math.sin(x / 31) * Math.cos(y / 23) + 20 * Math.sin(((x * y) / side) * 0.7);
      return [light + 20 + 6 * random(), light + 6 * random(), light - 25 + 6 * random()];
    });
    if (side === 400) expect(marginOver(similarityOf(photo, noisy(photo)), tierFloors.flick)).toBeGreaterThanOrEqual(0);
    for (const [left, top] of [
      [Math.floor(side / 2) - 3, Math.floor(side / 3) + 1],
      [side - 30, side - 13],
    ] as const) {
      const inBlock = (by: (value: number) => number): Raster => {
        const data = photo.data.slice();
        for (let at = 0; at < 64; at += 1) {
          const from = ((top + (at >> 3)) * side + left + (at & 7)) * 3;
          for (const channel of [0, 1, 2]) data[from + channel] = by(data[from + channel] as number);
        }
        return { ...photo, data };
      };
      for (const damaged of [inBlock((value) => value + 24), inBlock((value) => (value > 100 ? 60 : 190))]) {
        const found = similarityOf(photo, damaged);
        expect(found.overall).toBeGreaterThan(99);
        expect(marginOver(found, tierFloors.flick)).toBeLessThan(0);
        expect(marginOver(found, tierFloors.look)).toBeLessThan(0);
      }
    }
  },
);
