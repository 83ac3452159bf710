import { expect, test } from 'vitest';
import { finishById } from '../finishing/index.ts';
import { type Border, type FrameSettings, keepNothing, type Treatment } from '../model/index.ts';
import { byHand, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import { markInFile, planContentArea, planFrame, planWithWords, watchedMarks } from './index.ts';

const original = sampleOriginal({ width: 4000, height: 3000, marks: [sampleMark({ left: 1900, top: 1400 })] });
const place = samplePlace({ width: 600, height: 500, shape: 'rounded', limit: { bytes: 100_000, unit: 'kB' } });
const crisp = finishById('crisp', []).treatment;
const border: Border = {
  width: 10,
  colour: '#ffffff',
  side: 'outside',
  edges: { left: true, top: true, right: true, bottom: true },
  round: 'whole',
};
const asked = (values: Partial<FrameSettings>, treatment: Treatment = crisp) => ({
  original,
  place,
  settings: byHand({ centreX: 2000, centreY: 1500, span: 1600 }, values),
  treatment,
  keeping: keepNothing,
});

test('a file in other dimensions shows what the frame shows in those of its place, with everything as large a part of it', () => {
  const ring = { width: 12, colour: '#1f6f66', side: 'inside' as const };
  const { plan, atPlace } = planWithWords(asked({ uploadWidth: 300, ring }));
  expect(atPlace).toEqual(planFrame(asked({ ring })));
  expect([plan.output, atPlace.output]).toEqual([
    { width: 300, height: 250 },
    { width: 600, height: 500 },
  ]);
  expect(plan.window).toEqual(atPlace.window);
  expect(plan.shape?.ring?.width).toBe(6);
  const bordered = {
    ...asked({ uploadWidth: 300 }, { ...crisp, border }),
    place: { ...place, shape: 'rectangle' as const },
  };
  expect(planContentArea(planFrame(bordered)).margins.left).toBe(5);
  const [mark] = original.marks;
  if (!mark) throw new Error('There is no mark.');
  const [small, large] = [markInFile(mark, plan), markInFile(mark, atPlace)];
  for (const side of ['left', 'top', 'width', 'height'] as const) expect(small[side]).toBeCloseTo(large[side] / 2, 6);
  // Regions of the file and what its bytes are enough for are about its own pixels.
  expect(plan.encoding.watched).toEqual(watchedMarks(original, plan).map(({ rect }) => rect));
  expect([plan.encoding.enough, atPlace.encoding.enough].map((floor) => floor === null)).toEqual([false, true]);
  expect(planFrame(asked({ uploadWidth: 600, ring }))).toEqual(atPlace);
});

test('its finish looks the same in it, as far as the original has the pixels for that', () => {
  const finishAt = (uploadWidth: number | null) => planFrame(asked({ uploadWidth })).finish;
  expect(finishAt(null)).toMatchObject({ scale: 1, oversize: 1.5 });
  expect(finishAt(300)).toMatchObject({ scale: 0.5, oversize: 1.5 });
  expect(finishAt(1200)).toMatchObject({ scale: 2, oversize: 1.333 });
  expect(finishAt(1800)).toMatchObject({ scale: 3, oversize: 1 });
});

test('pieces of one picture keep the dimensions of their place', () => {
  const panels = samplePlace({ width: 600, height: 500, group: { kind: 'panels', min: 2, max: 4 } });
  const cut = { ...asked({ uploadWidth: 300, grid: { columns: 2, rows: 1 } }), place: panels };
  expect(planFrame(cut).grid?.piece).toEqual({ width: 600, height: 500 });
});
