import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Place, PlaceSchema, plainSettings, type TriedUpload, type UploadChoice } from '../model/index.ts';
import { sampleAfterUpload, samplePlace, sampleWeight } from '../testing/index.ts';
import {
  bestOf,
  changeFor,
  choiceOf,
  isRescaled,
  isSetAs,
  isWorthIt,
  mostGained,
  notUploaded,
  qualities,
  scoreOf,
  searchSurvival,
  uploadWidths,
} from './index.ts';

const jpeg: UploadChoice = { width: null, format: 'jpeg', quality: 90, chroma: '4:2:0', strength: 1 };
const tried = (score: number, bytes: number, choice: UploadChoice = jpeg): TriedUpload => ({
  choice,
  left: [{ shownWidth: null, similarity: score, worst: score }],
  bytes,
  isRescaled: false,
});

test('a way is judged by the mean over all widths, and by its worst spot as much as by all of it', () => {
  const left = [
    { shownWidth: null, similarity: 98, worst: 90 },
    { shownWidth: 360, similarity: 99, worst: 97 },
  ];
  expect(scoreOf({ left })).toBe(96);
  const best = {
    ...tried(0, 10),
    left: left.map((one) => ({ ...one, worst: one.worst + (one.shownWidth ? 0.5 : 2) })),
  };
  expect(mostGained({ asSet: { ...tried(0, 10), left }, best })).toEqual({ before: left[0], after: best.left[0] });
});

test('of those that leave as much as the best the lightest is chosen; a change has to be worth it', () => {
  const [heavy, light, worse] = [tried(97.02, 900), tried(97, 300), tried(96.9, 10)];
  expect(bestOf([heavy, light, worse])).toBe(light);
  // Another finish only where more is seen with it.
  const weaker = (score: number) => tried(score, 5, { ...jpeg, strength: 0.5 });
  expect(bestOf([light, weaker(97.02)])).toBe(light);
  const better = weaker(97.1);
  expect(bestOf([light, better])).toBe(better);
  expect(isWorthIt({ asSet: heavy, best: light })).toBe(true);
  expect(isWorthIt({ asSet: tried(97, 320), best: light })).toBe(false);
  expect(isWorthIt({ asSet: tried(96.9, 300), best: light })).toBe(true);
});

test('no other way in the room is better than what the search finds, where respects do not hang together', async () => {
  const widths = [null, 800, 1600];
  const all = (gains: Map<string, number>) => async (choice: UploadChoice) => {
    const gain = (respect: string, value: unknown) => gains.get(`${respect} ${value}`) ?? 0;
    const quality = choice.quality ?? 100;
    const score =
      80 +
      gain('width', choice.width) +
      gain('format', choice.format) +
      gain('chroma', choice.chroma) +
      gain('strength', choice.strength) +
      quality / 20;
    return choice.width === 1600 && quality > 90 ? null : tried(score, 1000 + 10 * quality, choice);
  };
  const gain = fc.double({ min: 0, max: 5, noNaN: true });
  const names = [
    'width null',
    'width 800',
    'width 1600',
    'format webp',
    'chroma 4:4:4',
    'strength 0.5',
    'strength 1.5',
  ];
  await fc.assert(
    fc.asyncProperty(fc.tuple(...names.map(() => gain)), async (values) => {
      const attempt = all(new Map(names.map((name, at) => [name, values[at] ?? 0])));
      const room = { widths, formats: ['jpeg', 'webp'] as const, strengths: [1, 0.5, 1.5] };
      const { asSet, best, tried: count } = await searchSurvival(jpeg, room, attempt);
      const every = await Promise.all(
        widths.flatMap((width) =>
          (['jpeg', 'webp'] as const).flatMap((format) =>
            (format === 'jpeg' ? (['4:2:0', '4:4:4'] as const) : [null]).flatMap((chroma) =>
              room.strengths.flatMap((strength) =>
                [...qualities, 90].map((quality) => attempt({ width, format, chroma, strength, quality })),
              ),
            ),
          ),
        ),
      );
      const most = Math.max(...every.flatMap((one) => (one ? [scoreOf(one)] : [])));
      expect(asSet.choice).toEqual(jpeg);
      expect(scoreOf(best)).toBeGreaterThanOrEqual(scoreOf(asSet) - 0.05);
      // One change at a time: from a width that does not take the highest quality, it is not gone back to another one.
      const missed = best.choice.width === 1600 ? (95 - 90) / 20 : 0;
      expect(scoreOf(best)).toBeGreaterThan(most - missed - 0.06);
      expect(count).toBeLessThan(60);
    }),
    { numRuns: 60 },
  );
});

