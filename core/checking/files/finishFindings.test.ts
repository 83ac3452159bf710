import { expect, test } from 'vitest';
import { finishById } from '../../finishing/index.ts';
import type { FinishFigures, PictureFigures, Treatment } from '../../model/index.ts';
import { byHand, sampleOriginal, samplePlace } from '../../testing/index.ts';
import { frameFindings } from '../index.ts';

const crisp = finishById('crisp', []).treatment;
const calm: PictureFigures = { acutance: 10, luminance: 120, chroma: 20, shadows: 0, lights: 0, noise: 2 };
const frame = (figures: Partial<FinishFigures>, treatment: Treatment = crisp, values = {}) =>
  frameFindings({
    original: sampleOriginal({ width: 4000, height: 4000 }),
    place: samplePlace(),
    settings: byHand({ centreX: 2000, centreY: 2000, span: 3000 }, values),
    treatment,
    weight: null,
    figures: { plain: calm, finished: { ...calm, acutance: 12.5 }, halo: 0.01, ...figures },
  });

test('a finish that keeps within bounds is no finding, nor is one that has not been measured', () => {
  expect(frame({})).toEqual([]);
  expect(frameFindings({ ...sample(), figures: null })).toEqual([]);
});

test('glowing edges, etched detail, lifted grain and clipped ends are cautions with their numbers', () => {
  expect(frame({ halo: 0.12 })).toMatchObject([
    { kind: 'over-sharpened', measured: '12 %', fix: { change: { blend: 0.2 } } },
  ]);
  expect(frame({ finished: { ...calm, acutance: 26 } })).toMatchObject([{ kind: 'over-sharpened', measured: '2.6' }]);
  const grainy = { ...calm, noise: 4.4 };
  const unblended = { ...crisp, blend: 0 };
  expect(frame({ finished: grainy }, unblended)).toMatchObject([
    { kind: 'noise lifted', measured: 4.4, allowed: 3, fix: { change: { finishId: 'gentle' } } },
  ]);
  expect(frame({ finished: { ...calm, shadows: 0.06 } })).toMatchObject([
    { kind: 'clipped', text: expect.stringContaining('6.0 % of it is black') },
  ]);
});

test('each caution begins just beyond what goes unseen, and tells what was measured', () => {
  const toned: Treatment = { ...crisp, tone: { kind: 'automatic', clip: 0 } };
  const told = (figures: Partial<FinishFigures>, treatment = crisp) =>
    frame(figures, treatment).map(({ measured, allowed }) => [measured, allowed]);
  expect(told({ halo: 0.06 })).toEqual([]);
  expect(told({ halo: 0.0601, finished: { ...calm, acutance: 26 } })).toEqual([['6 %', '6 %']]);
  expect(frame({ halo: 0.12 })[0]?.text).toMatch(/overshoot their surroundings by 12 %/);
  expect(told({ finished: { ...calm, acutance: 20 } })).toEqual([]);
  expect(told({ finished: { ...calm, acutance: 20.1 } })).toEqual([['2.0', 2]]);
  expect(frame({ finished: { ...calm, acutance: 26 } })[0]?.text).toMatch(/2\.6 times the energy/);
  expect(told({ finished: { ...calm, acutance: 26, noise: 9 } }, toned)).toEqual([]);
  expect(told({ plain: { ...calm, acutance: 0 } })).toEqual([]);
  const noises = (plain: number, finished: number) =>
    told({ plain: { ...calm, noise: plain }, finished: { ...calm, noise: finished } });
  expect([noises(0.5, 1.5), noises(2, 3), noises(2, 3.01)]).toEqual([[], [], [[3.01, 3]]]);
  const ends = (shadows: number, lights: number) =>
    frame({ plain: { ...calm, shadows: 0.02, lights: 0.04 }, finished: { ...calm, shadows, lights } });
  expect(told({ finished: { ...calm, shadows: 0.01, lights: 0.01 } })).toEqual([]);
  expect(ends(0.02, 0.09)).toMatchObject([
    { text: expect.stringMatching(/^9\.0 % of it is white: /), measured: '5.0 %' },
  ]);
  expect(ends(0.06, 0.04)).toMatchObject([
    { text: expect.stringMatching(/^6\.0 % of it is black: /), measured: '4.0 %' },
  ]);
  expect(ends(0.06, 0.09)[0]?.text).toMatch(/^6\.0 % of it is black and 9\.0 % of it is white: /);
});

test('what softens is another finish or less of the second pass, whichever is left', () => {
  const fix = (blend: number, finishId: string) =>
    frame({ halo: 0.12 }, { ...crisp, blend }, { finishId })[0]?.fix?.change;
  expect(fix(0.05, 'crisp')).toEqual({ finishId: 'gentle', blend: null });
  expect(fix(0.06, 'crisp')).toEqual({ blend: 0.03 });
  expect(fix(0.06, 'gentle')).toEqual({ blend: 0.03 });
  expect(fix(0.05, 'gentle')).toBeUndefined();
});

test('paper may become white and gain contrast: that is what it is for', () => {
  const scan = finishById('scan', []).treatment;
  expect(frame({ finished: { ...calm, lights: 0.9, acutance: 30, noise: 9 } }, scan)).toEqual([]);
  expect(frame({ finished: { ...calm, shadows: 0.3 } }, scan)).toMatchObject([{ kind: 'clipped' }]);
});

test('a file of more than fifty megapixels stays plain, and says so', () => {
  const place = samplePlace({ width: 20_000, height: 6000 });
  const found = frameFindings({ ...sample(), place });
  const [leftOut] = found.filter(({ kind }) => kind === 'finish left out');
  expect(leftOut).toMatchObject({ text: expect.stringContaining('120 megapixels'), allowed: '50 megapixels' });
  const most = samplePlace({ width: 10_000, height: 5000 });
  expect(frameFindings({ ...sample(), place: most }).some(({ kind }) => kind === 'finish left out')).toBe(false);
});

const sample = () => ({
  original: sampleOriginal({ width: 30_000, height: 12_000 }),
  place: samplePlace(),
  settings: byHand({ centreX: 15_000, centreY: 6000, span: 20_000 }),
  treatment: crisp,
  weight: null,
});
