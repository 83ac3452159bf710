import { expect, test } from 'vitest';
import type { Group, ManifestFile, PieceOfWhole } from '../model/index.ts';
import { samplePlace } from '../testing/index.ts';
import { firstGrid, piecesInOrder, postingInstructions } from './index.ts';

const panels: Group = { kind: 'panels', min: 2, max: 20 };
const block: Group = { kind: 'block', columns: 2, rows: 2, gap: 0.015, postingOrder: [0, 2, 1, 3] };
const quilt: Group = { kind: 'quilt', columns: 3, minRows: 1, maxRows: 6, gap: 0.01, posting: 'last tile first' };
const placeOf = (group: Group) => samplePlace({ name: 'Pieces', width: 1080, height: 1350, group });
const pieces = (group: Group, columns: number, rows: number) =>
  piecesInOrder(placeOf(group), { grid: { columns, rows }, bridged: false }) as PieceOfWhole[];

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
  expect(piecesInOrder(samplePlace(), { grid: null, bridged: false })).toEqual([null]);
});

test('the instructions list the files of every place in their order, and only where something was cut', () => {
  const line = (file: string, place: string, piece?: PieceOfWhole): ManifestFile => ({
    file,
    original: 'Dunes',
    originalSha256: 'x',
    network: 'Sunpane',
    place,
    width: 1080,
    height: 1350,
    bytes: 1,
    sha256: 'x',
    format: 'jpeg',
    quality: 90,
    limitBytes: 2,
    limitUnit: 'MB',
    window: { left: 0, top: 0, width: 1, height: 1, turn: 0, mirror: false },
    planHash: place,
    ...(piece ? { piece } : {}),
  });
  expect(postingInstructions([line('story.jpg', 'Story')])).toBe('');
  const tiles = pieces(quilt, 3, 1).map((piece) => line(`tile-${piece.number}.jpg`, 'Profile quilt', piece));
  const strip = pieces(panels, 2, 1).map((piece) => line(`panel-${piece.number}.jpg`, 'Swipe panels', piece));
  const text = postingInstructions([...strip, line('story.jpg', 'Story'), ...[...tiles].reverse()]);
  expect(text).toContain(
    'Sunpane, Swipe panels: Dunes\n  2 panels, swiped from the left\n   1. panel-1.jpg\n   2. panel-2.jpg',
  );
  expect(text.indexOf('1. tile-1.jpg')).toBeLessThan(text.indexOf('2. tile-2.jpg'));
  expect(text).not.toContain('story.jpg');
});

test('a new frame is cut as its network shows it, or into the panels that suit its picture', () => {
  const panorama = { width: 12_000, height: 3000, trim: null };
  expect(firstGrid(samplePlace(), panorama, [])).toBeNull();
  expect(firstGrid(placeOf(panels), panorama, [])).toEqual({ columns: 5, rows: 1 });
  expect(firstGrid(placeOf(panels), { ...panorama, width: 4800 }, [])).toEqual({ columns: 2, rows: 1 });
  expect(firstGrid(placeOf(block), panorama, [])).toEqual({ columns: 2, rows: 2 });
  expect(firstGrid(placeOf(quilt), panorama, [])).toEqual({ columns: 3, rows: 2 });
});
