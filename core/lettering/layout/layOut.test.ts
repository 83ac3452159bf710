import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { intersection, type Rect } from '../../geometry/index.ts';
import type { WordsItem } from '../../model/index.ts';
import { colourOn } from '../colourOn.ts';
import type { SetWords } from '../setting/setWords.ts';
import { testStyle } from '../testFonts.ts';
import { type Block, blocksOf, leastEm, type ReadyItem } from './block.ts';
import { frameGround } from './frameGround.ts';
import { grouped, layOut as layOutGroups, type ToLayOut } from './layOut.ts';
import { placeBlock } from './placeBlock.ts';
import { type Room, roomIn } from './room.ts';

type Items = Parameters<typeof grouped>[0];
const layOut = ({ items, ...asked }: Omit<ToLayOut, 'groups'> & { items: Items }) =>
  layOutGroups({ ...asked, groups: grouped(items) });

const id = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;

const way = (width: number, lines: number): SetWords => ({
  text: 'words',
  width,
  height: lines - 0.3,
  lines,
  xHeight: 0.5,
  rightToLeft: false,
  baselines: [],
  outline: () => [],
});
/** Words that are six em wide on one line. */
const ways = [way(6, 1), way(3.1, 2), way(2.2, 3)];

const words = (number: number, values: Partial<WordsItem> = {}): ReadyItem => ({
  item: {
    id: id(number),
    name: `item ${number}`,
    kind: 'words',
    role: 'title',
    text: 'words',
    short: '',
    style: testStyle(),
    originalIds: null,
    notOn: [],
    notOnPlaces: [],
    onPieces: 'first',
    wish: 'wherever it is calm',
    wanted: 0.2,
    ...values,
  },
  ways,
});

