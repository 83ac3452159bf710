import { samplePlace } from '@inkwell/core/testing';
import { expect, test } from 'vitest';
import { draftFrom, emptyDraft, readDraft } from './placeDraft.ts';

const draft = { ...emptyDraft, name: 'Workshop blog header' };
const read = (change: Partial<typeof draft>) => readDraft({ ...draft, ...change }, undefined);

test('sides, a ratio with a long edge, and a free height are honoured to the pixel', () => {
  expect(read({ width: '1237', height: '411' })).toMatchObject({ place: { width: 1237, height: 411 } });
  const ratio = { measure: 'ratio', ratioWidth: '1', ratioHeight: '1.91', longEdge: '1000' } as const;
  expect(read(ratio)).toMatchObject({ place: { width: 524, height: 1000 } });
  const free = { measure: 'free height', width: '8', leastHeight: '8', greatestHeight: '20000' } as const;
  expect(read(free)).toMatchObject({ place: { width: 8, height: { min: 8, max: 20_000 } } });
  expect(read({ limit: '0,3', unit: 'MiB' })).toMatchObject({ place: { limit: { bytes: 314_573, unit: 'MiB' } } });
  expect(read({ shownWidths: '120; 360' })).toMatchObject({ place: { shownWidths: [360, 120] } });
});

test('tiles in any columns and rows have their own order; a free height and pieces exclude each other', () => {
  const tiles = { pieces: 'tiles', columns: '1', rows: '3', gap: '1,5', posting: 'last first' } as const;
  expect(read(tiles)).toMatchObject({
    place: { group: { kind: 'block', columns: 1, rows: 3, gap: 0.015, postingOrder: [2, 1, 0] } },
  });
  expect(read({ pieces: 'panels', mostPanels: '7' })).toMatchObject({ place: { group: { min: 2, max: 7 } } });
  expect(read({ pieces: 'panels', mostPanels: '1' })).toHaveProperty('problems.pieces');
  expect(read({ ...tiles, rows: '2.5' })).toHaveProperty('problems.pieces');
  expect(read({ ...tiles, measure: 'free height' })).toHaveProperty('problems.measure');
});

test('what is wrong is said at its field, all at once', () => {
  const { problems } = read({
    name: ' ',
    width: '7',
    formats: ['webp'],
    limit: '-1',
    shownWidths: '12.5',
    sheet: '',
  }) as { problems: Record<string, string> };
  expect(Object.keys(problems).sort()).toEqual(['formats', 'limit', 'measure', 'name', 'sheet', 'shownWidths']);
  expect(problems.measure).toContain('from 8 to 20,000');
  expect(read({ height: '800.5' })).toHaveProperty('problems.measure');
  expect(read({ measure: 'free height', leastHeight: '900', greatestHeight: '900' })).toHaveProperty(
    'problems.measure',
  );
  expect(read({ measure: 'ratio', ratioHeight: '0' })).toHaveProperty('problems.measure');
});

test('a copy has the numbers of its place, and covered areas grow with its sides', () => {
  const area = { left: 10, top: 20, width: 30, height: 40, shape: 'rectangle' as const, reason: 'controls' };
  const from = samplePlace({ width: 100, height: 200, covered: [area], shownWidths: [90], shape: 'rounded' });
  const { slug: _, ...numbers } = from;
  const copied = { ...draftFrom(from, 'Mine'), width: '200', height: '200' };
  expect(readDraft(copied, undefined)).toMatchObject({
    place: { ...numbers, width: 200, covered: [{ left: 20, top: 20, width: 60, height: 40 }] },
    keptIn: { kind: 'sheet', name: 'Mine' },
  });
});
