import { describe, expect, test } from 'vitest';
import { plainTreatment } from '../finishing/index.ts';
import { type Aim, type FrameSettings, keepNothing, plainWeighing } from '../model/index.ts';
import { byHand, sampleMark, sampleOriginal, samplePlace } from '../testing/index.ts';
import { similarityFloor, tierFloors, usualAim } from '../weighing/index.ts';
import { plainEncoding, planFrame, planHash, watchedMarks } from './index.ts';

const window = { centreX: 500, centreY: 500, span: 600 };
const kite = sampleMark({ priority: 'should', left: 300, top: 350, width: 200, height: 120 });
const words = { credit: 'Wren Tolley', copyright: '', altText: 'A kite' };
const origin = { position: { latitude: 53.5, longitude: -2.2 }, device: { make: 'Marram' } };
const planOf = (
  settings: Partial<FrameSettings> = {},
  place: Parameters<typeof samplePlace>[0] = {},
  keeping = keepNothing,
  original: Parameters<typeof sampleOriginal>[0] = {},
) =>
  planFrame({
    original: sampleOriginal(original),
    place: samplePlace(place),
    settings: byHand(window, settings),
    treatment: plainTreatment,
    keeping,
  });
const limit = (bytes: number) => ({ limit: { bytes, unit: 'kB' as const } });
const aiming = (aim: Aim) => ({ weighing: { ...plainWeighing, aim } });

describe('what bytes are spent on', () => {
  test('follows from the room that the limit leaves, by the pixels of one file', () => {
    // 300,000 pixels: three bits for each are 112,500 bytes.
    expect(planOf({}, limit(116_000)).encoding.enough).toEqual(tierFloors.flick);
    expect(planOf({}, limit(115_000)).encoding.enough).toBeNull();
    expect(usualAim(1000, { width: 50, height: 40 })).toEqual({ kind: 'no heavier than it needs', level: 'flick' });
    const panels = { group: { kind: 'panels', min: 2, max: 10 } as const, ...limit(116_000) };
    expect(planOf({ grid: { columns: 4, rows: 1 } }, panels).encoding.enough).not.toBeNull();
  });

  test('is what a person has chosen, where one has', () => {
    expect(planOf(aiming({ kind: 'as good as fits' })).encoding.enough).toBeNull();
    const { enough } = planOf(aiming({ kind: 'no heavier than it needs', level: 'glance' }), limit(9000)).encoding;
    expect(enough).toMatchObject({ overall: tierFloors.glance.overall });
  });

  test('levels ask for less and less, and the floor for less than any', () => {
    const asked = [tierFloors.flick, tierFloors.look, tierFloors.glance, similarityFloor];
    for (const [index, one] of asked.slice(1).entries()) {
      const before = asked[index];
      expect(one.overall).toBeLessThan(before?.overall ?? 0);
      expect(one.worst).toBeLessThan(before?.worst ?? 0);
      expect(one.flatAreaError).toBeGreaterThan(before?.flatAreaError ?? 99);
      expect(one.blockError).toBeGreaterThan(before?.blockError ?? 99);
    }
  });
});

test('a quality set by hand bounds the search, and only a person takes the floor away', () => {
  expect(planOf().encoding).toMatchObject({ quality: 95, least: similarityFloor });
  const weighing = { ...plainWeighing, mostQuality: 60, belowFloor: true };
  expect(planOf({ weighing }).encoding).toMatchObject({ quality: 60, least: null });
});

test('a palette is only for PNG', () => {
  const weighing = { ...plainWeighing, colours: 'palette' as const };
  expect(planOf({ weighing }).encoding.colours).toBe('full');
  expect(planOf({ weighing, format: 'png' }).encoding.colours).toBe('palette');
});

test('nothing goes into a file beside its pixels but what the project keeps and the original has', () => {
  const original = { words, origin };
  const nothing = { profile: false, words: null, origin: { position: null, device: null } };
  expect(planOf({}, {}, keepNothing, original).encoding).toMatchObject(nothing);
  const all = { words: true, position: true, device: true, profile: true };
  expect(planOf({}, {}, all, original).encoding).toMatchObject({ profile: true, words, origin });
  expect(planOf({}, {}, all).encoding).toMatchObject({ ...nothing, profile: true });
  const some = planOf({}, {}, { ...keepNothing, device: true }, original).encoding;
  expect(some.origin).toEqual({ position: null, device: origin.device });
});

describe('keep marks that count on their own', () => {
  test('lie in the file where the window shows them, in whole pixels', () => {
    const plan = planOf({}, {}, keepNothing, { marks: [kite] });
    // The window is as wide as the file, 600 px, and begins at 200 and 250 of the original.
    expect(plan.encoding.watched).toEqual([{ left: 100, top: 100, width: 200, height: 120 }]);
    const mirrored = planOf({ window: { ...window, turn: 0, mirror: true } }, {}, keepNothing, { marks: [kite] });
    expect(mirrored.encoding.watched).toEqual([{ left: 300, top: 100, width: 200, height: 120 }]);
  });

  test('are cut off at the edge of the file, and left out where hardly anything of them is in it', () => {
    const original = (left: number) => sampleOriginal({ marks: [{ ...kite, left }] });
    const plan = planOf();
    expect(watchedMarks(original(60), plan)[0]?.rect).toMatchObject({ left: 0, width: 60 });
    expect(watchedMarks(original(6), plan)).toEqual([]);
    const avoided = { ...kite, role: 'avoid' as const };
    expect(watchedMarks(sampleOriginal({ marks: [avoided] }), plan)).toEqual([]);
  });

  test('keep their places under a stretch', () => {
    const [rect] = planOf({ stretch: 2 }, {}, keepNothing, { marks: [kite] }).encoding.watched;
    expect(rect).toMatchObject({ width: 200, height: 60 });
  });
});

test('a page of a file is another picture, and so is another height of a free place', () => {
  expect(planHash(planOf({}, {}, keepNothing, { page: 1 }))).not.toBe(planHash(planOf()));
  const free = { height: { min: 300, max: 900 } };
  expect(planOf({ dimensions: { width: 600, height: 480 } }, free).output).toEqual({ width: 600, height: 480 });
  expect(planOf({ dimensions: { width: 600, height: 4000 } }, free).output).toEqual({ width: 600, height: 900 });
  expect(planOf({ dimensions: { width: 600, height: 480 } }).output).toEqual({ width: 600, height: 500 });
});

test('what is not delivered is encoded as well as can be, with nothing beside its pixels', () => {
  expect(plainEncoding('png')).toMatchObject({
    format: 'png',
    quality: 95,
    enough: null,
    least: null,
    watched: [],
    words: null,
  });
});
