import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Dimensions, Window } from '../model/index.ts';
import {
  type Corner,
  clampWindow,
  cornerOnOriginal,
  coveringSpan,
  dragCorner,
  enlargement,
  frameToOriginal,
  isInside,
  largestSpan,
  largestWindow,
  levellingTurn,
  nudge,
  oppositeCorner,
  originalToFrame,
  placeDimensions,
  type Rect,
  turnBy,
  turnParts,
  turnTo,
  wholeOf,
  wholeWindow,
  windowAt,
  windowBoundingBox,
  windowRect,
  zoomAbout,
} from './index.ts';

const side = fc.integer({ min: 8, max: 20_000 });
const dimensions = fc.record({ width: side, height: side });
const far = fc.double({ min: -50_000, max: 50_000, noNaN: true });
const turn = fc.oneof(
  fc.constantFrom(0, 90, 180, -90),
  fc.integer({ min: -1799, max: 1800 }).map((tenths) => tenths / 10),
);
const wildWindow = fc.record({
  centreX: far,
  centreY: far,
  span: fc.double({ min: 1e-3, max: 1e5, noNaN: true }),
  turn,
  mirror: fc.boolean(),
});
const corner = fc.constantFrom<Corner>('top left', 'top right', 'bottom left', 'bottom right');
const slack = 1e-6;

/** Part of a picture that lies somewhere in it, as a trim does. */
const boxes = fc.record({
  left: fc.integer({ min: 0, max: 9000 }),
  top: fc.integer({ min: 0, max: 9000 }),
  width: side,
  height: side,
});
const corners: Corner[] = ['top left', 'top right', 'bottom left', 'bottom right'];

function expectInside(window: Window, box: Rect, output: Dimensions) {
  for (const one of corners) {
    const { x, y } = cornerOnOriginal(window, one, output);
    expect(x).toBeGreaterThanOrEqual(box.left - slack);
    expect(y).toBeGreaterThanOrEqual(box.top - slack);
    expect(x).toBeLessThanOrEqual(box.left + box.width + slack);
    expect(y).toBeLessThanOrEqual(box.top + box.height + slack);
  }
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
    fc.record({ kind: fc.constant('turn' as const), turn }),
  );
  fc.assert(
    fc.property(boxes, dimensions, wildWindow, fc.array(handlings, { maxLength: 8 }), (box, output, start, steps) => {
      const bounds = { box, beyond: false };
      let window = clampWindow(start, bounds, output);
      for (const step of steps) {
        if (step.kind === 'nudge') window = nudge(window, step, bounds, output);
        else if (step.kind === 'zoom') window = zoomAbout(window, step.factor, step, bounds, output);
        else if (step.kind === 'turn') window = turnTo(window, step.turn, bounds, output);
        else window = dragCorner(window, step.corner, step, bounds, output);
        expectInside(window, box, output);
        // Its shorter side has 16 pixels of the original, where the picture has as many.
        const shorter = Math.min(window.span, (window.span * output.height) / output.width);
        const there = Math.min(
          16,
          largestSpan(bounds, output, window.turn) * Math.min(1, output.height / output.width),
        );
        expect(shorter).toBeGreaterThan(there - 1e-6);
      }
    }),
  );
});

test('the largest window touches two opposite edges and no window is larger', () => {
  fc.assert(
    fc.property(dimensions, dimensions, wildWindow, (original, output, start) => {
      const bounds = wholeOf(original);
      const largest = largestWindow(bounds, output, start);
      expectInside(largest, bounds.box, output);
      const box = windowBoundingBox(largest, output);
      expect(Math.min(original.width - box.width, original.height - box.height)).toBeLessThan(1e-6);
      expect(clampWindow(start, bounds, output).span).toBeLessThanOrEqual(
        largestSpan(bounds, output, start.turn) + 1e-9,
      );
    }),
  );
});

