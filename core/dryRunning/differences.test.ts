import { expect, test } from 'vitest';
import type { DryRunOutcome, ManifestFile, NetworkRefusal, Place, SheetFinding, SpecSheet } from '../model/index.ts';
import { emptySheet, standInNotice } from '../model/index.ts';
import { sampleAfterUpload, samplePlace } from '../testing/index.ts';
import { differences, gapBetween, hardToRead, refusedFile, withMeasured } from './index.ts';

const place: Place = {
  ...samplePlace({ width: 1080, height: 1350, formats: ['jpeg', 'png'] }),
  limit: { bytes: 5_000_000, unit: 'MB' },
};
const after = sampleAfterUpload;
const line: ManifestFile = {
  file: 'a.png',
  original: 'Dunes',
  originalSha256: 'x',
  network: 'Sunpane',
  place: 'Portrait post',
  placeThen: { id: 'sunpane/portrait-post', sheet: { slug: 'sunpane', checkedOn: '2026-11-02' }, spec: place },
  width: 1080,
  height: 1350,
  bytes: 4_820_000,
  sha256: 'x',
  format: 'png',
  quality: null,
  chroma: null,
  colours: null,
  limitBytes: 5_000_000,
  limitUnit: 'MB',
  window: { left: 0, top: 0, width: 1, height: 1, turn: 0, mirror: false },
  planHash: 'p',
};
const refusal = (error: Partial<NetworkRefusal['error']>): NetworkRefusal => ({
  standIn: true,
  notice: standInNotice,
  error: { code: 'broken', message: 'No.', ...error },
});
const refused = (error: Partial<NetworkRefusal['error']>): DryRunOutcome => ({
  state: 'refused',
  refusal: refusedFile(refusal(error), line),
});
const shown = (
  kept: {
    width: number;
    height: number;
    format?: 'jpeg' | 'webp';
    quality?: number | null;
    chroma?: '4:4:4' | '4:2:0' | null;
  },
  lost = 0,
): DryRunOutcome => ({
  state: 'shown',
  back: {
    kept: { bytes: 1, format: 'jpeg', quality: 76, chroma: '4:2:0', sha256: 'k', ...kept },
    lost: { left: lost, right: lost, top: 0, bottom: 0 },
    cut: [],
    shown: [],
    seams: [],
    gap: null,
  },
});
const found = (outcome: DryRunOutcome, book = { place, after }) =>
  differences(line, outcome, book).map(({ of, change, said, measured }) => ({ of, ...change, said, measured }));

test('a refusal is a difference where the spec book would have taken the file, and says what to do', () => {
  expect(found(refused({ code: 'too heavy', limitBytes: 4_800_000 }))).toEqual([
    { of: 'place', field: 'limit', limit: { bytes: 4_800_000, unit: 'MB' }, said: '5 MB', measured: '4.8 MB' },
  ]);
  expect(refusedFile(refusal({ code: 'too heavy', limitBytes: 4_800_000 }), line)).toMatchObject({
    isNews: true,
    rule: 'the weight',
    fix: expect.stringContaining('says 5 MB, the network takes 4.80 MB'),
  });
  // The book knew it; the network does not tell its limit; it is another network's business.
  expect(
    found(refused({ code: 'too heavy', limitBytes: 4_800_000 }), {
      place: { ...place, limit: { bytes: 4_800_000, unit: 'MB' } },
      after,
    }),
  ).toEqual([]);
  expect(found(refused({ code: 'too heavy' }))).toEqual([]);
  expect(found(refused({ code: 'format' }))).toMatchObject([
    { field: 'formats', formats: ['jpeg'], said: 'JPEG, PNG', measured: 'JPEG' },
  ]);
  expect(found(refused({ code: 'wrong token' }))).toEqual([]);
  const strip = { ...place, group: { kind: 'panels' as const, min: 2, max: 20 } };
  expect(found(refused({ code: 'too many files', mostFiles: 12 }), { place: strip, after })).toMatchObject([
    { field: 'most panels', most: 12, measured: 'up to 12 panels' },
  ]);
});

