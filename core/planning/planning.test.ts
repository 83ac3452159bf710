import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import { keepNothing, plainSettings } from '../model/index.ts';
import { sampleOriginal, samplePlace } from '../testing/index.ts';
import {
  asStored,
  engineVersion,
  levelDimensions,
  type Orientation,
  type Part,
  planContentArea,
  planFrame,
  planHash,
  RenderPlanSchema,
  readPlan,
  sampling,
  scalePlan,
  sourceMappingOf,
} from './index.ts';

const side = fc.integer({ min: 16, max: 20_000 });
const dimensions = fc.record({ width: side, height: side });
const share = fc.double({ min: 0, max: 1, noNaN: true });

const turn = fc.constantFrom(0, 90, 180, -90, 4.5, -33.3);

const aPlan = fc
  .record({
    original: dimensions,
    output: dimensions,
    x: share,
    y: share,
    span: share,
    png: fc.boolean(),
    turn,
    mirror: fc.boolean(),
    echo: fc.boolean(),
    ring: fc.constantFrom(0, 3, 40),
    stretch: fc.constantFrom(1, 1.7, 0.6),
  })
  .map(({ original, output, x, y, span, png, turn, mirror, echo, ring, stretch }) =>
    planFrame({
      treatment: plainTreatment,
      keeping: keepNothing,
      original: sampleOriginal(original),
      place: samplePlace({ ...output, shape: 'rounded' }),
      settings: {
        window: {
          centreX: x * original.width,
          centreY: y * original.height,
          span: Math.max(1e-3, span * original.width * 2),
          turn,
          mirror,
        },
        ...plainSettings,
        composed: false,
        backing: echo ? { kind: 'echo' } : null,
        ring: ring > 0 ? { width: ring, colour: '#1f6f66', side: 'outside' } : null,
        stretch,
        format: png ? 'png' : 'jpeg',
      },
    }),
  );
const aPart = aPlan.map((plan) => sourceMappingOf(plan).part);

test('what is laid fills the field exactly: part and margins, then turned and cut to the place’s dimensions', () => {
  fc.assert(
    fc.property(aPlan, (plan) => {
      const { part, margins, quarter, tilting } = sourceMappingOf(plan);
      const field = {
        width: part.output.width + margins.left + margins.right,
        height: part.output.height + margins.top + margins.bottom,
      };
      for (const margin of Object.values(margins)) {
        expect(margin).toBeGreaterThanOrEqual(0);
        if (!plan.backing) expect(margin).toBe(0);
      }
      if (!tilting) {
        const onSide = Math.abs(quarter) === 90;
        expect(onSide ? { width: field.height, height: field.width } : field).toEqual(planContentArea(plan).pixels);
        return;
      }
      // The middle of the field comes to the middle of the cut.
      const [[a, b], [c, d]] = tilting.matrix;
      const middle = { x: field.width / 2 + tilting.rim - 0.5, y: field.height / 2 + tilting.rim - 0.5 };
      const size = { width: field.width + 2 * tilting.rim, height: field.height + 2 * tilting.rim };
      const corners = [0, size.width].flatMap((x) => [0, size.height].map((y) => [a * x + b * y, c * x + d * y]));
      const first = [0, 1].map((axis) => Math.round(Math.min(...corners.map((corner) => corner[axis] ?? 0))));
      const at = [a * middle.x + b * middle.y + tilting.shift.x, c * middle.x + d * middle.y + tilting.shift.y];
      expect((at[0] ?? 0) - (first[0] ?? 0) - tilting.cutAt.x).toBeCloseTo(tilting.cut.width / 2 - 0.5, 6);
      expect((at[1] ?? 0) - (first[1] ?? 0) - tilting.cutAt.y).toBeCloseTo(tilting.cut.height / 2 - 0.5, 6);
    }),
  );
});

test('a plan has exactly the dimensions of its place, for any original and window', () => {
  fc.assert(
    fc.property(aPlan, (plan) => {
      expect(RenderPlanSchema.parse(plan)).toEqual(plan);
      const { part } = sourceMappingOf(plan);
      const { whole } = sampling(part, 6);
      if (whole) expect(whole.trim).toMatchObject(part.output);
    }),
  );
});

