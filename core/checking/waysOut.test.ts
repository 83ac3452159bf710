import { expect, test } from 'vitest';
import { finishById, plainTreatment } from '../finishing/index.ts';
import { plainWeighing } from '../model/index.ts';
import { byHand, sampleOriginal, samplePlace, sampleWeight } from '../testing/index.ts';
import { frameFindings, lightestUnseen, otherFormats, rankWays, waysOut } from './index.ts';

const window = { centreX: 500, centreY: 500, span: 800 };
const framed = (values = {}, place = {}, treatment = plainTreatment) => ({
  original: sampleOriginal(),
  place: samplePlace(place),
  settings: byHand(window, values),
  treatment,
});
const keys = (frame: ReturnType<typeof framed>) => waysOut(frame).map(({ key }) => key);

test('only ways that the place takes and that would change something are offered', () => {
  expect(keys(framed())).toEqual(['png', 'palette', 'dithered palette', 'chroma', 'quality']);
  expect(keys(framed({ format: 'png' }, { formats: ['png', 'webp'] }))).toEqual([
    'webp',
    'palette',
    'dithered palette',
  ]);
  const coarse = { ...plainWeighing, chroma: '4:2:0' as const, belowFloor: true };
  expect(keys(framed({ weighing: coarse }, { formats: ['jpeg'] }))).toEqual([]);
  expect(keys(framed({}, { formats: ['jpeg'] }, finishById('crisp', []).treatment))).toContain('gentle');
});

test('a place that takes a range of heights offers fewer pixels, within the range', () => {
  const ways = waysOut(framed({}, { height: { min: 400, max: 900 }, formats: ['jpeg'] }));
  expect(ways.flatMap(({ change }) => (change.height ? [change.height] : []))).toEqual([480, 400]);
});

test('what is cut out goes only where transparency goes', () => {
  const round = { shape: 'circle', width: 500, formats: ['jpeg', 'png', 'webp'] } as const;
  const cutOut = framed({ cutOut: true, format: 'png' }, round);
  expect(otherFormats(cutOut).map(({ key }) => key)).toEqual(['webp', 'palette', 'dithered palette']);
});

test('ways that are good come first, by what is left of the picture, then by bytes', () => {
  const way = (key: string, bytes: number, overall: number, fits = true) => ({
    key,
    label: key,
    cost: '',
    change: {},
    weight: sampleWeight({ bytes, fits }, { overall }),
  });
  const ways = [
    way('too heavy', 900_000, 100, false),
    way('ruined', 90_000, 80),
    way('as good', 150_000, 99.4),
    way('light', 100_000, 98.6),
    way('poor', 50_000, 94),
  ];
  expect(rankWays(ways).map(({ key }) => key)).toEqual(['light', 'as good', 'poor', 'ruined', 'too heavy']);
  expect(lightestUnseen(ways)?.key).toBe('light');
});

test('what would be broken is held back until a person says otherwise', () => {
  const frame = framed();
  const weight = sampleWeight({ quality: 5 }, { overall: 88.4 });
  const [finding] = frameFindings({ ...frame, weight });
  expect(finding).toMatchObject({ kind: 'low quality', level: 'blocker', measured: 88.4 });
  const allowed = { ...frame.settings, ...finding?.fix?.change };
  expect(frameFindings({ ...frame, settings: allowed, weight }).map(({ level }) => level)).toEqual(['caution']);
});
