import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Place, ratioWords, type SheetContent, SheetContentSchema, type SheetVersion } from '../model/index.ts';
import { sampleArea, samplePlace } from '../testing/index.ts';
import {
  anchoredAreas,
  anyPlace,
  findPlaces,
  historyOf,
  isSame,
  mergedSheets,
  overdueDays,
  placeProblems,
  sheetDifferences,
  sinceOf,
} from './index.ts';

const sheet = (places: Place[], over: Partial<SheetContent> = {}): SheetContent =>
  SheetContentSchema.parse({ name: 'Dunepost', kind: 'messages', checkedOn: '2026-03-01', places, ...over });
const place = (slug: string, over: Partial<Place> = {}): Place => samplePlace({ slug, name: slug, ...over });
const kb = (bytes: number) => ({ bytes, unit: 'kB' as const });

describe('versions', () => {
  const before = sheet([place('a'), place('b'), place('gone')]);
  const after = sheet([place('b', { height: 700, limit: kb(9000) }), place('a'), place('new')], { name: 'Dune post' });

  test('what is different is told field by field, in the words of the form', () => {
    const { fields, places, isReordered } = sheetDifferences(before, after);
    expect(fields).toEqual([{ field: 'name', label: 'Name of the sheet', before: 'Dunepost', after: 'Dune post' }]);
    expect(places.map(({ slug, kind }) => `${slug} ${kind}`)).toEqual(['b changed', 'new new', 'gone gone']);
    expect(places[0]?.fields.map(({ label, after: now }) => `${label}: ${now}`)).toEqual([
      'Dimensions: 600 × 700 px',
      'Upload limit: 9 kB',
    ]);
    expect(isReordered).toBe(true);
    expect(isSame(sheetDifferences(after, sheet([...after.places], { name: 'Dune post' })))).toBe(true);
    expect(sinceOf({ a: 1, b: 3, gone: 2 }, before, after, 7)).toEqual({ a: 1, b: 7, new: 7 });
  });

  test('two who change one version come together field by field; where both change the same, mine stays', () => {
    const mine = sheet([place('a', { limit: kb(5) }), place('b', { name: 'Mine' }), place('gone')]);
    const theirs = sheet([place('a', { width: 640, limit: kb(6) }), place('b'), place('theirs')]);
    const merged = mergedSheets(before, mine, theirs);
    expect(merged.places.map(({ slug }) => slug)).toEqual(['a', 'b', 'theirs']);
    expect(merged.places[0]).toMatchObject({ width: 640, limit: kb(5) });
    expect(merged.places[1]).toMatchObject({ name: 'Mine' });
    expect(mergedSheets(before, before, theirs)).toEqual(theirs);
  });

  test('a number has its history: what it was, since which version, by whom, and where that was read', () => {
    const source = { checkedOn: '2026-10-19', source: 'a letter', sureness: 'heard' as const };
    const contents = [
      sheet([place('a')]),
      sheet([place('a', { note: 'Something else' })]),
      sheet([place('a', { limit: kb(9000), provenance: { limit: source } })]),
      sheet([place('a', { limit: kb(9000), provenance: { limit: { ...source, sureness: 'said by the network' } } })]),
    ];
    const versions = contents.map(
      (content, index): SheetVersion => ({
        number: index + 1,
        savedAt: `2026-1${index % 3}-01T00:00:00.000Z`,
        savedBy: 'Ada',
        note: '',
        content,
      }),
    );
    expect(
      historyOf(versions, 'a', 'limit').map(({ version, words, isChanged }) => [version, words, isChanged]),
    ).toEqual([
      [4, '9 kB', false],
      [3, '9 kB', true],
      [1, '8 MB', true],
    ]);
  });

  test('a sheet of one’s own is old when its oldest number is; one that ships never is', () => {
    const own = { own: { id: '00000000-0000-4000-8000-000000000000', version: 1 } };
    const checked = (checkedOn: string) => ({ limit: { checkedOn, source: '', sureness: 'heard' as const } });
    const read = sheet([place('a', { provenance: checked('2026-02-01') })]);
    expect(overdueDays({ ...read, ...own }, '2026-07-31')).toBeNull();
    expect(overdueDays({ ...read, ...own }, '2026-08-01')).toBe(181);
    expect(overdueDays({ ...read, ...own, recheckDays: 30 }, '2026-03-20')).toBe(47);
    expect(overdueDays(read, '2030-01-01')).toBeNull();
  });
});

