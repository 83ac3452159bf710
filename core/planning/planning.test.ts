import fc from 'fast-check';
import { expect, test } from 'vitest';
import { clampWindow } from '../geometry/index.ts';
import {
  asStored,
  levelDimensions,
  type Orientation,
  planFrame,
  planHash,
  RenderPlanSchema,
  sampling,
  scalePlan,
} from './index.ts';

const side = fc.integer({ min: 16, max: 20_000 });
const dimensions = fc.record({ width: side, height: side });
const share = fc.double({ min: 0, max: 1, noNaN: true });

const aPlan = fc
  .record({ original: dimensions, output: dimensions, x: share, y: share, span: share, png: fc.boolean() })
  .map(({ original, output, x, y, span, png }) =>
    planFrame({
      original: { ...original, sha256: 'ab'.repeat(32), hasAlpha: false },
      place: { ...output, limit: { bytes: 8_000_000, unit: 'MB' } },
      settings: {
        window: clampWindow(
          { centreX: x * original.width, centreY: y * original.height, span: span * original.width },
          original,
          output,
        ),
        format: png ? 'png' : 'jpeg',
      },
    }),
  );

test('a plan has exactly the dimensions of its place, for any original and window', () => {
  fc.assert(
    fc.property(aPlan, (plan) => {
      expect(RenderPlanSchema.parse(plan)).toEqual(plan);
      const { resampleTo, trim } = sampling(plan, 6);
      expect(trim ? { width: trim.width, height: trim.height } : resampleTo).toEqual(plan.output);
    }),
  );
});

test('what is cut lies inside its level and meets the window within half an output pixel', () => {
  fc.assert(
    fc.property(aPlan, fc.integer({ min: 1, max: 6 }), (plan, levels) => {
      const { level, cut, resampleTo, trim } = sampling(plan, levels);
      const bounds = levelDimensions(plan.original, level);
      expect(level).toBeLessThan(levels);
      expect(cut.left).toBeGreaterThanOrEqual(0);
      expect(cut.left + cut.width).toBeLessThanOrEqual(bounds.width);
      expect(cut.top + cut.height).toBeLessThanOrEqual(bounds.height);
      // Where the first output pixel's edge falls on the original, from the sampling alone.
      const growth = resampleTo.width / cut.width;
      const left = (cut.left + (trim ? trim.left / growth : 0)) * 2 ** level;
      const outputPixel = plan.source.width / plan.output.width;
      // One pixel more is allowed where the original's edge or a single-pixel cut leaves no choice.
      expect(Math.abs(left - plan.source.left)).toBeLessThanOrEqual(Math.max(outputPixel / 2, 0.5) + 2 ** level);
      if (trim) expect(trim.left + trim.width).toBeLessThanOrEqual(resampleTo.width);
    }),
  );
});

test('a level is only used while two of its pixels or more go into an output pixel', () => {
  fc.assert(
    fc.property(aPlan, (plan) => {
      const { level } = sampling(plan, 8);
      if (level > 0) expect(plan.source.width / 2 ** level / plan.output.width).toBeGreaterThanOrEqual(2 * (1 - 1e-3));
    }),
  );
});

test('the hash depends on the values, not on the order of keys or arithmetic noise', () => {
  const base = {
    original: { sha256: 'cd'.repeat(32), width: 6000, height: 4000, hasAlpha: true },
    place: { width: 1080, height: 1350, limit: { bytes: 8_000_000, unit: 'MB' as const } },
    settings: { window: { centreX: 3000, centreY: 2000, span: 3000 }, format: 'jpeg' as const },
  };
  const plan = planFrame(base);
  const reordered = Object.fromEntries(Object.entries(plan).reverse());
  expect(planHash(RenderPlanSchema.parse(reordered))).toBe(planHash(plan));
  const noisy = {
    ...base,
    settings: { ...base.settings, window: { centreX: 3000 + 1e-9, centreY: 2000, span: 3000 } },
  };
  expect(planHash(planFrame(noisy))).toBe(planHash(plan));
  expect(planHash(scalePlan(plan, 0.5))).not.toBe(planHash(plan));
  expect(plan.flatten).toBe('#ffffff');
  expect(plan.encoding.budgetBytes).toBe(7_760_000);
});

test('a plan for stored pixels takes as much, from inside, and undoes itself where turning does', () => {
  const inverse: Record<Orientation, Orientation> = { 1: 1, 2: 2, 3: 3, 4: 4, 5: 5, 6: 8, 7: 7, 8: 6 };
  fc.assert(
    fc.property(aPlan, fc.constantFrom<Orientation>(1, 2, 3, 4, 5, 6, 7, 8), (plan, orientation) => {
      const stored = asStored(plan, orientation);
      expect(stored.source.width * stored.source.height).toBeCloseTo(plan.source.width * plan.source.height, 3);
      expect(stored.source.left).toBeGreaterThanOrEqual(-0.01);
      expect(stored.source.left + stored.source.width).toBeLessThanOrEqual(stored.original.width + 0.01);
      const back = asStored(stored, inverse[orientation]);
      expect(back.source.left).toBeCloseTo(plan.source.left, 3);
      expect(back.source.top).toBeCloseTo(plan.source.top, 3);
      expect(back.output).toEqual(plan.output);
    }),
  );
});
