import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import type { Rect } from '../geometry/index.ts';
import { type FrameSettings, keepNothing, type Original, type Place, plainSettings } from '../model/index.ts';
import { byHand, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import {
  besideClosing,
  engineVersion,
  fileCount,
  markInFile,
  planContentArea,
  planFrame,
  planHash,
  type RenderPlan,
  RenderPlanSchema,
  readPlan,
  ringPath,
  sampling,
  scalePlan,
  shapePath,
  sourceMappingOf,
  watchedMarks,
} from './index.ts';
import { aPlan } from './testPlans.ts';

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

test('a proof of any dimensions shows what the frame shows, with everything on it as large in proportion', () => {
  fc.assert(
    fc.property(aPlan, fc.double({ min: 0.01, max: 2, noNaN: true }), (plan, factor) => {
      const proof = scalePlan(plan, factor);
      const shown = (one: RenderPlan) => {
        const { window } = planContentArea(one);
        return window.height / window.width;
      };
      expect(shown(proof)).toBeCloseTo(shown(plan), 9);
      expect(proof.output.width).toBe(Math.max(1, Math.round(plan.output.width * factor)));
      expect(proof.output.height).toBe(Math.max(1, Math.round(plan.output.height * factor)));
      expect(proof.window).toEqual(plan.window);
      expect(proof.shape?.ring?.width).toEqual(plan.shape?.ring ? plan.shape.ring.width * factor : undefined);
      expect(proof.shape?.radius).toEqual(plan.shape ? plan.shape.radius * factor : undefined);
      if (plan.shape && !plan.shape.ring) expect(proof.shape?.ring).toBeNull();
    }),
  );
});

const original = sampleOriginal({ width: 4000, height: 2000 });
const planWith = (settings: Partial<FrameSettings>, place: Partial<Place> = {}, of: Partial<Original> = {}) =>
  planFrame({
    treatment: plainTreatment,
    keeping: keepNothing,
    original: { ...original, ...of },
    place: samplePlace(place),
    settings: byHand({ centreX: 2000, centreY: 1000, span: 1200 }, settings),
  });

test('a strip that is closed is drawn as two pictures side by side, the second of the whole original', () => {
  const group = { kind: 'panels', min: 2, max: 10 } as const;
  const closed = { grid: { columns: 3, rows: 1 }, closing: { kind: 'echo' } as const, ring: null };
  const place = { width: 300, height: 400, group };
  const plan = planWith(closed, place);
  expect([plan.output.width, fileCount(plan), plan.closing?.width]).toEqual([1200, 4, 300]);
  // 4000 x 2000 in a panel of 300 x 400: as wide as the panel.
  expect(plan.closing?.window).toMatchObject({ centreX: 2000, centreY: 1000, span: 4000 });
  const { strip, closing } = besideClosing(plan);
  expect(strip).toMatchObject({ output: { width: 900, height: 400 }, closing: null, grid: null, window: plan.window });
  expect(closing).toMatchObject({ output: { width: 300, height: 400 }, backing: { kind: 'echo' } });
  expect(planContentArea(plan).pixels).toEqual({ width: 900, height: 400 });
  // Stretched to half its width the whole picture needs twice the height.
  expect(planWith({ ...closed, stretch: 0.1 }, place).closing?.window.span).toBe(15_000);
  expect(scalePlan(plan, 0.5).closing?.width).toBe(150);
  expect(scalePlan(plan, 0.001)).toMatchObject({ output: { width: 1, height: 1 }, closing: { width: 1 } });
  expect(planWith({ ...closed, closing: null }, place)).toMatchObject({ closing: null, output: { width: 900 } });
  expect(besideClosing(planWith({ ...closed, closing: null }, place)).closing).toBeNull();
  expect(planWith({ closing: { kind: 'echo' } }).closing).toBeNull();
  const block: Place['group'] = { kind: 'block', columns: 2, rows: 3, gap: 0, postingOrder: [0, 1, 2, 3, 4, 5] };
  expect(fileCount(planWith({ grid: { columns: 2, rows: 3 } }, { ...place, group: block }))).toBe(6);
});

test('a shape is laid out where a ring or a cut-out asks for it, and what is clear gets a colour where it must', () => {
  const ring = { width: 20, colour: '#1f6f66', side: 'outside' as const };
  const round = { shape: 'circle', height: 600 } as const;
  const rounded = { shape: 'rounded' } as const;
  expect(planWith({ cutOut: false }, round).shape).toBeNull();
  expect(planWith({ cutOut: true }).shape).toBeNull();
  expect(planWith({ cutOut: true }, round).shape).toEqual({ kind: 'ellipse', radius: 0, ring: null, cutOut: true });
  expect(planWith({ ring }, round).shape).toEqual({ kind: 'ellipse', radius: 0, ring, cutOut: false });
  expect(planWith({ cutOut: true }, rounded).shape).toMatchObject({ kind: 'rounded', radius: expect.any(Number) });
  expect(planWith({ cutOut: true }, rounded).shape?.radius).toBeGreaterThan(10);

  const flatten = (settings: Partial<FrameSettings>, place = {}, hasAlpha = false) =>
    planWith(settings, place, { hasAlpha }).flatten;
  expect(flatten({ format: 'jpeg' })).toBeNull();
  expect(flatten({ format: 'jpeg', flatten: '#123456' })).toBeNull();
  expect(flatten({ format: 'jpeg' }, {}, true)).toBe('#ffffff');
  expect(flatten({ format: 'png' }, {}, true)).toBeNull();
  expect(flatten({ format: 'png', flatten: '#123456' }, {}, true)).toBe('#123456');
  expect(flatten({ format: 'jpeg', cutOut: true }, round)).toBe('#ffffff');
  expect(flatten({ format: 'jpeg', backing: { kind: 'transparent' } })).toBe('#ffffff');
  expect(flatten({ format: 'jpeg', backing: { kind: 'echo' } })).toBeNull();
});

test('a ring leaves at least a pixel of the picture; inside it leaves all of it', () => {
  const area = (width: number, side: 'inside' | 'outside') => {
    const ring = { width, colour: '#1f6f66', side };
    return planContentArea({ ...planWith({}), shape: { kind: 'rounded', radius: 9, ring, cutOut: false } });
  };
  expect(area(20, 'outside')).toMatchObject({ pixels: { width: 560, height: 460 }, margins: { left: 20, bottom: 20 } });
  expect(area(900, 'outside').pixels).toEqual({ width: 102, height: 2 });
  expect(area(20, 'inside')).toMatchObject({ pixels: { width: 600, height: 500 }, margins: { left: 0 } });
});

test('a mark is found in the file where the window and what lies round the picture put it', () => {
  const ring = { width: 50, colour: '#1f6f66', side: 'outside' as const };
  const at = (left: number, top: number, width: number, height: number) => sampleMark({ left, top, width, height });
  // The window is 1200 wide about (2000, 1000); the picture takes 500 of the file's pixels across, from 50 on.
  const round = { shape: 'circle', height: 600 } as const;
  const ringed = planWith({ ring }, round);
  expect(markInFile(at(1400, 400, 240, 120), ringed)).toEqual({ left: 50, top: 50, width: 100, height: 50 });
  // Drawn twice as wide as it is, the window is twice as high as it is wide: from 1500 on, and all of the height.
  const stretched = planWith({ ring, stretch: 2 }, round);
  const found = markInFile(at(1500, 1000, 200, 100), stretched);
  expect(found).toEqual({ left: 50, top: 300, width: 100, height: 25 });
  const of = (rect: Rect) => watchedMarks({ ...original, marks: [sampleMark(rect)] }, ringed).map(({ rect }) => rect);
  expect(of({ left: 1401, top: 401, width: 237, height: 117 })).toEqual([
    { left: 50, top: 50, width: 100, height: 50 },
  ]);
  expect(of({ left: 1400, top: 400, width: 240, height: 19 })).toEqual([{ left: 50, top: 50, width: 100, height: 8 }]);
  expect(of({ left: 1400, top: 400, width: 240, height: 16 })).toEqual([]);
});

test('a shape runs along the edges, inset all round; a ring is what lies between it and the edge', () => {
  const output = { width: 100, height: 60 };
  expect(shapePath({ kind: 'rounded', radius: 20 }, 5, output)).toBe(
    'M20 5H80A15 15 0 0 1 95 20V40A15 15 0 0 1 80 55H20A15 15 0 0 1 5 40V20A15 15 0 0 1 20 5Z',
  );
  expect(shapePath({ kind: 'ellipse', radius: 0 }, 10, output)).toBe(
    'M50 10H50A40 20 0 0 1 90 30V30A40 20 0 0 1 50 50H50A40 20 0 0 1 10 30V30A40 20 0 0 1 50 10Z',
  );
  expect(shapePath({ kind: 'rounded', radius: 3 }, 5, output)).toContain('A0 0 ');
  expect(ringPath({ kind: 'rounded', radius: 20 }, 5, output)).toMatch(/^M0 0H100V60H0Z M20 5H80/);
});
