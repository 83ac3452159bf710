import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../../finishing/index.ts';
import { frameToOriginal, type Point, turnParts, windowBoundingBox } from '../../geometry/index.ts';
import { keepNothing, plainSettings } from '../../model/index.ts';
import { sampleOriginal, samplePlace } from '../../testing/index.ts';
import { planContentArea, planFrame, type RenderPlan, type SourceMapping, sourceMappingOf } from '../index.ts';
import { aPlan } from '../testPlans.ts';

/** Where a point of the field lies on the original. */
function fieldToOriginal({ part, margins }: SourceMapping, { x, y }: Point): Point {
  const { source, output } = part;
  return {
    x: source.left + ((x - margins.left) * source.width) / output.width,
    y: source.top + ((y - margins.top) * source.height) / output.height,
  };
}

/** Where a share of a frame's content area, 0..1 each way, lies on the original, by the whole steps alone. */
function byStepsToOriginal(mapping: SourceMapping, share: Point): Point {
  const { part, margins, quarter, tilting, mirror } = mapping;
  const field = {
    width: part.output.width + margins.left + margins.right,
    height: part.output.height + margins.top + margins.bottom,
  };
  const across = mirror ? 1 - share.x : share.x;
  if (!tilting) {
    const { x, y } = {
      0: { x: across, y: share.y },
      90: { x: share.y, y: 1 - across },
      180: { x: 1 - across, y: 1 - share.y },
      [-90]: { x: 1 - share.y, y: across },
    }[quarter] ?? { x: 0, y: 0 };
    return fieldToOriginal(mapping, { x: x * field.width, y: y * field.height });
  }
  const { rim, matrix, shift, cutAt, cut } = tilting;
  const [[a, b], [c, d]] = matrix;
  const corners = [0, field.width + 2 * rim].flatMap((x) =>
    [0, field.height + 2 * rim].map((y) => ({ x: a * x + b * y, y: c * x + d * y })),
  );
  // The library's first pixel is that of the turned field's bounding box; pixel numbers are half less than coordinates.
  const turned = {
    x: Math.round(Math.min(...corners.map(({ x }) => x))) + cutAt.x + across * cut.width - 0.5 - shift.x,
    y: Math.round(Math.min(...corners.map(({ y }) => y))) + cutAt.y + share.y * cut.height - 0.5 - shift.y,
  };
  // The matrix turns and nothing more, so that its transpose turns back.
  const back = { x: a * turned.x + c * turned.y, y: b * turned.x + d * turned.y };
  return fieldToOriginal(mapping, { x: back.x + 0.5 - rim, y: back.y + 0.5 - rim });
}

const share = fc.double({ min: 0, max: 1, noNaN: true });

test('the whole steps bring every point of a frame from where its window says, however turned, mirrored and backed', () => {
  fc.assert(
    fc.property(aPlan, share, share, (plan: RenderPlan, x, y) => {
      const mapping = sourceMappingOf(plan);
      const { window, pixels } = planContentArea(plan);
      const there = frameToOriginal(plan.window, window, { x: x * window.width, y: y * window.height });
      const found = byStepsToOriginal(mapping, { x, y });
      // Roundings of a frame of a few pixels come to more than one.
      fc.pre(Math.min(pixels.width, pixels.height) >= 64);
      // A pixel of the frame, as it lies on the original: its longer side.
      const pixel = (plan.window.span / pixels.width) * Math.max(1, plan.stretch);
      expect(Math.abs(found.x - there.x) / pixel).toBeLessThan(1.1);
      expect(Math.abs(found.y - there.y) / pixel).toBeLessThan(1.1);
    }),
    { numRuns: 400 },
  );
});

test('what a backing fills is what the picture leaves, and the picture is drawn to its very edge', () => {
  fc.assert(
    fc.property(aPlan, (plan) => {
      const mapping = sourceMappingOf(plan);
      const { part, margins } = mapping;
      expect(part.within).toEqual(plan.picture);
      for (const margin of Object.values(margins)) {
        expect(margin).toBeGreaterThanOrEqual(0);
        if (!plan.backing) expect(margin).toBe(0);
      }
      expect(Math.min(part.output.width, part.output.height)).toBeGreaterThan(0);
      if (!plan.backing) return;
      const pixel = { x: part.source.width / part.output.width, y: part.source.height / part.output.height };
      const past = {
        left: plan.picture.left - part.source.left,
        top: plan.picture.top - part.source.top,
        right: part.source.left + part.source.width - plan.picture.left - plan.picture.width,
        bottom: part.source.top + part.source.height - plan.picture.top - plan.picture.height,
      };
      for (const side of ['left', 'top', 'right', 'bottom'] as const) {
        const beyond = past[side] / (side === 'left' || side === 'right' ? pixel.x : pixel.y);
        expect(beyond).toBeLessThan(1.01);
        if (margins[side] > 0) expect(beyond).toBeGreaterThan(-1.01);
      }
    }),
  );
});

test('a picture narrower than half a pixel of its frame takes the pixel that holds its middle', () => {
  const plan = planFrame({
    treatment: plainTreatment,
    keeping: keepNothing,
    original: sampleOriginal({ width: 16, height: 1600 }),
    place: samplePlace({ width: 101, height: 100 }),
    settings: {
      ...plainSettings,
      composed: false,
      // A pixel of the frame is 40 of the original, and the middle of the picture lies in the last third of pixel 50.
      window: { centreX: -2, centreY: 800, span: 4040, turn: 0, mirror: false },
      backing: { kind: 'echo' },
      format: 'jpeg',
    },
  });
  const { part, margins } = sourceMappingOf(plan);
  expect({ left: margins.left, width: part.output.width, right: margins.right }).toEqual({
    left: 50,
    width: 1,
    right: 50,
  });
});

test('a tilted picture is turned at up to twice its dimensions, where the original has the pixels', () => {
  fc.assert(
    fc.property(aPlan, (plan) => {
      const { tilting, quarter, part, margins } = sourceMappingOf(plan);
      const field = {
        width: part.output.width + margins.left + margins.right,
        height: part.output.height + margins.top + margins.bottom,
      };
      const parts = turnParts(plan.window.turn);
      expect(tilting === null).toBe(parts.tilt === 0);
      const { window, pixels } = planContentArea(plan);
      if (!tilting) {
        expect(quarter).toBe(parts.quarter);
        const onSide = parts.quarter === 90 || parts.quarter === -90;
        expect(field).toEqual(onSide ? { width: pixels.height, height: pixels.width } : pixels);
        return;
      }
      const scale = tilting.cut.width / plan.window.span;
      const around = windowBoundingBox(plan.window, window);
      expect(field.width).toBe(Math.max(1, Math.round(around.width * scale)));
      expect(field.height).toBe(Math.max(1, Math.round(around.height * scale)));
      const times = Math.min(2, Math.max(1, plan.window.span / window.width));
      expect(tilting.cut.width).toBe(Math.max(1, Math.round(window.width * times)));
      expect(tilting.cut.height).toBe(Math.max(1, Math.round(window.height * times)));
      for (const shift of Object.values(tilting.shift)) expect(Math.floor(shift)).toBe(0);
    }),
  );
});