test('what is cut lies inside its level, and every output pixel where the geometry says', () => {
  fc.assert(
    fc.property(aPart, fc.integer({ min: 1, max: 6 }), (part, levels) => {
      const { level, whole, exact } = sampling(part, levels);
      const bounds = levelDimensions(part.original, level);
      expect(level).toBeLessThan(levels);
      const { cut } = whole ?? exact;
      expect(cut.left).toBeGreaterThanOrEqual(0);
      expect(cut.top).toBeGreaterThanOrEqual(0);
      expect(cut.left + cut.width).toBeLessThanOrEqual(bounds.width);
      expect(cut.top + cut.height).toBeLessThanOrEqual(bounds.height);
      if (whole) {
        const { trim, resampleTo } = whole;
        expect(trim.left + trim.width).toBeLessThanOrEqual(resampleTo.width);
        expect(trim.top + trim.height).toBeLessThanOrEqual(resampleTo.height);
      }
      for (const [length, start, before, after] of [
        ['width', 'left', 'left', 'right'],
        ['height', 'top', 'top', 'bottom'],
      ] as const) {
        const axis = length === 'width' ? 'x' : 'y';
        /** Level pixels to one output pixel, and where the first one begins, from the steps alone. */
        const ratio = whole
          ? (whole.pad[before] + cut[length] + whole.pad[after]) / whole.resampleTo[length]
          : exact.ratio[axis];
        const first = cut[start] + (whole ? whole.trim[start] * ratio - whole.pad[before] : exact.from[axis]);
        const growth = part.original[length] / bounds[length];
        const outputPixel = part.source[length] / part.output[length];
        const [missAtFirst, missAtLast] = [0, part.output[length]].map(
          (at) => ((first + at * ratio) * growth - part.source[start] - at * outputPixel) / outputPixel,
        );
        expect(Math.abs(missAtFirst ?? 1)).toBeLessThan(0.051);
        expect(Math.abs(missAtLast ?? 1)).toBeLessThan(0.051);
      }
    }),
    { numRuns: 300 },
  );
});

test('an image library’s steps do for nearly every part that is scaled down, and seldom need padding', () => {
  const parts = fc
    .sample(aPart, { numRuns: 600, seed: 7 })
    .filter(({ source, output }) => source.width > 1.1 * output.width && source.height > 1.1 * output.height);
  const taken = parts.map((part) => sampling(part, 6).whole);
  expect(parts.length).toBeGreaterThan(20);
  expect(taken.filter(Boolean).length / parts.length).toBeGreaterThan(0.8);
});

test('a level is only used while four thirds of its pixels or more go into an output pixel', () => {
  fc.assert(
    fc.property(aPart, (part) => {
      const { level } = sampling(part, 8);
      if (level > 0)
        expect(part.source.width / 2 ** level / part.output.width).toBeGreaterThanOrEqual((4 / 3) * (1 - 1e-3));
    }),
  );
});

test('the hash depends on the values, not on the order of keys or arithmetic noise', () => {
  const base = {
    treatment: plainTreatment,
    keeping: keepNothing,
    original: sampleOriginal({ width: 6000, height: 4000, hasAlpha: true }),
    place: samplePlace({ width: 1080, height: 1350 }),
    settings: {
      window: { centreX: 3000, centreY: 2000, span: 3000, turn: 0, mirror: false },
      ...plainSettings,
      composed: false,
      format: 'jpeg' as const,
    },
  };
  const plan = planFrame(base);
  const reordered = Object.fromEntries(Object.entries(plan).reverse());
  expect(planHash(RenderPlanSchema.parse(reordered))).toBe(planHash(plan));
  // What is not said is not said, whichever way: JSON leaves it out.
  const unsaid = { ...plan, unsaid: undefined };
  expect(planHash(unsaid)).toBe(planHash(plan));
  expect(readPlan(JSON.parse(JSON.stringify(unsaid)))).toEqual(plan);
  // What another engine planned is never read as one of this engine's, whatever its fields were called.
  expect(readPlan({ ...plan, engine: engineVersion - 1 })).toBeNull();
  expect(readPlan({ engine: 1, image: 'x' })).toBeNull();
  // Nor is what cannot be read at all.
  expect(readPlan({ ...plan, output: null })).toBeNull();
  const noisy = {
    ...base,
    settings: { ...base.settings, window: { ...base.settings.window, centreX: 3000 + 1e-9 } },
  };
  expect(planHash(planFrame(noisy))).toBe(planHash(plan));
  expect(planHash(scalePlan(plan, 0.5))).not.toBe(planHash(plan));
  expect(plan.flatten).toBe('#ffffff');
  expect(plan.encoding.budgetBytes).toBe(7_760_000);
});

test('a part of stored pixels takes as much, from inside, and undoes itself where turning does', () => {
  const inverse: Record<Orientation, Orientation> = { 1: 1, 2: 2, 3: 3, 4: 4, 5: 5, 6: 8, 7: 7, 8: 6 };
  /** How far it reaches past the picture. */
  const shareOf = ({ original: { width, height }, source: { left, top, width: wide, height: high } }: Part) =>
    Math.max(-left, -top, left + wide - width, top + high - height);
  fc.assert(
    fc.property(aPart, fc.constantFrom<Orientation>(1, 2, 3, 4, 5, 6, 7, 8), (part, orientation) => {
      const stored = asStored(part, orientation);
      expect(stored.source.width * stored.source.height).toBeCloseTo(part.source.width * part.source.height, 3);
      expect(shareOf(stored)).toBeCloseTo(shareOf(part), 6);
      const back = asStored(stored, inverse[orientation]);
      expect(back.source.left).toBeCloseTo(part.source.left, 3);
      expect(back.source.top).toBeCloseTo(part.source.top, 3);
      expect(back.output).toEqual(part.output);
    }),
  );
});
