import { expect, test } from 'vitest';
import type { Group, OpaqueBacking, PieceOfWhole } from '../model/index.ts';
import { sampleOriginal, samplePlace } from '../testing/index.ts';
import { closingOffer, firstGrid, panelRange, piecesInOrder } from './index.ts';

const panels: Group = { kind: 'panels', min: 2, max: 20 };
const block: Group = { kind: 'block', columns: 2, rows: 2, gap: 0.015, postingOrder: [0, 2, 1, 3] };
const quilt: Group = { kind: 'quilt', columns: 3, minRows: 1, maxRows: 6, gap: 0.01, posting: 'last tile first' };
const placeOf = (group: Group) => samplePlace({ name: 'Pieces', width: 1080, height: 1350, group });
const pieces = (group: Group, columns: number, rows: number) =>
  piecesInOrder(placeOf(group), { grid: { columns, rows }, bridged: false, closing: null }) as PieceOfWhole[];

test('only panels have a range of counts, and a closing panel is one of them', () => {
  expect(panelRange({ group: panels }, false)).toEqual({ least: 2, most: 20 });
  expect(panelRange({ group: panels }, true)).toEqual({ least: 2, most: 19 });
  expect(panelRange({ group: { ...panels, min: 3, max: 3 } }, true)).toEqual({ least: 3, most: 3 });
  expect([panelRange({ group: block }, false), panelRange({}, false)]).toEqual([null, null]);
});

test('pieces come in the order in which they are uploaded, with where they stand', () => {
  expect(pieces(panels, 3, 1).map(({ number, index }) => [number, index])).toEqual([
    [1, 0],
    [2, 1],
    [3, 2],
  ]);
  expect(pieces(block, 2, 2).map(({ row, column }) => [row, column])).toEqual([
    [1, 1],
    [2, 1],
    [1, 2],
    [2, 2],
  ]);
  expect(pieces(quilt, 3, 2)[0]).toMatchObject({ number: 1, index: 5, row: 2, column: 3, of: 6 });
  expect(pieces({ ...quilt, posting: 'first tile first' }, 3, 2)[0]).toMatchObject({ number: 1, index: 0 });
  // The order that a network lists is one of its own grid.
  expect(pieces(block, 3, 1).map(({ index }) => index)).toEqual([0, 1, 2]);
  expect(piecesInOrder(samplePlace(), { grid: null, bridged: false, closing: null })).toEqual([null]);
});

test('a new frame is cut as its network shows it, or into the panels that suit its picture', () => {
  const panorama = { width: 12_000, height: 3000, trim: null };
  expect(firstGrid(samplePlace(), panorama, [])).toBeNull();
  expect(firstGrid(placeOf(panels), panorama, [])).toEqual({ columns: 5, rows: 1 });
  expect(firstGrid(placeOf(panels), { ...panorama, width: 4800 }, [])).toEqual({ columns: 2, rows: 1 });
  expect(firstGrid(placeOf(block), panorama, [])).toEqual({ columns: 2, rows: 2 });
  expect(firstGrid(placeOf(quilt), panorama, [])).toEqual({ columns: 3, rows: 2 });
});

test('where the last panel would be mostly leftover, a panel with the whole picture is offered in its stead', () => {
  const place = placeOf(panels);
  const wide = (filled: number) => sampleOriginal({ width: Math.round(filled * 800), height: 1000 });
  const set = (columns: number, closing: OpaqueBacking | null = null) => ({
    grid: { columns, rows: 1 },
    bridged: false,
    closing,
  });
  expect(closingOffer(wide(3.3), place, set(4))).toMatchObject({ panels: 3, filled: expect.closeTo(3.3) });
  expect(closingOffer(wide(3.3), place, set(3))).toMatchObject({ panels: 3 });
  for (const [filled, settings] of [
    [3.7, set(4)],
    [3.5, set(4)],
    [3, set(3)],
    [3.3, set(6)],
    [3.3, set(3, { kind: 'echo' })],
    [1.3, set(2)],
    [20.3, set(20)],
  ] as const) {
    expect(closingOffer(wide(filled), place, settings)).toBeNull();
  }
  expect(closingOffer(wide(2.3), place, set(2))).toMatchObject({ panels: 2 });
  expect(closingOffer(wide(19.3), place, set(19))).toMatchObject({ panels: 19 });
  expect(closingOffer(wide(3.3), place, { ...set(3), grid: null })).toBeNull();
  expect(closingOffer(wide(3.3), placeOf(block), set(3))).toBeNull();
  expect(closingOffer(wide(3.3), { ...place, height: { min: 400, max: 3000 } }, set(3))).toBeNull();
  const closed = piecesInOrder(place, set(3, { kind: 'echo' }));
  expect(closed.map((piece) => [piece?.number, piece?.columns])).toEqual([1, 2, 3, 4].map((number) => [number, 4]));
  expect(panelRange(place, true)).toEqual({ least: 2, most: 19 });
});