test('what came back says what the place and the network really do', () => {
  expect(found(shown({ width: 864, height: 1080 }))).toEqual([]);
  expect(found(shown({ width: 810, height: 1080 }, 34))).toMatchObject([
    { of: 'place', field: 'height', height: 1440, said: '1080 × 1350 px', measured: '1080 × 1440 px' },
  ]);
  expect(found(shown({ width: 810, height: 1012 }))).toMatchObject([
    { of: 'network', field: 'long edge', longEdge: 1012, said: '1080 px', measured: '1012 px' },
  ]);
  // Not scaled at all: the network takes at least so many pixels.
  expect(found(shown({ width: 1080, height: 1350 }))).toMatchObject([
    { field: 'long edge', longEdge: 1350, measured: 'at least 1350 px' },
  ]);
  expect(found(shown({ width: 864, height: 1080, format: 'webp', quality: null, chroma: null }))).toMatchObject([
    { of: 'network', field: 'encoding', format: 'webp', quality: 76, said: 'JPEG 76, 4:2:0', measured: 'WebP' },
  ]);
  expect(found(shown({ width: 864, height: 1080, quality: 60 }))).toMatchObject([
    { field: 'encoding', quality: 60, measured: 'JPEG 60, 4:2:0' },
  ]);
  expect(differences(line, shown({ width: 10, height: 10 }), { place, after: undefined })).toEqual([]);
  const block = { ...place, group: { kind: 'block' as const, columns: 2, rows: 1, gap: 0.015, postingOrder: [0, 1] } };
  const gapped = (gap: number): DryRunOutcome => {
    const outcome = shown({ width: 864, height: 1080 });
    const tile = {
      shownWidth: 506,
      width: 250,
      height: 100,
      bytes: 1,
      format: 'jpeg' as const,
      sha256: 't',
      screen: null,
    };
    const figures = {
      similarity: 99,
      worst: { left: 0, top: 0, width: 9, height: 9, similarity: 99 },
      colourShift: { mean: 0, most: 0 },
      halo: 0,
      words: [],
    };
    return outcome.state === 'shown'
      ? { state: 'shown', back: { ...outcome.back, gap, shown: [{ ...tile, ...figures }] } }
      : outcome;
  };
  expect(found(gapped(gapBetween(506, 250, 2) ?? 0), { place: block, after })).toMatchObject([
    { of: 'place', field: 'gap', gap: 0.024, said: 'gaps of 1.5 % of a tile', measured: 'gaps of 2.4 % of a tile' },
  ]);
  expect(found(gapped(0.016), { place: block, after })).toEqual([]);
  expect(gapBetween(360, 360, 1)).toBeNull();
  expect(differences(line, { state: 'not reached', why: '' }, { place, after })).toEqual([]);
});

test('what is taken over stands in the sheet, with when it was measured; what is not does not', () => {
  const sheet: SpecSheet = {
    slug: 'sunpane',
    ...emptySheet('Sunpane', '2026-11-02'),
    afterUpload: after,
    places: [{ ...place, slug: 'portrait-post' }],
  };
  const finding = (change: SheetFinding['change'], more: Partial<SheetFinding> = {}): SheetFinding => ({
    id: '00000000-0000-4000-8000-000000000001',
    network: 'sunpane',
    place: 'portrait-post',
    change,
    said: '',
    measured: '',
    measuredOn: '2026-11-28',
    dryRunId: null,
    state: 'taken over',
    taken: change,
    version: 2,
    ...more,
  });
  const height = finding({ field: 'height', height: 1440 });
  const longEdge = finding({ field: 'long edge', longEdge: 1012 }, { place: null });
  const [changed] = withMeasured(
    [sheet],
    [height, longEdge, finding({ field: 'limit', limit: { bytes: 1, unit: 'kB' } }, { state: 'open', taken: null })],
  );
  expect(changed).toMatchObject({
    afterUpload: { longEdge: 1012, quality: 76 },
    places: [{ height: 1440, limit: { bytes: 5_000_000 }, measured: { on: '2026-11-28', version: 4 } }],
  });
  expect(withMeasured([sheet], [{ ...height, network: 'elsewhere' }])[0]).toBe(sheet);
  // Newly measured otherwise, what was taken over stays until somebody has looked.
  expect(
    withMeasured([sheet], [{ ...height, state: 'open', change: { field: 'height', height: 1500 } }])[0]?.places[0],
  ).toMatchObject({ height: 1440 });
  // What would be no place leaves it as it is.
  const absurd = finding({ field: 'height', height: 20_000 });
  const vast = { ...sheet, places: [{ ...place, slug: 'portrait-post', width: 20_000, height: 1000 }] };
  expect(withMeasured([vast], [absurd])[0]?.places[0]).toMatchObject({ height: 1000 });
});

test('words are lost where they could be read as delivered and cannot as shown', () => {
  const words = (delivered: number, shownAs: number) => ({ text: 'Kites', delivered, shown: shownAs, least: 4.5 });
  expect(hardToRead([words(9, 8), words(9, 4), words(4, 3)])).toEqual([words(9, 4)]);
});
