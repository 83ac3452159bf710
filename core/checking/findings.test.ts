import { expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import { largestWindow, wholeOf } from '../geometry/index.ts';
import type { Window } from '../model/index.ts';
import { type EncodedFile, type KeepMark, plainSettings } from '../model/index.ts';
import { samplePlace, sampleWeight } from '../testing/index.ts';
import { fileReasons, frameFindings as findingsOf } from './index.ts';

type PlainFrame = Omit<Parameters<typeof findingsOf>[0], 'treatment'>;
const frameFindings = (frame: PlainFrame, window?: Window) =>
  findingsOf({ ...frame, treatment: plainTreatment }, window);

const place = samplePlace({
  name: 'Clip cover',
  purpose: 'cover',
  width: 1080,
  height: 1920,
  formats: ['jpeg', 'webp'],
  limit: { bytes: 3_145_728, unit: 'MiB' },
});
const original = { width: 3000, height: 4000, hasAlpha: false, trim: null, marks: [] };
const settings = {
  ...plainSettings,
  window: largestWindow(wholeOf(original), { width: 1080, height: 1920 }),
  composed: false,
  format: 'jpeg' as const,
};
const weight = sampleWeight();
const kinds = (frame: PlainFrame) => frameFindings(frame).map((one) => `${one.level}: ${one.kind}`);

test('a good frame has no findings, measured or not', () => {
  expect(frameFindings({ original, place, settings, weight })).toEqual([]);
  expect(frameFindings({ original, place, settings, weight: null })).toEqual([]);
});

test('an enlarged frame is loosened to 1x by its fix where the original reaches', () => {
  const tight = { ...settings, window: { ...settings.window, span: 500 } };
  const [finding] = frameFindings({ original, place, settings: tight, weight });
  expect(finding).toMatchObject({ kind: 'enlarged', level: 'caution', measured: 2.16, allowed: 1 });
  const fixed = { ...tight, ...finding?.fix?.change };
  expect(frameFindings({ original, place, settings: fixed, weight })).toEqual([]);

  const small = { ...original, width: 500, height: 600 };
  const largest = { ...settings, window: largestWindow(wholeOf(small), { width: 1080, height: 1920 }) };
  const [stuck] = frameFindings({ original: small, place, settings: largest, weight });
  expect(stuck?.kind).toBe('enlarged');
  expect(stuck?.fix).toBeUndefined();
});

test('weight, format and transparency are told with numbers, blockers first', () => {
  const heavy = sampleWeight({ format: 'png', quality: null, bytes: 3_250_586, fits: false });
  const png = { ...settings, format: 'png' as const };
  const found = frameFindings({ original, place, settings: png, weight: heavy });
  expect(found.map((one) => one.kind)).toEqual(['format', 'too heavy']);
  expect(found[0]?.text).toContain('It takes JPEG, WebP');
  expect(found[1]).toMatchObject({ measured: '3.10 MiB', allowed: '3 MiB', fix: { change: { format: 'jpeg' } } });
  const seen = sampleWeight({ quality: 41 }, { overall: 94.1 });
  expect(kinds({ original, place, settings, weight: seen })).toEqual(['caution: low quality']);
  const face = sampleWeight({ quality: 41 }, { overall: 97.5, regions: [93.2] });
  expect(kinds({ original, place, settings, weight: face })).toEqual(['caution: low quality']);
  const spot = { left: 40, top: 8, width: 64, height: 64, similarity: 80.5 };
  expect(kinds({ original, place, settings, weight: sampleWeight({}, { worst: spot }) })).toEqual([
    'caution: ruined spot',
  ]);
  expect(kinds({ original, place, settings, weight: sampleWeight({}, { blockError: 18 }) })).toEqual([
    'caution: ruined spot',
  ]);
  expect(kinds({ original: { ...original, hasAlpha: true }, place, settings, weight })).toEqual([
    'caution: transparency',
  ]);
});

test('covered and hidden parts count only where they reach the middle of the frame', () => {
  const bottom = (top: number) => ({
    left: 0,
    top,
    width: 1080,
    height: 1920 - top,
    shape: 'rectangle' as const,
    reason: 'controls',
  });
  expect(kinds({ original, place: { ...place, covered: [bottom(1600)] }, settings, weight })).toEqual([]);
  const [finding] = frameFindings({ original, place: { ...place, covered: [bottom(1280)] }, settings, weight });
  expect(finding).toMatchObject({ kind: 'covered middle', measured: '25 %' });
  const shownPart = { left: 0, top: 320, width: 1080, height: 640, shape: 'rectangle' as const, reason: 'lists' };
  expect(frameFindings({ original, place: { ...place, shownPart }, settings, weight })[0]).toMatchObject({
    kind: 'hidden middle',
    measured: '50 %',
  });
});

test('a finished file is refused for its dimensions, its format and its bytes, each in words', () => {
  const demand = {
    dimensions: { width: 800, height: 800 },
    format: 'jpeg' as const,
    limit: place.limit,
    budgetBytes: 3_051_356,
    least: { overall: 92, worst: 72, flatAreaError: 9, blockError: 30 },
  };
  const { similarity } = sampleWeight().files[0] as EncodedFile;
  const ruined = { ...similarity, overall: 99, regions: [91.5] };
  expect(fileReasons({ width: 800, height: 800, format: 'jpeg', bytes: 3_051_356, similarity }, demand)).toEqual([]);
  const reasons = fileReasons({ width: 800, height: 796, format: 'png', bytes: 3_051_357, similarity: ruined }, demand);
  expect(reasons).toHaveLength(4);
  expect(reasons[0]).toContain('800 × 796');
  expect(reasons[2]).toContain('3,051,357');
});

test('a mark that a moved frame cuts is told with its pixels; composing again is the fix where it helps', () => {
  const mark = {
    id: '00000000-0000-4000-8000-000000000001',
    name: 'The kite',
    role: 'keep' as const,
    priority: 'must' as const,
    kind: null,
    look: null,
    shape: 'rectangle' as const,
    left: 100,
    top: 1000,
    width: 600,
    height: 600,
  };
  const marked = { ...original, marks: [mark] };
  const moved = { ...settings, window: { ...settings.window, centreX: 1800 } };
  const [finding] = frameFindings({ original: marked, place, settings: moved, weight });
  // The window is 2250 wide and begins at 675; the mark begins at 100: 575 of its pixels are out, times 1080 / 2250.
  expect(finding).toMatchObject({ kind: 'mark cut', level: 'caution', measured: 276, fix: { label: 'Compose again' } });
  expect(finding?.text).toBe('The kite is cut: the frame is 276 px too narrow for it.');
  const fixed = { ...moved, ...finding?.fix?.change };
  expect(frameFindings({ original: marked, place, settings: fixed, weight })).toEqual([]);

  const wide = { ...original, marks: [{ ...mark, left: 10, width: 2980 }] };
  const composed = { ...settings, composed: true };
  const [cut] = frameFindings({ original: wide, place, settings: composed, weight });
  expect(cut?.fix?.label).toBe('Show all of it on an echo');
  expect(frameFindings({ original: wide, place, settings: { ...composed, ...cut?.fix?.change }, weight })).toEqual([]);
});

const must = (values: Partial<KeepMark>): KeepMark => ({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'The face',
  role: 'keep',
  priority: 'must',
  kind: 'face',
  look: null,
  shape: 'rectangle',
  left: 1300,
  top: 1300,
  width: 400,
  height: 400,
  ...values,
});

test('a mark under a covered area is shifted out of it, at the same scale', () => {
  const area = { left: 0, top: 0, width: 1080, height: 600, shape: 'rectangle' as const, reason: 'controls' };
  const covering = { ...place, covered: [area] };
  const marked = { ...original, marks: [must({ top: 1400 })] };
  const tight = { ...settings, window: { ...settings.window, span: 1500, centreY: 2400 } };
  const found = frameFindings({ original: marked, place: covering, settings: tight, weight });
  const covered = found.find((one) => one.kind === 'mark covered');
  expect(covered).toMatchObject({ fix: { label: 'Shift it', change: { composed: false, window: { span: 1500 } } } });
  const fixed = { ...tight, ...covered?.fix?.change };
  expect(kinds({ original: marked, place: covering, settings: fixed, weight })).not.toContain('caution: mark covered');
});

test('a stretch is told until it is undone; a ring over a mark is laid outside', () => {
  const stretched = { ...settings, stretch: 1.78 };
  const [stretch] = frameFindings({ original, place, settings: stretched, weight });
  expect(stretch).toMatchObject({ kind: 'stretched', text: expect.stringContaining('78 % wider') });
  expect(frameFindings({ original, place, settings: { ...stretched, ...stretch?.fix?.change }, weight })).toEqual([]);

  const round = { ...place, width: 400, height: 400, shape: 'circle' as const };
  const ring = { width: 40, colour: '#1f6f66', side: 'inside' as const };
  const window = { ...settings.window, centreX: 1500, centreY: 1500, span: 600 };
  const ringed = { ...settings, window, ring };
  const marked = { original: { ...original, marks: [must({ width: 400, height: 400 })] }, place: round, weight };
  const cut = frameFindings({ ...marked, settings: ringed }).find((one) => one.kind === 'mark cut');
  expect(cut).toMatchObject({ text: 'The face lies under the ring.', fix: { label: 'Lay the ring outside' } });
  expect(kinds({ ...marked, settings: { ...ringed, ...cut?.fix?.change } })).not.toContain('caution: mark cut');
});

test('a cut out frame needs a format with transparency, or a colour', () => {
  const round = { ...place, formats: ['jpeg' as const, 'png' as const], shape: 'circle' as const };
  const cutOut = { ...settings, cutOut: true };
  const of = (change: object) => kinds({ original, place: round, settings: { ...cutOut, ...change }, weight });
  expect(of({})).toEqual(['blocker: transparency']);
  expect(of({ format: 'png' })).toEqual([]);
  expect(of({ flatten: '#ffffff' })).toEqual([]);
  expect(kinds({ original, place, settings: cutOut, weight })).toEqual([]);
});

test('detail that is lost where the frame is shown names its mark; tightening makes the mark large', () => {
  const face = must({});
  const at = { ...place, width: 400, height: 400, shownWidths: [96, 40] };
  const frame = {
    original: { ...original, marks: [face] },
    place: at,
    settings: { ...settings, window: { ...settings.window, centreX: 1500, centreY: 1500, span: 2400 } },
    weight,
  };
  const detail = [96, 40].map((shownWidth) => ({ markId: face.id, shownWidth, kept: shownWidth / 240 - 0.01 }));
  const [lost, ...others] = frameFindings({ ...frame, detail });
  expect(others).toEqual([]);
  expect(lost).toMatchObject({ kind: 'detail lost', measured: '39 %', allowed: '40 %' });
  expect(lost?.text).toBe(
    'Shown 96 px wide, The face keeps 39 % of its detail (and less at 40 px): tighten the frame on it.',
  );
  expect(lost?.fix?.change.window?.span).toBeCloseTo(400 / 0.66, 3);
  expect(frameFindings({ ...frame, detail: detail.map((one) => ({ ...one, kept: 0.41 })) })).toEqual([]);
});