test('a file that cannot be tried as it is set is an error; what no place takes is passed over', async () => {
  const room = { widths: [null], formats: ['jpeg'] as const, strengths: [1] };
  await expect(searchSurvival(jpeg, room, async () => null)).rejects.toThrow(RangeError);
  const only = await searchSurvival(jpeg, room, async (choice) => (choice === jpeg ? tried(90, 100, choice) : null));
  expect(only).toEqual({ asSet: tried(90, 100), best: tried(90, 100), tried: 1 });
});

const place: Place = PlaceSchema.parse({ ...samplePlace(), width: 1080, height: 1920 });
const afterUpload = sampleAfterUpload;
const picture = { width: 4000, height: 6000, trim: null };
const says = { afterUpload, otherSides: { least: 320, most: 4320 } };

test('widths to upload at: the place’s, that which its network keeps, and twice the pixels of both', () => {
  const at = (over: object, sheet: typeof says | object = says) =>
    uploadWidths({ ...place, ...over }, picture, { grid: null, dimensions: null }, sheet);
  expect(at({})).toEqual([null, 608, 1527, 859]);
  // Of a place that is kept as it is, its own width is not offered twice.
  expect(at({ width: 1080, height: 1080 })).toEqual([null, 1527]);
  expect(at({ width: 400, height: 400 })).toEqual([null, 1080, 566, 1527]);
  expect(at({}, { afterUpload })).toEqual([null]);
  expect(at({}, { afterUpload, otherSides: { least: 700, most: 2000 } })).toEqual([null, 859]);
  expect(uploadWidths(place, picture, { grid: { columns: 3, rows: 1 }, dimensions: null }, says)).toEqual([null]);
  expect(
    [
      { width: 1081, height: 9 },
      { width: 9, height: 1080 },
    ].map((file) => isRescaled(file, says)),
  ).toEqual([true, false]);
  expect(isRescaled({ width: 1, height: 1 }, {})).toBeNull();
});

test('dimensions that a network does not take are refused in words', () => {
  const at = { place, network: { name: 'Sunpane' }, says };
  const asked = (uploadWidth: number | null, over: object = {}) =>
    notUploaded({ ...at, ...over }, picture, { ...plainSettings, uploadWidth });
  expect([asked(null), asked(1080), asked(608), asked(2160)]).toEqual([null, null, null, null]);
  expect(asked(300)).toContain('300 × 533 px. Sunpane takes sides from 320 to 4320 px');
  expect(asked(3000)).toContain('Choose another width.');
  expect(asked(608, { says: {} })).toContain('takes only the dimensions of its places');
});

test('a choice is what a frame is set as, and sets it', () => {
  const settings = {
    ...plainSettings,
    format: 'jpeg' as const,
    window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
  };
  const choice: UploadChoice = { width: 608, format: 'jpeg', quality: 84, chroma: '4:4:4', strength: 1.5 };
  const change = changeFor(choice, settings, 0.4);
  expect(change).toMatchObject({ uploadWidth: 608, format: 'jpeg', blend: expect.closeTo(0.6, 9) });
  expect(change.weighing).toMatchObject({ aim: { kind: 'as good as fits' }, mostQuality: 84, chroma: '4:4:4' });
  expect(isSetAs(choice, settings)).toBe(false);
  const set = { ...settings, ...change };
  expect(isSetAs(choice, set)).toBe(true);
  const measured = sampleWeight({ quality: 84 });
  const weight = { ...measured, files: measured.files.map((file) => ({ ...file, chroma: '4:4:4' as const })) };
  expect(choiceOf(set, weight)).toEqual({ ...choice, strength: 1 });
  expect(choiceOf({ ...set, format: 'webp' }, weight)).toMatchObject({ format: 'webp', quality: 84, chroma: null });
  expect(choiceOf({ ...set, format: 'png' }, weight)).toMatchObject({ quality: null, chroma: null });
  expect(changeFor({ ...choice, strength: 1.5 }, settings, 0.9).blend).toBe(1);
  expect(changeFor({ ...jpeg, format: 'png', quality: null, chroma: null }, settings, 1).weighing).toMatchObject({
    mostQuality: null,
    chroma: 'measured',
    colours: 'full',
  });
});
