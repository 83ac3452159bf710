import { expect, test } from 'vitest';
import { frameBounds, PlaceSchema, SpecSheetSchema } from '../index.ts';

const place = {
  slug: 'a',
  name: 'A',
  purpose: 'post',
  width: 800,
  height: 600,
  formats: ['jpeg'],
  limit: { bytes: 1000, unit: 'kB' },
};
const isTaken = (values: object) => PlaceSchema.safeParse({ ...place, width: 100, height: 100, ...values }).success;

test('a place that could not be honoured to the pixel is not taken into a sheet', () => {
  expect(PlaceSchema.parse(place)).toMatchObject({ shape: 'rectangle', covered: [], shownWidths: [] });
  for (const wrong of [
    { width: 7 },
    { height: 20_001 },
    { width: 800.5 },
    { formats: [] },
    { formats: ['bmp'] },
    { slug: 'Not a slug' },
    { limit: { bytes: 0, unit: 'kB' } },
    { limit: { bytes: 9, unit: 'GB' } },
  ]) {
    expect(PlaceSchema.safeParse({ ...place, ...wrong }).success).toBe(false);
  }
  const sheet = {
    slug: 's',
    name: 'S',
    kind: 'made up',
    checkedOn: '2026-11-25',
    afterUpload: { longEdge: 1080, quality: 75, chroma: '4:2:0' },
    places: [place],
  };
  expect(SpecSheetSchema.safeParse(sheet).success).toBe(true);
  expect(SpecSheetSchema.safeParse({ ...sheet, checkedOn: 'yesterday' }).success).toBe(false);
});

test('a range of heights, and of pieces, begins where it does and ends no sooner', () => {
  const height = (min: number, max: number) => isTaken({ height: { min, max } });
  expect([height(400, 401), height(400, 400), height(401, 400)]).toEqual([true, false, false]);
  const panels = (min: number, max: number) => isTaken({ group: { kind: 'panels', min, max } });
  expect([panels(2, 3), panels(3, 3), panels(4, 3)]).toEqual([true, true, false]);
  const quilt = (columns: number, minRows: number, maxRows: number) =>
    isTaken({ group: { kind: 'quilt', columns, minRows, maxRows, gap: 0, posting: 'first tile first' } });
  expect([quilt(3, 1, 2), quilt(3, 2, 2), quilt(3, 3, 2)]).toEqual([true, true, false]);
  // A hundred pieces at most, whichever way they lie.
  expect([quilt(10, 1, 10), quilt(10, 1, 11), quilt(50, 1, 3)]).toEqual([true, false, false]);
});

test('the tiles of a block are posted in an order that names each of them once', () => {
  const block = (columns: number, rows: number, postingOrder: number[]) =>
    isTaken({ group: { kind: 'block', columns, rows, gap: 0, postingOrder } });
  const inOrder = (count: number) => Array.from({ length: count }, (_, index) => index);
  expect([block(2, 2, [3, 0, 2, 1]), block(10, 10, inOrder(100))]).toEqual([true, true]);
  for (const wrong of [
    [0, 1, 2],
    [0, 1, 2, 2],
    [0, 1, 2, 4],
    [0, 1, 2, 3, 3],
    [0, 1, 2, 3, 1],
  ]) {
    expect(block(2, 2, wrong)).toBe(false);
  }
  expect(block(11, 10, inOrder(100))).toBe(false);
});

test('a place is as large as all its pieces at their greatest height, and may be that and no larger', () => {
  const side = Math.sqrt(frameBounds.pixels);
  const large = (width: number, height: unknown, group?: object) => isTaken({ width, height, group });
  expect([large(side, side), large(side, side + 1)]).toEqual([true, false]);
  expect([large(side, { min: 10, max: side }), large(side, { min: 10, max: side + 1 })]).toEqual([true, false]);
  const panels = { kind: 'panels', min: 2, max: 10 };
  expect([large(side / 10, side, panels), large(side / 10 + 1, side, panels)]).toEqual([true, false]);
  const block = { kind: 'block', columns: 4, rows: 1, gap: 0, postingOrder: [0, 1, 2, 3] };
  expect([large(side / 4, side, block), large(side / 4 + 1, side, block)]).toEqual([true, false]);
  const quilt = { kind: 'quilt', columns: 2, minRows: 1, maxRows: 5, gap: 0, posting: 'first tile first' };
  expect([large(side / 2, side / 5, quilt), large(side / 2, side / 5 + 1, quilt)]).toEqual([true, false]);
  const answer = PlaceSchema.safeParse({ ...place, width: 8000, height: 8000 });
  expect(answer.error?.issues[0]?.message).toMatch(/up to 64 megapixels.*at most 36 megapixels/);
});