test('clamping leaves a window alone that is already inside', () => {
  fc.assert(
    fc.property(dimensions, dimensions, wildWindow, fc.boolean(), (original, output, start, beyond) => {
      const bounds = { ...wholeOf(original), beyond };
      const once = clampWindow(start, bounds, output);
      const again = clampWindow(once, bounds, output);
      for (const key of ['centreX', 'centreY', 'span', 'turn'] as const) expect(again[key]).toBeCloseTo(once[key], 6);
    }),
  );
});

test('frame to original and back is the identity, whatever the turn; the corners span the window', () => {
  fc.assert(
    fc.property(dimensions, dimensions, wildWindow, far, far, (original, output, start, x, y) => {
      const window = clampWindow(start, wholeOf(original), output);
      const back = originalToFrame(window, output, frameToOriginal(window, output, { x, y }));
      expect(back.x).toBeCloseTo(x, 3);
      expect(back.y).toBeCloseTo(y, 3);
      const [left, right] = (['top left', 'top right'] as const).map((one) => cornerOnOriginal(window, one, output));
      if (left && right) expect(Math.hypot(right.x - left.x, right.y - left.y)).toBeCloseTo(window.span, 3);
    }),
  );
});

test('a picture turned clockwise by a quarter stands with its left edge on top', () => {
  const output = { width: 400, height: 600 };
  const window = largestWindow(wholeOf({ width: 600, height: 400 }), output, { turn: 90, mirror: false });
  expect(frameToOriginal(window, output, { x: 0, y: 0 })).toEqual({ x: 0, y: 400 });
  expect(frameToOriginal(window, output, { x: 400, y: 0 })).toEqual({ x: 0, y: 0 });
  const mirrored = { ...window, mirror: true };
  expect(frameToOriginal(mirrored, output, { x: 0, y: 0 })).toEqual({ x: 0, y: 0 });
});

test('a line along a slanting horizon makes it level in the frame, a line along a mast makes it plumb', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(0, 90, 180, -90),
      fc.integer({ min: -400, max: 400 }),
      fc.boolean(),
      (quarter, slope, plumb) => {
        const angle = ((slope / 10 + (plumb ? 90 : 0)) * Math.PI) / 180;
        const to = { x: 1000 + 500 * Math.cos(angle), y: 1000 + 500 * Math.sin(angle) };
        const output = { width: 800, height: 600 };
        const level = levellingTurn({ x: 1000, y: 1000 }, to, quarter);
        const window = { centreX: 1000, centreY: 1000, span: 900, turn: level, mirror: false };
        const [a, b] = [originalToFrame(window, output, { x: 1000, y: 1000 }), originalToFrame(window, output, to)];
        expect(Math.min(Math.abs(a.x - b.x), Math.abs(a.y - b.y))).toBeLessThan(0.01);
        expect(turnParts(level).quarter).toBe(quarter);
      },
    ),
  );
});

test('with a backing a window may show all of the picture and more, but never nothing of it', () => {
  fc.assert(
    fc.property(dimensions, dimensions, wildWindow, (original, output, start) => {
      const bounds = { ...wholeOf(original), beyond: true };
      const all = wholeWindow(bounds, output, start);
      for (const x of [0, original.width]) {
        for (const y of [0, original.height]) {
          const at = originalToFrame(all, output, { x, y });
          expect(at.x).toBeGreaterThan(-1e-3);
          expect(at.x).toBeLessThan(output.width + 1e-3);
          expect(at.y).toBeGreaterThan(-1e-3);
          expect(at.y).toBeLessThan(output.height + 1e-3);
        }
      }
      const { centreX, centreY } = clampWindow(start, bounds, output);
      expect(centreX).toBe(Math.min(original.width, Math.max(0, centreX)));
      expect(centreY).toBe(Math.min(original.height, Math.max(0, centreY)));
    }),
  );
});

