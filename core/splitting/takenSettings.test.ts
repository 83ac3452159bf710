import { expect, test } from 'vitest';
import { frameBounds, OwnPlaceSchema, type Place } from '../model/index.ts';
import { sampleOriginal, samplePlace } from '../testing/index.ts';
import { notTaken } from './index.ts';

const original = sampleOriginal({ width: 6000, height: 2000 });
const plain = { grid: null, closing: null, bridged: false, dimensions: null };
const panels = samplePlace({ group: { kind: 'panels', min: 2, max: 20 } });
const block = samplePlace({ group: { kind: 'block', columns: 2, rows: 2, gap: 0.015, postingOrder: [0, 2, 1, 3] } });
const quiltGroup = {
  kind: 'quilt',
  columns: 3,
  minRows: 1,
  maxRows: 6,
  gap: 0.01,
  posting: 'last tile first',
} as const;
const quilt = samplePlace({ group: quiltGroup });
const tall = samplePlace({ group: { ...quiltGroup, minRows: 2 } });
const cut = (columns: number, rows: number) => ({ ...plain, grid: { columns, rows } });
const echo = { kind: 'echo' as const };

test.each<[string, Place, typeof plain | ReturnType<typeof cut>, RegExp | null]>([
  ['one picture where one is taken', samplePlace(), plain, null],
  ['a single piece where one picture is taken', samplePlace(), cut(1, 1), null],
  ['a column of pieces where one picture is taken', samplePlace(), cut(1, 3), /takes one picture; 1 × 3/],
  ['pieces where one picture is taken', samplePlace(), cut(3, 1), /takes one picture; 3 × 1 were asked for/],
  ['as many panels as are taken', panels, cut(20, 1), null],
  ['a panel too many', panels, cut(21, 1), /from 2 to 20 panels side by side; 21 × 1/],
  ['a panel too few', panels, cut(1, 1), /from 2 to 20 panels/],
  ['two rows of panels', panels, cut(4, 2), /side by side; 4 × 2/],
  ['a whole strip where pieces are taken', panels, plain, /takes several pieces/],
  ['the block that is shown', block, cut(2, 2), null],
  ['another block', block, cut(3, 3), /takes 2 × 2 tiles; 3 × 3/],
  ['a column too many', block, cut(3, 2), /takes 2 × 2 tiles; 3 × 2/],
  ['a row too few', block, cut(2, 1), /takes 2 × 2 tiles; 2 × 1/],
  ['as few rows as a quilt takes', tall, cut(3, 2), null],
  ['a row fewer', tall, cut(3, 1), /from 2 to 6 rows of 3 tiles; 3 × 1/],
  ['as many pixels as can be made', samplePlace({ width: 6000, height: 6000 }), plain, null],
  ['as many rows as a quilt takes', quilt, cut(3, 6), null],
  ['a row too many', quilt, cut(3, 7), /from 1 to 6 rows of 3 tiles; 3 × 7/],
  ['other columns', quilt, cut(2, 2), /rows of 3 tiles; 2 × 2/],
])('%s', (_, place, settings, problem) => {
  const words = notTaken(place, original, settings);
  if (problem) expect(words).toMatch(problem);
  else expect(words).toBeNull();
});

test('a closing panel counts among the panels', () => {
  expect(notTaken(panels, original, { ...cut(19, 1), closing: echo })).toBeNull();
  expect(notTaken(panels, original, { ...cut(20, 1), closing: echo })).toMatch(/from 2 to 19 panels.* one more/);
});

test('a height has to lie where the place takes it', () => {
  const free = samplePlace({ height: { min: 400, max: 3000 } });
  const high = (height: number) => notTaken(free, original, { ...plain, dimensions: { width: 600, height } });
  expect([high(400), high(3000)]).toEqual([null, null]);
  expect(high(399)).toMatch(/399 px were asked for/);
  expect(high(3001)).toMatch(/from 400 to 3000 px high; 3001 px/);
  expect(notTaken(samplePlace(), original, { ...plain, dimensions: { width: 600, height: 700 } })).toMatch(
    /takes no other dimensions/,
  );
  expect(notTaken(samplePlace(), original, { ...plain, dimensions: { width: 600, height: 500 } })).toBeNull();
});

test('what is too large in all is refused with the bound, as a place and as a frame', () => {
  const vast = samplePlace({ width: 20_000, height: 4000 });
  expect(notTaken(vast, original, plain)).toMatch(/80 megapixels in all; at most 36/);
  const own = (values: object) => {
    const { slug: _, ...place } = { ...samplePlace(), ...values };
    const parsed = OwnPlaceSchema.safeParse(place);
    return parsed.success ? null : (parsed.error.issues[0]?.message ?? '');
  };
  expect(own({ width: 6000, height: 6000 })).toBeNull();
  expect(own({ width: 6000, height: 6100 })).toMatch(/up to 37 megapixels.*at most 36 megapixels/);
  const tiles = (columns: number, rows: number) => ({
    width: 1000,
    height: 1000,
    group: {
      kind: 'block',
      columns,
      rows,
      gap: 0,
      postingOrder: Array.from({ length: columns * rows }, (_, at) => at),
    },
  });
  expect(own(tiles(6, 6))).toBeNull();
  expect(own(tiles(20, 20))).toMatch(/at most 100 pieces/);
  expect(own({ ...tiles(9, 9) })).toMatch(/81 megapixels/);
  expect(own({ group: { ...tiles(2, 2).group, columns: 1e9 } })).toMatch(/at most 100 pieces/);
  expect(own({ group: { ...tiles(2, 2).group, postingOrder: [0, 1, 2, 99] } })).toMatch(/name every tile once/);
  expect(frameBounds.pieces).toBe(100);
});
