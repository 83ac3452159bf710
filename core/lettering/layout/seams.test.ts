import fc from 'fast-check';
import { expect, test } from 'vitest';
import { piecesOf, type Rect, seamsOf, wholeDimensions } from '../../geometry/index.ts';
import { type Hands, type Item, type LetterLayer, noHand } from '../../model/index.ts';
import { standOf } from '../byHand.ts';
import { letterItems } from '../letterItems.ts';
import { testBook, testWords } from '../testFonts.ts';
import { frameGround } from './frameGround.ts';
import { roomIn } from './room.ts';

const book = testBook(['sofia-sans', 'noto-sans']);
const still = { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false };

function lettered(text: string, grid: Parameters<typeof piecesOf>[0], values: Partial<Item> = {}, hands: Hands = {}) {
  const whole = { left: 0, top: 0, ...wholeDimensions(grid) };
  const item = {
    ...testWords(1, text),
    onPieces: 'across',
    wish: 'wherever it is calm',
    wanted: 0.5,
    ...values,
  } as Item;
  const rooms = piecesOf(grid).map((rect) => ({ rect, room: roomIn(rect, { shape: 'rectangle' }, 0, [], []) }));
  const frame = {
    originalId: item.id,
    place: { id: 'made/strip', purpose: 'post' as const },
    pieces: rooms,
    whole: { rect: whole, room: roomIn(whole, { shape: 'rectangle' }, 0, [], [], seamsOf(grid)) },
    ground: frameGround(null, still, whole, 1, whole),
    subject: null,
    scale: 3,
  };
  return letterItems([item], hands, frame, book);
}

/** How far each contour reaches, each way. */
function contours(layers: readonly LetterLayer[]) {
  const paths = layers.flatMap((layer) => (layer.kind === 'outline' ? layer.path.split('M').slice(1) : []));
  return paths.map((path) => {
    const numbers = (path.match(/-?[\d.]+/g) ?? []).map(Number);
    const along = (first: number) => numbers.filter((_, at) => at % 2 === first);
    return { x: along(0), y: along(1) };
  });
}

const grids = fc.record({
  columns: fc.integer({ min: 1, max: 4 }),
  rows: fc.integer({ min: 1, max: 2 }),
  bridge: fc.constantFrom(0, 14),
  piece: fc.constant({ width: 900, height: 700 }),
});
const texts = fc.array(fc.constantFrom('kites', 'on', 'the dunes', 'Saltmarsh', 'Drachenfest', '4', 'October'), {
  minLength: 1,
  maxLength: 7,
});

test('letters across pieces never meet a seam, and are not much smaller than on one piece', () => {
  fc.assert(
    fc.property(grids, texts, fc.double({ min: 0.1, max: 1, noNaN: true }), (grid, words, wanted) => {
      const found = lettered(words.join(' '), grid, { wanted });
      expect(found.lost).toEqual([]);
      for (const { axis, start, width } of seamsOf(grid)) {
        const cut = contours(found.layers).filter((one) => {
          const along = one[axis];
          return Math.min(...along) < start + width && Math.max(...along) > start;
        });
        expect(cut).toEqual([]);
      }
      expect(found.moved).toEqual([]);
      const alone = lettered(words.join(' '), grid, { wanted, onPieces: 'first' });
      // Some of the size is given up to be read along the pieces.
      expect(found.items[0]?.em).toBeGreaterThanOrEqual((alone.items[0]?.em ?? 0) * 0.55);
    }),
    { numRuns: 60 },
  );
});

test('a line takes several pieces where one has no room for it, and a hand that puts it on a seam is told a place beside', () => {
  const grid = { columns: 3, rows: 1, bridge: 0, piece: { width: 900, height: 700 } };
  const wide = lettered('Autumn kite festival on the dunes', grid);
  const [title] = wide.items;
  if (!title) throw new Error('no title');
  expect(title.box.width).toBeGreaterThan(1100);
  expect(title.piece.width).toBe(2700);
  const put = (x: number) => ({
    [title.itemId]: { ...noHand, stand: { ...standOf(title), x: standOf(title).x + x } },
  });
  // The middle of a letter, or the space before it: some of these moves cut a letter.
  const problems = [0.002, 0.005, 0.01, 0.015, 0.02].flatMap(
    (x) => lettered('Autumn kite festival on the dunes', grid, {}, put(x)).moved,
  );
  const onSeam = problems.find(({ kind }) => kind === 'on a seam');
  const [stand] = onSeam?.free ?? [];
  if (!stand) throw new Error('no way out of the seam');
  const right = lettered('Autumn kite festival on the dunes', grid, {}, { [title.itemId]: { ...noHand, stand } });
  expect(right.moved.map(({ kind }) => kind)).not.toContain('on a seam');
});

test('a disc stands beside the seams, also where its room lies at one end, and a rule over them', () => {
  const grid = { columns: 2, rows: 1, bridge: 0, piece: { width: 300, height: 300 } };
  const whole = { left: 0, top: 0, ...wholeDimensions(grid) };
  const shape = (form: 'disc' | 'rule', closed: Rect[]) => {
    const { role: _, text: __, short: ___, style: ____, ...common } = testWords(1, 'x');
    const item: Item = {
      ...common,
      kind: 'shape',
      form,
      colour: '#ffffff',
      opacity: 1,
      onPieces: 'across',
      wanted: 0.9,
    };
    const piece = { rect: whole, room: roomIn(whole, { shape: 'rectangle' }, 0, closed, [], seamsOf(grid)) };
    const frame = {
      originalId: item.id,
      place: { id: 'made/strip', purpose: 'post' as const },
      pieces: [piece, piece],
      whole: piece,
      ground: frameGround(null, still, whole, 1, whole),
      subject: null,
      scale: 3,
    };
    return letterItems([item], {}, frame, book).items[0]?.box;
  };
  const disc = shape('disc', [{ left: 0, top: 0, width: 400, height: 300 }]);
  expect(disc?.left).toBeGreaterThanOrEqual(400);
  expect(disc?.width).toBeGreaterThan(100);
  const rule = shape('rule', []);
  expect((rule?.left ?? 300) < 300 && (rule?.left ?? 0) + (rule?.width ?? 0) > 300).toBe(true);
});