test('zooming keeps the point under the pointer still where the edges allow it', () => {
  const bounds = wholeOf({ width: 6000, height: 4000 });
  const output = { width: 1080, height: 1350 };
  const window: Window = { centreX: 3000, centreY: 2000, span: 1500, turn: 11, mirror: true };
  const anchor = { x: 2700, y: 1800 };
  const before = originalToFrame(window, output, anchor);
  const zoomed = zoomAbout(window, 0.8, anchor, bounds, output);
  expect(zoomed.span).toBeCloseTo(1200, 9);
  const after = originalToFrame(zoomed, output, anchor);
  expect(after.x).toBeCloseTo(before.x, 9);
  expect(after.y).toBeCloseTo(before.y, 9);
});

test('nudging by one moves the picture by exactly one output pixel, along the frame', () => {
  const bounds = wholeOf({ width: 6000, height: 4000 });
  const output = { width: 1000, height: 500 };
  const window = { centreX: 3000, centreY: 2000, span: 2500, turn: 0, mirror: false };
  const moved = nudge(window, { x: 1, y: -1 }, bounds, output);
  expect(moved).toEqual({ ...window, centreX: 3002.5, centreY: 1997.5 });
  expect(enlargement(moved, output)).toBe(0.4);
  const turned = nudge({ ...window, turn: 90 }, { x: 1, y: -1 }, bounds, output);
  expect([turned.centreX, turned.centreY]).toEqual([2997.5, 1997.5]);
});

test('dragging a corner leaves the opposite corner where it was', () => {
  const bounds = wholeOf({ width: 6000, height: 4000 });
  const output = { width: 1200, height: 628 };
  const pointer = { x: fc.integer({ min: 0, max: 6000 }), y: fc.integer({ min: 0, max: 4000 }) };
  fc.assert(
    fc.property(corner, turn, fc.boolean(), fc.record(pointer), fc.boolean(), (which, turn, mirror, to, beyond) => {
      const before: Window = { centreX: 3000, centreY: 2000, span: 1800, turn, mirror };
      const fixed = cornerOnOriginal(before, oppositeCorner(which), output);
      const dragged = dragCorner(before, which, to, { ...bounds, beyond }, output);
      const after = cornerOnOriginal(dragged, oppositeCorner(which), output);
      expect(after.x).toBeCloseTo(fixed.x, 4);
      expect(after.y).toBeCloseTo(fixed.y, 4);
    }),
  );
});

test('a place with a free height takes the height of the whole picture, within its range', () => {
  const inline = { width: 1440, height: { min: 400, max: 3000 } };
  const whole = (width: number, height: number) => ({ width, height, trim: null });
  expect(placeDimensions(inline, whole(6000, 4000))).toEqual({ width: 1440, height: 960 });
  expect(placeDimensions(inline, whole(12_000, 3000))).toEqual({ width: 1440, height: 400 });
  expect(placeDimensions({ width: 1080, height: 1350 }, whole(3, 9))).toEqual({ width: 1080, height: 1350 });
  const trim = { left: 10, top: 10, width: 720, height: 720 };
  expect(placeDimensions(inline, { width: 6000, height: 4000, trim })).toEqual({ width: 1440, height: 1440 });
  const bounded = { ...inline, multipleOf: 8, mostPixels: 2_000_000 };
  expect(placeDimensions(bounded, whole(1000, 2000))).toEqual({ width: 1440, height: 1384 });
  expect(placeDimensions(bounded, whole(1, 1), { width: 1440, height: 773 })).toEqual({ width: 1440, height: 776 });
});

test('a window set by left, top and width takes its turn from another and nothing else', () => {
  const output = { width: 400, height: 300 };
  const other = { centreX: 9, centreY: 9, span: 9, turn: 5, mirror: true };
  expect(windowAt(100, 200, 800, output, other)).toEqual({
    centreX: 500,
    centreY: 500,
    span: 800,
    turn: 5,
    mirror: true,
  });
});