test('areas hang on the edges that they are near to, whatever becomes of the place', () => {
  const side = fc.integer({ min: 200, max: 2000 });
  fc.assert(
    fc.property(side, side, side, side, (width, height, wider, higher) => {
      const covered = [
        sampleArea(width - 150, height - 60, 130, 44),
        sampleArea(0, 0, width, 40),
        sampleArea(10, 10, 50, 20),
      ];
      const [badge, bar, corner] = anchoredAreas(
        { covered },
        { width, height },
        { width: wider, height: higher },
      ).covered;
      expect(badge).toMatchObject({ left: wider - 150, top: higher - 60, width: 130, height: 44 });
      expect(bar).toMatchObject({ left: 0, top: 0, width: wider, height: 40 });
      expect(corner).toMatchObject({ left: 10, top: 10 });
    }),
  );
});

test('places are found by words in any order, by purpose, ratio and format; what is put away is not', () => {
  const book = [
    {
      ...sheet([
        place('events', { name: 'Évents cover', width: 1600, height: 600, purpose: 'cover' }),
        place('story', { name: 'Story', isAway: true }),
      ]),
      slug: 'dunes',
    },
    { ...sheet([place('cover', { name: 'Cover', formats: ['webp'] })]), slug: 'away', isAway: true },
  ];
  const found = (over: Partial<typeof anyPlace>) => findPlaces(book, { ...anyPlace, ...over }).map(({ id }) => id);
  const all = ['dunes/events'];
  expect(found({ text: 'cover EVENTS dune' })).toEqual(all);
  expect([found({ text: '1600x600' }), found({ text: '1600 × 600 jpeg' })]).toEqual([all, all]);
  expect([found({ ratio: 'very wide' }), found({ purpose: 'cover', format: 'png' })]).toEqual([all, all]);
  const renamed = book.map((one) => ({ ...one, name: 'Reedmail' }));
  expect(findPlaces(renamed, { ...anyPlace, text: 'reedmail' })).toHaveLength(1);
  expect([found({ text: 'story' }), found({ format: 'webp' }), found({ ratio: 'wide' })]).toEqual([[], [], []]);
});

test('rules that contradict each other are refused at the field of the form that is about them', () => {
  const wrong = (over: object) => Object.keys(placeProblems({ ...place('a'), ...over }));
  const ratios = { kind: 'ratios', least: 0.8, most: 1.91, leastSide: 320, mostSide: 1440 };
  expect(wrong({ otherDimensions: ratios })).toEqual([]);
  expect(wrong({ otherDimensions: { ...ratios, most: 0.9 } })).toEqual(['dimensions']);
  expect(wrong({ otherDimensions: { ...ratios, least: 2 } })).toEqual(['dimensions']);
  expect(wrong({ otherDimensions: ratios, height: { min: 300, max: 600 } })).toEqual(['dimensions']);
  expect(wrong({ otherDimensions: ratios, group: { kind: 'panels', min: 2, max: 4 } })).toEqual(['group']);
  expect([wrong({ multipleOf: 7 }), wrong({ mostPixels: 1000 })]).toEqual([['dimensions'], ['dimensions']]);
  expect([wrong({ postLimit: { bytes: 0, unit: 'kB' } }), wrong({ wishes: {} })]).toEqual([['limit'], ['wishes']]);
  expect([0.8, 1, 16 / 9, 1.91].map(ratioWords)).toEqual(['4:5', '1:1', '16:9', '1.91:1']);
});
