import { expect, test } from 'vitest';
import { sampleWeight } from '../testing/index.ts';
import {
  basisOf,
  carriesTransparency,
  isAllMeasured,
  isLossless,
  isMust,
  isSettled,
  MarkSchema,
  ToneSchema,
} from './index.ts';

const weight = sampleWeight();
const plain = { acutance: 1, luminance: 1, chroma: 1, shadows: 0, lights: 0, noise: 0 };
const figures = { plain, finished: plain, halo: 0 };
const all = { weight, detail: [], legibility: [], isFinished: true, figures };

test('a frame is measured once everything is known that it has; it is settled as well where it never will be', () => {
  expect(isAllMeasured(all)).toBe(true);
  expect(isAllMeasured({ ...all, isFinished: false, figures: null })).toBe(true);
  for (const missing of [{ weight: null }, { detail: null }, { legibility: null }, { figures: null }]) {
    expect(isAllMeasured({ ...all, ...missing })).toBe(false);
    const measured = { ...all, frameId: 'a', planHash: 'b', plainHash: 'c', basis: '', ...missing };
    expect(isSettled({ ...measured, failure: 'The picture could not be read.' })).toBe(true);
    expect(isSettled({ ...measured, failure: null })).toBe(false);
  }
  expect(isSettled({ ...all, frameId: 'a', planHash: 'b', plainHash: 'c', basis: '', failure: null })).toBe(true);
});

test('what a plan is made from is another with every version', () => {
  const from = {
    frame: { version: 1 },
    original: { version: 2 },
    project: { version: 3 },
    finish: { id: 'crisp', version: 4 },
    place: { own: { version: 5 } },
    seen: null,
  };
  const names = [
    from,
    { ...from, frame: { version: 9 } },
    { ...from, original: { version: 9 } },
    { ...from, project: { version: 9 } },
    { ...from, finish: { id: 'scan', version: 4 } },
    { ...from, finish: { id: 'crisp', version: 9 } },
    { ...from, place: { own: { version: 9 } } },
    { ...from, place: {} },
    { ...from, seen: { version: 9 } },
  ].map(basisOf);
  expect(new Set(names).size).toBe(names.length);
});

test('a format, a mark and a tone are what they say', () => {
  const formats = ['jpeg', 'png', 'webp', 'avif'] as const;
  expect(formats.filter(isLossless)).toEqual(['png']);
  expect(formats.filter(carriesTransparency)).toEqual(['png', 'webp', 'avif']);
  const rect = { left: 0, top: 0, width: 9, height: 9 };
  const mark = { ...rect, id: '00000000-0000-4000-8000-000000000001', name: 'A kite', shape: 'rectangle' };
  const marks = [{ role: 'keep' }, { role: 'keep', priority: 'should' }, { role: 'avoid', priority: 'must' }];
  expect(marks.map((values) => isMust(MarkSchema.parse({ ...mark, ...values })))).toEqual([true, false, false]);
  const tone = (black: number, white: number) =>
    ToneSchema.safeParse({ kind: 'by hand', black, white, midtones: 1 }).success;
  expect([tone(10, 12), tone(10, 11), tone(12, 10)]).toEqual([true, false, false]);
});
