import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Dimensions, Window } from '../model/index.ts';
import {
  type Corner,
  clampWindow,
  dragCorner,
  enlargement,
  largestSpan,
  largestWindow,
  nudge,
  oppositeCorner,
  placeDimensions,
  type Rect,
  windowRect,
  zoomAbout,
} from './index.ts';

const side = fc.integer({ min: 8, max: 20_000 });
const dimensions = fc.record({ width: side, height: side });
const far = fc.double({ min: -50_000, max: 50_000, noNaN: true });
const wildWindow = fc.record({ centreX: far, centreY: far, span: fc.double({ min: 1e-3, max: 1e5, noNaN: true }) });
const corner = fc.constantFrom<Corner>('top left', 'top right', 'bottom left', 'bottom right');
const slack = 1e-6;

function expectInside(rect: Rect, original: Dimensions) {
  expect(rect.left).toBeGreaterThanOrEqual(-slack);
  expect(rect.top).toBeGreaterThanOrEqual(-slack);
  expect(rect.left + rect.width).toBeLessThanOrEqual(original.width + slack);
  expect(rect.top + rect.height).toBeLessThanOrEqual(original.height + slack);
}

test('no handling of a window takes it out of the original or out of its ratio', () => {
  const handlings = fc.oneof(
    fc.record({ kind: fc.constant('nudge' as const), x: far, y: far }),
    fc.record({
      kind: fc.constant('zoom' as const),
      x: far,
      y: far,
      factor: fc.double({ min: 0.01, max: 100, noNaN: true }),
    }),
    fc.record({ kind: fc.constant('corner' as const), x: far, y: far, corner }),
  );
  fc.assert(
    fc.property(
      dimensions,
      dimensions,
      wildWindow,
      fc.array(handlings, { maxLength: 8 }),
      (original, output, start, steps) => {
        let window = clampWindow(start, original, output);
        for (const step of steps) {
          if (step.kind === 'nudge') window = nudge(window, step, original, output);
          else if (step.kind === 'zoom') window = zoomAbout(window, step.factor, step, original, output);
          else window = dragCorner(window, step.corner, step, original, output);
          const rect = windowRect(window, output);
          expectInside(rect, original);
          expect(rect.width / rect.height).toBeCloseTo(output.width / output.height, 6);
          expect(rect.width).toBeGreaterThan(0);
        }
      },
    ),
  );
});

test('the largest window touches two opposite edges and no window is larger', () => {
  fc.assert(
    fc.property(dimensions, dimensions, wildWindow, (original, output, start) => {
      const rect = windowRect(largestWindow(original, output), output);
      expectInside(rect, original);
      const touches = Math.min(Math.abs(rect.width - original.width), Math.abs(rect.height - original.height));
      expect(touches).toBeLessThan(1e-6);
      expect(clampWindow(start, original, output).span).toBeLessThanOrEqual(largestSpan(original, output));
    }),
  );
});

test('clamping leaves a window alone that is already inside', () => {
  fc.assert(
    fc.property(dimensions, dimensions, wildWindow, (original, output, start) => {
      const once = clampWindow(start, original, output);
      const again = clampWindow(once, original, output);
      for (const key of ['centreX', 'centreY', 'span'] as const) expect(again[key]).toBeCloseTo(once[key], 6);
    }),
  );
});

test('zooming keeps the point under the pointer still where the edges allow it', () => {
  const original = { width: 6000, height: 4000 };
  const output = { width: 1080, height: 1350 };
  const window: Window = { centreX: 3000, centreY: 2000, span: 1500 };
  const anchor = { x: 2700, y: 1800 };
  const share = (one: Window) => (anchor.x - windowRect(one, output).left) / one.span;
  expect(share(zoomAbout(window, 0.8, anchor, original, output))).toBeCloseTo(share(window), 9);
});

test('nudging by one moves the picture by exactly one output pixel', () => {
  const output = { width: 1000, height: 500 };
  const moved = nudge(
    { centreX: 3000, centreY: 2000, span: 2500 },
    { x: 1, y: -1 },
    { width: 6000, height: 4000 },
    output,
  );
  expect(moved).toEqual({ centreX: 3002.5, centreY: 1997.5, span: 2500 });
  expect(enlargement(moved, output)).toBe(0.4);
});

test('dragging a corner leaves the opposite corner where it was', () => {
  const original = { width: 6000, height: 4000 };
  fc.assert(
    fc.property(corner, fc.integer({ min: 0, max: 6000 }), fc.integer({ min: 0, max: 4000 }), (which, x, y) => {
      const output = { width: 1200, height: 628 };
      const before: Window = { centreX: 3000, centreY: 2000, span: 1800 };
      const fixed = oppositeCorner(windowRect(before, output), which);
      const after = oppositeCorner(windowRect(dragCorner(before, which, { x, y }, original, output), output), which);
      expect(after.x).toBeCloseTo(fixed.x, 6);
      expect(after.y).toBeCloseTo(fixed.y, 6);
    }),
  );
});

test('a place with a free height takes the height of the whole picture, within its range', () => {
  const inline = { width: 1440, height: { min: 400, max: 3000 } };
  expect(placeDimensions(inline, { width: 6000, height: 4000 })).toEqual({ width: 1440, height: 960 });
  expect(placeDimensions(inline, { width: 12_000, height: 3000 })).toEqual({ width: 1440, height: 400 });
  expect(placeDimensions({ width: 1080, height: 1350 }, { width: 3, height: 9 })).toEqual({
    width: 1080,
    height: 1350,
  });
});