const calm = frameGround(
  null,
  { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
  { left: 0, top: 0, width: 1, height: 1 },
  1,
  { width: 1, height: 1 },
);

const rect = (most: number) =>
  fc.record({
    left: fc.integer({ min: -100, max: 900 }),
    top: fc.integer({ min: -100, max: 900 }),
    width: fc.integer({ min: 20, max: most }),
    height: fc.integer({ min: 20, max: most }),
  });
const meets = (a: Rect, b: Rect) => {
  const common = intersection(a, b);
  return common.width > 1e-6 && common.height > 1e-6;
};
const isWithin = (box: Rect, bounds: Rect) =>
  box.left >= bounds.left - 1e-6 &&
  box.top >= bounds.top - 1e-6 &&
  box.left + box.width <= bounds.left + bounds.width + 1e-6 &&
  box.top + box.height <= bounds.top + bounds.height + 1e-6;

/** The largest em at which any block stands free at any place of a fine grid; 0 where none does. */
function largestOnGrid(
  blocks: readonly { block: Block; least: number }[],
  { bounds, closed }: Room,
  wanted: number,
): number {
  let best = 0;
  for (const { block, least } of blocks) {
    for (let em = Math.max(wanted, least); em >= least; em /= 1.05) {
      if (em <= best) break;
      const size = { width: block.width * em, height: block.height * em };
      const steps = 40;
      const isFree = Array.from({ length: (steps + 1) ** 2 }, (_, at) => ({
        left: bounds.left + ((bounds.width - size.width) * (at % (steps + 1))) / steps,
        top: bounds.top + ((bounds.height - size.height) * Math.floor(at / (steps + 1))) / steps,
        ...size,
      })).some((box) => isWithin(box, bounds) && !closed.some((one) => meets(one, box)));
      if (isFree) best = em;
    }
  }
  return best;
}

describe('laying out', () => {
  test('a block stands free wherever a fine grid finds a place, and hardly smaller than the largest there', () => {
    const shape = fc.constantFrom('rectangle' as const, 'circle' as const);
    fc.assert(
      fc.property(fc.array(rect(500), { maxLength: 6 }), shape, (closed, shape) => {
        const room = roomIn({ left: 0, top: 0, width: 1000, height: 1000 }, { shape }, 0, closed, []);
        const blocks = blocksOf(words(1), []).map((block) => ({ block, least: leastEm(block, 4) }));
        const asked = {
          blocks,
          wanted: 200,
          wish: 'wherever it is calm' as const,
          style: null,
          room,
          ground: calm,
          subject: null,
        };
        const found = placeBlock(asked, true);
        const grid = largestOnGrid(blocks, room, 200);
        if (grid > 0) expect(found?.em ?? 0).toBeGreaterThanOrEqual(grid * 0.9);
        if (!found) return;
        expect(found.em).toBeGreaterThanOrEqual(leastEm(found.block, 4) - 1e-9);
        expect(isWithin(found.box, room.bounds)).toBe(true);
        expect(room.closed.filter((one) => meets(one, found.box))).toEqual([]);
        // A circle cuts off none of its corners.
        const corners = [0, 1].flatMap((x) =>
          [0, 1].map((y) =>
            Math.hypot(found.box.left + x * found.box.width - 500, found.box.top + y * found.box.height - 500),
          ),
        );
        if (shape === 'circle') expect(Math.max(...corners)).toBeLessThanOrEqual(500);
      }),
      { numRuns: 60 },
    );
  });

  test('items stand apart from each other; what finds no room makes those before it smaller, and is lost at last, with a reason', () => {
    const room = roomIn({ left: 0, top: 0, width: 1000, height: 1000 }, { shape: 'rectangle' }, 0, [], []);
    const items = [1, 2, 3].map((number) => ({ long: words(number, { wanted: 0.3 }), short: null }));
    const asked = { items, room, ground: calm, subject: null, scale: 8 };
    const { blocks, lost } = layOut(asked);
    expect(lost).toEqual([]);
    expect(blocks).toHaveLength(3);
    blocks.forEach(({ box }, at) => {
      expect(blocks.slice(at + 1).some((other) => meets(other.box, box))).toBe(false);
    });
    const tight = layOut({
      ...asked,
      room: roomIn({ left: 0, top: 0, width: 420, height: 220 }, { shape: 'rectangle' }, 0, [], []),
    });
    expect(tight.blocks.map(({ block }) => block.parts[0]?.item.id)).toEqual([id(1)]);
    expect(tight.lost.map(({ reason }) => reason)).toEqual([
      'There is no room where item 2 could be read.',
      'There is no room where item 3 could be read.',
    ]);
  });

  test('where lines could not be read under a title, they are made larger against it; and only what finds no room is lost', () => {
    const room = roomIn({ left: 0, top: 0, width: 900, height: 260 }, { shape: 'rectangle' }, 0, [], []);
    const under = words(2, { wish: 'under the words before', wanted: 0.05 });
    const pair = [
      { long: words(1), short: null },
      { long: under, short: null },
    ];
    const { blocks, lost } = layOut({ items: pair, room, ground: calm, subject: null, scale: 4.5 });
    expect(lost).toEqual([]);
    const [title, line] = blocks[0]?.block.parts ?? [];
    expect(title?.em).toBe(1);
    expect(line?.em).toBeGreaterThan(0.25);
    expect((line?.em ?? 0) * (blocks[0]?.em ?? 0) * 0.5).toBeGreaterThanOrEqual(7 * 4.5 - 1e-6);
    // The second is too long for any place: the first and the third stand all the same.
    const long = { ...words(4), ways: [way(60, 1)] } as ReadyItem;
    const three = [words(3), long, words(5)].map((one) => ({ long: one, short: null }));
    const laid = layOut({ items: three, room, ground: calm, subject: null, scale: 4.5 });
    expect(laid.lost.map(({ item }) => item.id)).toEqual([id(4)]);
    expect(laid.blocks.map(({ block }) => block.parts[0]?.item.id)).toEqual([id(3), id(5)]);
  });

  test('wishes are followed, lines that wish so stand under the words before, and a short version where the long one cannot be read', () => {
    const room = roomIn({ left: 0, top: 0, width: 1000, height: 500 }, { shape: 'rectangle' }, 0, [], []);
    const at = (wish: WordsItem['wish']) =>
      layOut({ items: [{ long: words(1, { wish }), short: null }], room, ground: calm, subject: null, scale: 1 })
        .blocks[0]?.box;
    const [top, bottom] = [at('top left'), at('bottom right')];
    expect([top?.left, top?.top]).toEqual([room.bounds.left, room.bounds.top]);
    expect((bottom?.left ?? 0) + (bottom?.width ?? 0)).toBeCloseTo(room.bounds.left + room.bounds.width, 6);
    const under = words(2, { wish: 'under the words before', wanted: 0.1 });
    const stacked = layOut({
      items: [
        { long: words(1), short: null },
        { long: under, short: null },
      ],
      room,
      ground: calm,
      subject: null,
      scale: 1,
    });
    expect(stacked.blocks.map(({ block }) => block.parts.map(({ item }) => item.id))).toEqual([[id(1), id(2)]]);
    const short: ReadyItem = { ...words(1), ways: [way(1, 1)] } as ReadyItem;
    const small = { ...room, bounds: { left: 0, top: 0, width: 100, height: 100 } };
    const shortened = layOut({
      items: [{ long: words(1), short }],
      room: small,
      ground: calm,
      subject: null,
      scale: 6,
    });
    expect(shortened.blocks[0]?.block.width).toBe(1);
  });

  test('what was only seen is spared while there is other room; words go where it is calm, in the colour that is seen there', () => {
    const frame = { left: 0, top: 0, width: 960, height: 480 };
    const spared = [{ left: 0, top: 0, width: 960, height: 300 }];
    const room = roomIn(frame, { shape: 'rectangle' }, 0, [], spared);
    const below = layOut({ items: [{ long: words(1), short: null }], room, ground: calm, subject: null, scale: 1 })
      .blocks[0];
    expect(below?.box.top).toBeGreaterThanOrEqual(300);
    const all = roomIn(frame, { shape: 'rectangle' }, 0, [], [frame]);
    const over = layOut({ items: [{ long: words(1), short: null }], room: all, ground: calm, subject: null, scale: 1 });
    expect(over.blocks).toHaveLength(1);

    // The left half is light and calm, the right half busy.
    const [columns, rows] = [8, 4];
    const cells = (value: (column: number) => string) =>
      Array.from({ length: columns * rows }, (_, cell) => value(cell % columns)).join('');
    const seen = { columns, rows, light: cells(() => 'e0'), spread: cells((column) => (column < 4 ? '02' : '60')) };
    const window = { centreX: 480, centreY: 240, span: 960, turn: 0, mirror: false };
    const ground = frameGround(seen, window, frame, 1, { width: 960, height: 480 });
    const open = roomIn(frame, { shape: 'rectangle' }, 0, [], []);
    const [placed] = layOut({
      items: [{ long: words(1), short: null }],
      room: open,
      ground,
      subject: null,
      scale: 1,
    }).blocks;
    expect((placed?.box.left ?? 480) + (placed?.box.width ?? 0)).toBeLessThanOrEqual(480);
    const two = testStyle({ colour: '#ffffff', otherColour: '#101820' });
    expect(colourOn(two, ground.under(placed?.box ?? frame)).colour).toBe('#101820');
    expect(
      frameGround(seen, { ...window, mirror: true }, frame, 1, { width: 960, height: 480 }).under({
        ...frame,
        width: 400,
      }).spread,
    ).toBeGreaterThan(80);
  });
});
