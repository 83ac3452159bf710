import { expect, test } from 'vitest';
import { finishById, plainTreatment } from '../finishing/index.ts';
import { plainWeighing } from '../model/index.ts';
import { byHand, sampleOriginal, samplePlace, sampleWeight } from '../testing/index.ts';
import { frameFindings, isGood, lightestUnseen, otherFormats, rankWays, waysOut } from './index.ts';

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
  const at = (height: number) => ({ width: 600, height });
  const heights = (min: number, height: number | null = null) =>
    waysOut(
      framed(
        { dimensions: height === null ? null : { width: 600, height } },
        { height: { min, max: 900 }, formats: ['jpeg'] },
      ),
    ).filter(({ change }) => change.dimensions);
  expect(heights(400).map(({ change }) => change.dimensions)).toEqual([480, 400].map(at));
  expect(heights(400).map(({ cost }) => Number.parseInt(cost, 10))).toEqual([20, 33]);
  expect(heights(550).map(({ change }) => change.dimensions)).toEqual([at(550)]);
  expect(heights(400, 400)).toEqual([]);
});

test('a way says what it costs and changes, and nothing that is so already is a way', () => {
  const named = (frame: ReturnType<typeof framed>, key: string) => waysOut(frame).find((way) => way.key === key);
  expect(named(framed(), 'quality')?.change).toMatchObject({ weighing: { belowFloor: true } });
  expect(named(framed(), 'png')).toMatchObject({ cost: 'nothing is lost', change: { format: 'png' } });
  expect(named(framed({}, { formats: ['jpeg', 'webp'] }), 'webp')?.cost).toBe('');
  expect(named(framed({ format: 'avif' }, { formats: ['avif'] }), 'chroma')).toBeDefined();
  const crisp = finishById('crisp', []).treatment;
  expect(named(framed({ finishId: 'crisp' }, {}, crisp), 'plain')?.change).toEqual({ finishId: 'plain', blend: null });
  expect(keys(framed({ finishId: 'plain' }, {}, crisp))).not.toContain('plain');
  const palette = { ...plainWeighing, colours: 'palette' as const };
  expect(keys(framed({ format: 'png', weighing: palette }))).toEqual(['jpeg', 'png', 'dithered palette']);
  expect(keys(framed({ weighing: palette }))).toEqual(['png', 'palette', 'dithered palette', 'chroma', 'quality']);
});

test('what is cut out goes only where transparency goes', () => {
  const round = { shape: 'circle', width: 500, formats: ['jpeg', 'png', 'webp'] } as const;
  const cutOut = framed({ cutOut: true, format: 'png' }, round);
  expect(otherFormats(cutOut).map(({ key }) => key)).toEqual(['webp', 'palette', 'dithered palette']);
  const formats = (values: object) => otherFormats(framed({ format: 'png', ...values }, round)).map(({ key }) => key);
  expect(formats({ cutOut: true, flatten: '#ffffff' })).toContain('jpeg');
  expect(formats({ cutOut: false })).toContain('jpeg');
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

  // Half a point is told apart, and every file of a frame counts.
  const close = [way('less', 50_000, 97), way('more', 60_000, 97.4)];
  expect(rankWays(close).map(({ key }) => key)).toEqual(['more', 'less']);
  const [good, bad] = [sampleWeight({}, { overall: 98.5 }), sampleWeight({}, { overall: 91.9 })];
  expect([isGood(good), isGood(sampleWeight({}, { overall: 92 })), isGood(bad)]).toEqual([true, true, false]);
  const both = { ...good, files: [...good.files, ...bad.files] };
  expect(isGood(both)).toBe(false);
  const pair = { ...way('pair', 10_000, 99), weight: { ...both, bytes: 10_000 } };
  const same = [pair, way('first', 70_000, 98.5), way('second', 70_000, 99), way('heavier', 80_000, 99)];
  expect(lightestUnseen(same)?.key).toBe('first');
  expect(lightestUnseen(same.toReversed())?.key).toBe('second');
  expect(lightestUnseen([pair])).toBeNull();
});

test('what would be broken is held back until a person says otherwise', () => {
  const frame = framed();
  const weight = sampleWeight({ quality: 5 }, { overall: 88.4 });
  const [finding] = frameFindings({ ...frame, weight });
  expect(finding).toMatchObject({ kind: 'low quality', level: 'blocker', measured: 88.4 });
  const allowed = { ...frame.settings, ...finding?.fix?.change };
  expect(frameFindings({ ...frame, settings: allowed, weight }).map(({ level }) => level)).toEqual(['caution']);
});
