import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { PieceOfWhole } from '../model/index.ts';
import { defaultPattern, fileNames, patternProblem } from './index.ts';

const item = (over: Partial<Parameters<typeof fileNames>[1][number]> = {}) => ({
  name: 'Five flyers',
  network: 'Sunpane',
  place: 'Square post',
  dimensions: { width: 1080, height: 1080 },
  extension: 'jpg',
  ...over,
});

test('names say what, where and how large, and collisions are numbered', () => {
  const names = fileNames(defaultPattern, [
    item(),
    item({ name: 'FIVE—flyers!' }),
    item({ name: 'Drachenfüße am Strand' }),
  ]);
  expect(names).toEqual([
    'five-flyers_sunpane_square-post_1080x1080.jpg',
    'five-flyers_sunpane_square-post_1080x1080-2.jpg',
    'drachenfusse-am-strand_sunpane_square-post_1080x1080.jpg',
  ]);
  expect(fileNames('{place}', [item(), item(), item(), item({ extension: 'png' })])).toEqual([
    'square-post.jpg',
    'square-post-2.jpg',
    'square-post-3.jpg',
    'square-post.png',
  ]);
  // Of several separators one is left, and none at either end.
  expect(fileNames('__{name}...{width}_', [item()])).toEqual(['five-flyers.1080.jpg']);
});

test('whatever people call things, names are safe everywhere and all different', () => {
  const text = fc.string({ unit: 'binary', maxLength: 300 });
  const pattern = fc.constantFrom(
    '{name}',
    '../{name}/{place}',
    '{network}.{name}.',
    'CON',
    ' {place}\\{width}*{height} ',
  );
  fc.assert(
    fc.property(
      pattern,
      fc.array(fc.record({ name: text, place: text }), { minLength: 1, maxLength: 6 }),
      (shape, all) => {
        const names = fileNames(
          shape,
          all.map((one) => item(one)),
        );
        expect(new Set(names).size).toBe(all.length);
        for (const name of names) {
          expect(name).toMatch(/^[a-z0-9][a-z0-9._-]*\.jpg$/);
          expect(name).not.toMatch(/^(con|prn|aux|nul|com\d|lpt\d)\./);
          expect(name.length).toBeLessThan(200);
        }
      },
    ),
  );
});

test('a wrong pattern is explained', () => {
  expect(patternProblem('{name}_{date}')).toContain('{date} is not known');
  expect(patternProblem('  ')).toContain('at least one word');
  expect(patternProblem('{name')).toContain('brace');
  expect(patternProblem(defaultPattern)).toBeNull();
  expect(() => fileNames('{wrong}', [])).toThrow('not known');
});

test('names of pieces sort as they are uploaded, however many there are, and say where a tile stands', () => {
  const named = (all: Pick<PieceOfWhole, 'number' | 'row' | 'column'>[], columns: number, rows: number) =>
    fileNames(
      '{name}_{place}',
      all.map((piece, index) => ({
        name: 'Kites',
        network: 'Sunpane',
        place: 'Pieces',
        dimensions: { width: 1080, height: 1350 },
        extension: 'jpg',
        piece: { ...piece, index, of: columns * rows, columns, rows },
      })),
    );
  const panels = Array.from({ length: 12 }, (_, index) => ({ number: index + 1, row: 1, column: index + 1 }));
  const twelve = named(panels, 12, 1);
  expect(twelve[0]).toBe('kites_pieces_01-of-12.jpg');
  expect([...twelve].sort()).toEqual(twelve);
  // In one row or one column the number says it all.
  expect(named([{ number: 1, row: 1, column: 1 }], 1, 3)).toEqual(['kites_pieces_1-of-3.jpg']);
  const tiles = [
    { number: 1, row: 1, column: 1 },
    { number: 2, row: 2, column: 1 },
  ];
  expect(named(tiles, 2, 2)).toEqual(['kites_pieces_1-of-4_r1c1.jpg', 'kites_pieces_2-of-4_r2c1.jpg']);
});
