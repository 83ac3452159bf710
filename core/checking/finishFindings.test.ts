import { expect, test } from 'vitest';
import { finishById } from '../finishing/index.ts';
import type { FinishFigures, PictureFigures, Treatment } from '../model/index.ts';
import { byHand, sampleOriginal, samplePlace } from '../testing/index.ts';
import { frameFindings } from './index.ts';

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

test('paper may become white and gain contrast: that is what it is for', () => {
  const scan = finishById('scan', []).treatment;
  expect(frame({ finished: { ...calm, lights: 0.9, acutance: 30, noise: 9 } }, scan)).toEqual([]);
  expect(frame({ finished: { ...calm, shadows: 0.3 } }, scan)).toMatchObject([{ kind: 'clipped' }]);
});

test('a file of more than fifty megapixels stays plain, and says so', () => {
  const place = samplePlace({ width: 20_000, height: 6000 });
  const found = frameFindings({ ...sample(), place });
  expect(found.find(({ kind }) => kind === 'finish left out')?.text).toContain('120 megapixels');
});

const sample = () => ({
  original: sampleOriginal({ width: 30_000, height: 12_000 }),
  place: samplePlace(),
  settings: byHand({ centreX: 15_000, centreY: 6000, span: 20_000 }),
  treatment: crisp,
  weight: null,
});
