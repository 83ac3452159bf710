import { readFileSync } from 'node:fs';
import {
  BookFileSchema,
  ImageFormatSchema,
  NumberSchema,
  type SheetFile,
  SheetFileSchema,
  SpecSheetSchema,
} from '@inkwell/core/model';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { bookAsCsv, bookAsJson, readBook } from '../tasks/book/bookFiles.ts';
import { startProgram } from '../testing/programs/program.ts';

/** Words as people write them, with all that a table could stumble over. */
const words = (most: number) =>
  fc
    .string({ unit: fc.constantFrom(...'aé,;"\'=+-@ \t\n×%漢'), minLength: 1, maxLength: most })
    .map((text) => text.trim())
    .filter((text) => text !== '');
const slug = fc.stringMatching(/^[a-z0-9]{1,8}(-[a-z0-9]{1,5})?$/);
const date = fc.constantFrom('2025-01-31', '2026-02-28', '2026-11-02');
const sureness = fc.constantFrom('said by the network', 'measured in a dry run', 'heard');
const limit = fc.record({ bytes: fc.integer({ min: 1, max: 2e9 }), unit: fc.constantFrom('kB', 'MB', 'MiB') });
const figure = fc
  .double({ min: -500, max: 3000, noNaN: true, noDefaultInfinity: true })
  .filter((value) => !Object.is(value, -0));
const area = fc.record({
  left: figure,
  top: figure,
  width: fc.integer({ min: 1, max: 3000 }),
  height: fc.integer({ min: 1, max: 3000 }),
  shape: fc.constantFrom('rectangle', 'circle'),
  reason: words(20),
});
const side = fc.integer({ min: 8, max: 2000 });
const optional = <Value>(one: fc.Arbitrary<Value>) => fc.option(one, { nil: undefined });
const group = fc.oneof(
  fc.constant({ kind: 'panels', min: 2, max: 9 }),
  fc.constant({ kind: 'block', columns: 2, rows: 2, gap: 0.015, postingOrder: [2, 0, 3, 1] }),
  fc.constant({ kind: 'quilt', columns: 3, minRows: 1, maxRows: 2, gap: 0.01, posting: 'last tile first' }),
);
const other = fc.oneof(
  fc.record({
    kind: fc.constant('list'),
    dimensions: fc.array(fc.record({ width: side, height: side }), { minLength: 1, maxLength: 3 }),
  }),
  fc.constant({ kind: 'ratios', least: 0.05, most: 20, leastSide: 8, mostSide: 2000 }),
);
const place = fc.record({
  slug,
  name: words(30),
  purpose: fc.constantFrom('post', 'story', 'banner'),
  width: side,
  height: fc.oneof(side, fc.constant({ min: 100, max: 900 })),
  otherDimensions: optional(other),
  mostPixels: optional(fc.constant(5_000_000)),
  formats: fc.subarray(ImageFormatSchema.options, { minLength: 1 }),
  limit,
  formatLimits: optional(fc.record({ jpeg: limit, avif: optional(limit) })),
  postLimit: optional(limit),
  wishes: optional(fc.record({ weight: optional(limit), formats: optional(fc.constant(['webp'])) })),
  shape: fc.constantFrom('rectangle', 'rounded', 'circle'),
  covered: fc.array(area, { maxLength: 4 }),
  shownPart: optional(area),
  shownWidths: fc.uniqueArray(fc.integer({ min: 1, max: 2000 }), { maxLength: 3 }),
  note: optional(words(60)),
  isAway: optional(fc.constant(true)),
  group: optional(group),
  provenance: optional(
    fc.dictionary(
      fc.constantFrom(...NumberSchema.options),
      fc.record({ checkedOn: date, source: fc.oneof(fc.constant(''), words(30)), sureness }),
      { minKeys: 1, maxKeys: 4 },
    ),
  ),
});
const sheet = fc.record({
  slug,
  name: words(30),
  kind: words(30),
  checkedOn: date,
  source: optional(words(40)),
  sureness: optional(sureness),
  recheckDays: optional(fc.integer({ min: 1, max: 900 })),
  otherSides: optional(fc.constant({ least: 300, most: 4000 })),
  afterUpload: optional(
    fc.constant({
      longEdge: 1080,
      kernel: 'cubic',
      format: 'webp',
      quality: 76,
      chroma: '4:2:0',
      colours: 'profile dropped',
    }),
  ),
  places: fc.uniqueArray(place, { maxLength: 5, selector: (one) => one.slug }),
});

/** Those that are sheets at all: what is made here now and then contradicts itself. */
const books = fc
  .uniqueArray(sheet, { minLength: 1, maxLength: 4, selector: (one) => one.slug })
  .map((all) =>
    all.flatMap((one): SheetFile | [] => {
      const places = one.places.filter((each) => SheetFileSchema.safeParse({ ...one, places: [each] }).success);
      return SheetFileSchema.safeParse({ ...one, places }).data ?? [];
    }),
  )
  .filter((all) => all.length > 0);