test('a window that touches an edge of the picture is inside; moved past it by a hundredth of a pixel it is not', () => {
  fc.assert(
    fc.property(boxes, dimensions, wildWindow, (box, output, start) => {
      const window = clampWindow(start, { box, beyond: false }, output);
      expect(isInside(window, box, output)).toBe(true);
      const seen = windowBoundingBox(window, output);
      const past = 0.01;
      const ways = [
        { x: box.left - seen.left - past, y: 0 },
        { x: box.left + box.width - seen.left - seen.width + past, y: 0 },
        { x: 0, y: box.top - seen.top - past },
        { x: 0, y: box.top + box.height - seen.top - seen.height + past },
      ];
      for (const { x, y } of ways)
        expect(isInside({ ...window, centreX: window.centreX + x, centreY: window.centreY + y }, box, output)).toBe(
          false,
        );
    }),
  );
});

test('a window is the one at the left, top and width of its rectangle; upright, that is what it shows', () => {
  fc.assert(
    fc.property(dimensions, wildWindow, (output, window) => {
      const { left, top, width, height } = windowRect(window, output);
      const again = windowAt(left, top, width, output, window);
      for (const key of ['centreX', 'centreY', 'span'] as const) expect(again[key]).toBeCloseTo(window[key], 4);
      const seen = windowBoundingBox({ ...window, turn: 0 }, output);
      expect([seen.left, seen.top, seen.width, seen.height].map((value) => value.toFixed(3))).toEqual(
        [left, top, width, height].map((value) => value.toFixed(3)),
      );
    }),
  );
});

test('turned by a quarter a window begins anew as large as it can be; by less it keeps what it shows', () => {
  const bounds = wholeOf({ width: 6000, height: 4000 });
  const output = { width: 1080, height: 1350 };
  const start: Window = { centreX: 3000, centreY: 2000, span: 900, turn: 3.2, mirror: false };
  for (const by of [90, -90]) {
    const turned = turnBy(start, by, bounds, output);
    expect(turned.turn).toBe(by + 3.2);
    expect(turned.span).toBeCloseTo(largestSpan(bounds, output, by + 3.2), 6);
  }
  expect(turnBy(start, 0.14, bounds, output)).toMatchObject({ turn: 3.3, span: 900 });
  expect(turnBy(start, -3.2, bounds, output).turn).toBe(0);
  expect(turnBy({ ...start, turn: 179.9 }, 0.2, bounds, output).turn).toBe(-179.9);
});

test('a dragged corner goes with the hand along the axis on which that asks for the larger window', () => {
  const bounds = wholeOf({ width: 60_000, height: 40_000 });
  const part = fc.double({ min: 0.2, max: 3, noNaN: true });
  fc.assert(
    fc.property(corner, turn, fc.boolean(), dimensions, part, part, (which, turn, mirror, output, right, down) => {
      const window: Window = {
        centreX: 30_000,
        centreY: 20_000,
        span: 900 * Math.min(1, output.width / output.height),
        turn,
        mirror,
      };
      const sign = { x: which.endsWith('left') ? -1 : 1, y: which.startsWith('top') ? -1 : 1 };
      const still = { x: sign.x < 0 ? output.width : 0, y: sign.y < 0 ? output.height : 0 };
      const hand = { x: still.x + sign.x * right * output.width, y: still.y + sign.y * down * output.height };
      const dragged = dragCorner(window, which, frameToOriginal(window, output, hand), bounds, output);
      const smallest = 16 * Math.max(1, output.width / output.height);
      expect(dragged.span).toBeCloseTo(Math.max(smallest, window.span * Math.max(right, down)), 3);
    }),
  );
});

test('a window that may reach past the picture is at most four times as wide as one that just shows all of it', () => {
  const bounds = { ...wholeOf({ width: 600, height: 300 }), beyond: true };
  const output = { width: 100, height: 100 };
  expect(coveringSpan(bounds.box, output)).toBe(600);
  expect(clampWindow({ centreX: 300, centreY: 150, span: 1e6, turn: 0, mirror: false }, bounds, output).span).toBe(
    2400,
  );
});
