import fc from 'fast-check';
import { expect, test } from 'vitest';
import { fitViewport, rectToScreen, toOriginal, toScreen } from './index.ts';

const side = fc.integer({ min: 1, max: 40_000 });
const dimensions = fc.record({ width: side, height: side });
const box = fc.record({ width: fc.integer({ min: 40, max: 4000 }), height: fc.integer({ min: 40, max: 4000 }) });

test('screen to original and back is the identity', () => {
  const coordinate = fc.double({ min: -5000, max: 5000, noNaN: true });
  fc.assert(
    fc.property(dimensions, box, coordinate, coordinate, (original, room, x, y) => {
      const view = fitViewport(original, room, 12);
      const back = toScreen(view, toOriginal(view, { x, y }));
      expect(back.x).toBeCloseTo(x, 5);
      expect(back.y).toBeCloseTo(y, 5);
    }),
  );
});

test('the whole original lies inside the box, in its middle, margins kept', () => {
  fc.assert(
    fc.property(dimensions, box, (original, room) => {
      const seen = rectToScreen(fitViewport(original, room, 12), { left: 0, top: 0, ...original });
      expect(seen.left).toBeGreaterThanOrEqual(12 - 1e-6);
      expect(seen.top).toBeGreaterThanOrEqual(12 - 1e-6);
      expect(seen.left + seen.width / 2).toBeCloseTo(room.width / 2, 6);
      expect(seen.top + seen.height / 2).toBeCloseTo(room.height / 2, 6);
      // It is as large as that allows.
      expect(Math.min(seen.left, seen.top)).toBeCloseTo(12, 6);
    }),
  );
});