describe('sheets as files', () => {
  test.each([
    ['JSON', bookAsJson],
    ['a table', bookAsCsv],
  ])('written as %s and read again, nothing is lost', (_, write) => {
    let places = 0;
    fc.assert(
      fc.property(books, (sheets) => {
        const read = readBook(write(sheets));
        if ('unreadable' in read) throw new Error(read.unreadable);
        expect(read.notUnderstood).toEqual([]);
        expect(read.sheets).toEqual(sheets);
        places += sheets.reduce((sum, one) => sum + one.places.length, 0);
      }),
      { numRuns: 300 },
    );
    expect(places).toBeGreaterThan(200);
  });

  test('the schema that others read is that of the code, and holds for what is written', () => {
    const published = JSON.parse(
      readFileSync(new URL('../../docs/formats/spec-sheet.schema.json', import.meta.url), 'utf8'),
    );
    expect(published).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(BookFileSchema, { io: 'input' }))));
  });

  test('a file that cannot be read is refused in words', () => {
    const said = (text: string) => {
      const read = readBook(text);
      return 'unreadable' in read ? read.unreadable : 'read';
    };
    expect(said('')).toMatch(/empty/);
    expect(said('{"specBook": 2, "sheets": []}')).toMatch(
      /version 2 of the format; this program reads up to version 1/,
    );
    expect(said('{"sheets": []}')).toMatch(/no spec book/);
    expect(said('{"specBook": 1')).toMatch(/not readable/);
    expect(said('{"specBook": 1, "sheets": 4}')).toMatch(/no list of sheets/);
    expect(said('name;width\nA;3')).toMatch(/no column “sheet_id”/);
    expect(said('sheet_id,sheet,place_id,place,width\n"a,b')).toMatch(/quotation mark is not closed/);
    expect(said('{"specBook": 1, "sheets": [{"name": "a\\u0000"}]}')).toMatch(/cannot be stored/);
  });
});

const { client } = await startProgram();
const book = async () => z.array(SpecSheetSchema).parse((await client.ask('GET', '/spec-book')).body);
const file = async (query: string) => (await client.bytes(`/spec-book/file?${query}`)).toString('utf8');
const ImportSchema = z.object({
  sheets: z.array(
    z.looseObject({
      slug: z.string(),
      kind: z.string(),
      version: z.int().nullable(),
      note: z.string(),
      lines: z.array(z.object({ at: z.string(), place: z.string(), kind: z.string(), words: z.array(z.string()) })),
    }),
  ),
  notUnderstood: z.array(z.unknown()),
});
const plan = async (text: string) => ImportSchema.parse((await client.ask('POST', '/spec-book/import', { text })).body);

test('a whole book goes out and comes in as what it is; a shipped sheet that is otherwise comes in as one’s own', async () => {
  for (const as of ['json', 'csv']) {
    const same = await plan(await file(`as=${as}`));
    expect(same.sheets.map(({ kind }) => kind)).toEqual((await book()).map(() => 'same'));
  }
  const changed = (await file('sheet=corkmoor&as=json'))
    .replace('"width": 600', '"width": 640')
    .replace('"height": 600', '"height": 640');
  const [sheet] = (await plan(changed)).sheets;
  expect(sheet).toMatchObject({ slug: 'own-corkmoor', kind: 'new', version: null });
  expect(sheet?.note).toContain('stays as it is');
  const [own] = JSON.parse(changed.replaceAll('"corkmoor"', '"own-corkmoor"')).sheets;
  const both = JSON.stringify({ specBook: 1, sheets: [...JSON.parse(changed).sheets, own] });
  expect((await plan(both)).sheets.map(({ slug }) => slug)).toEqual(['own-corkmoor-2', 'own-corkmoor']);
});

test('what is new, changed, gone and not understood is told line by line; a bad row never spoils the rest', async () => {
  const text = (await file('sheet=stallfront&as=csv'))
    .replaceAll('stallfront', 'own-stall')
    .replaceAll('Stallfront', 'Stall');
  const take = (content: string, version: number | null) =>
    client.ask('POST', '/spec-book/import/take', {
      text: content,
      take: [{ slug: 'own-stall', version }],
      savedBy: 'Ada',
    });
  expect((await plan(text)).sheets).toMatchObject([{ slug: 'own-stall', kind: 'new' }]);
  expect(await take(text, null)).toMatchObject({ status: 200, body: { taken: 1 } });
  const [head = '', course = '', item = '', banner = ''] = text.split('\r\n');
  const next = [
    head,
    course.replace(',960,540,', ',980,540,'),
    item.replace(',2000,2000,', ',2000,-7,'),
    banner.replaceAll('shop-banner', 'wide-banner').replace('Shop banner', 'Wide banner'),
    course.replace('course-image', 'late-image'),
    course,
  ].join('\r\n');
  const [sheet] = (await plan(next)).sheets;
  expect(sheet?.lines.map(({ at, place, kind }) => [at, place, kind])).toEqual([
    ['Line 2', 'Course image', 'changed'],
    ['Line 4', 'Wide banner', 'new'],
    ['Line 5', 'Course image', 'new'],
    ['', 'Shop banner', 'gone'],
    ['Line 3', 'Item picture', 'not understood'],
    ['Line 6', 'Course image', 'not understood'],
  ]);
  expect(sheet?.lines[0]?.words[0]).toMatch(/^Dimensions: 960 × 540 px → 980 × 540 px/);
  expect(sheet?.lines[4]?.words[0]).toMatch(/“Item picture”, Dimensions: /);
  expect((await take(next, null)).status).toBe(409);
  expect((await take(next, 1)).status).toBe(200);
  const taken = (await book()).find(({ slug }) => slug === 'own-stall');
  expect(taken).toMatchObject({ own: { version: 2 } });
  expect(taken?.places.map(({ slug, width, isAway }) => [slug, width, isAway ?? false])).toEqual([
    ['course-image', 980, false],
    ['wide-banner', 1920, false],
    ['late-image', 960, false],
    ['item-picture', 2000, false],
    ['shop-banner', 1920, true],
  ]);
});
