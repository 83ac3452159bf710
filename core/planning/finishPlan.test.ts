import { expect, test } from 'vitest';
import { finishById, plainTreatment } from '../finishing/index.ts';
import { type Border, keepNothing, type Treatment } from '../model/index.ts';
import { byHand, sampleOriginal, samplePlace } from '../testing/index.ts';
import { enlargedPlan, planContentArea, planFrame, planHash, scalePlan } from './index.ts';

const crisp = finishById('crisp', []).treatment;
const original = sampleOriginal({ width: 4000, height: 3000 });
const planOf = (treatment: Treatment, span = 3000, place = samplePlace(), values = {}) =>
  planFrame({
    original,
    place,
    settings: byHand({ centreX: 2000, centreY: 1500, span }, values),
    treatment,
    keeping: keepNothing,
  });

test('a treatment that changes nothing leaves the plan as it was without one', () => {
  const idle = { ...crisp, sharpen: { ...crisp.sharpen, amount: 0 }, blend: 0 };
  expect(planHash(planOf(idle))).toBe(planHash(planOf(plainTreatment)));
  expect(planHash(planOf(crisp))).not.toBe(planHash(planOf({ ...crisp, blend: 0.41 })));
});

test('a picture is sharpened at no more than the original has the pixels for', () => {
  expect(planOf(crisp).finish?.oversize).toBe(crisp.oversize);
  expect(planOf(crisp, 720).finish?.oversize).toBe(1.2);
  expect(planOf(crisp, 500).finish?.oversize).toBe(1);
  expect(enlargedPlan(planOf(crisp, 720))?.output).toEqual({ width: 720, height: 600 });
  expect(enlargedPlan(planOf(crisp, 500))).toBeNull();
  expect([630, 629].map((span) => enlargedPlan(planOf(crisp, span))?.output.width)).toEqual([630, undefined]);
  expect(enlargedPlan(planOf(plainTreatment))).toBeNull();
});

test('a large file is sharpened as far as it fits into memory, and one that is too large not at all', () => {
  const of = (width: number, height: number) =>
    planFrame({
      original: { ...original, width: 40_000, height: 30_000 },
      place: samplePlace({ width, height }),
      settings: byHand({ centreX: 20_000, centreY: 15_000, span: 24_000 }),
      treatment: { ...crisp, oversize: 2 },
      keeping: keepNothing,
    }).finish;
  expect(of(8000, 5000)?.oversize).toBeCloseTo(Math.sqrt(60 / 40), 3);
  expect(of(10_000, 5000)?.oversize).toBeCloseTo(Math.sqrt(60 / 50), 3);
  expect(of(10_000, 5001)).toBeNull();
});

test('a border outside takes its width from the picture on the edges that it is on, and a proof takes its share', () => {
  const border: Border = {
    width: 10,
    colour: '#ffffff',
    side: 'outside',
    edges: { left: true, top: false, right: true, bottom: false },
    round: 'whole',
  };
  const plan = planOf({ ...plainTreatment, border });
  expect(plan.output).toEqual({ width: 600, height: 500 });
  expect(planContentArea(plan)).toMatchObject({ pixels: { width: 580, height: 500 }, margins: { left: 10, top: 0 } });
  const proof = scalePlan({ ...plan, finish: planOf(crisp).finish }, 0.5);
  expect(planContentArea(proof).margins).toEqual({ left: 5, top: 0, right: 5, bottom: 0 });
  expect(proof.finish?.scale).toBe(0.5);
  expect(planContentArea(planOf({ ...plainTreatment, border: { ...border, side: 'inside' } })).pixels.width).toBe(600);
  // A round frame has a ring instead.
  expect(planOf({ ...plainTreatment, border }, 3000, samplePlace({ shape: 'circle' })).border).toBeNull();
});

test('of a strip a border goes round the whole, or round every panel, which then stay as wide as they are', () => {
  const place = samplePlace({ width: 300, height: 400, group: { kind: 'panels', min: 2, max: 10 } });
  const border = {
    width: 8,
    colour: '#000000',
    side: 'outside',
    edges: { left: true, top: true, right: true, bottom: true },
  } as const;
  const strip = (round: Border['round']) =>
    planOf({ ...plainTreatment, border: { ...border, round } }, 3000, place, { grid: { columns: 3, rows: 1 } });
  expect(planContentArea(strip('whole')).pixels).toEqual({ width: 884, height: 384 });
  expect(strip('whole').border?.around).toHaveLength(1);
  expect(planContentArea(strip('pieces')).pixels).toEqual({ width: 900, height: 400 });
  expect(strip('pieces').border?.around.map(({ left }) => left)).toEqual([0, 300, 600]);
  expect(scalePlan(strip('pieces'), 0.5).border?.around[1]).toEqual({ left: 150, top: 0, width: 150, height: 200 });
});
