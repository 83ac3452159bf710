import { describe, expect, test } from 'vitest';
import { intersection } from '../geometry/index.ts';
import { type Hands, type Item, noHand, withHand } from '../model/index.ts';
import { frameGround } from './layout/frameGround.ts';
import { roomIn } from './layout/room.ts';
import { snapItem } from './layout/snapItem.ts';
import { letterItems } from './letterItems.ts';
import { testBook, testWords } from './testFonts.ts';

const book = testBook(['sofia-sans', 'noto-sans']);
const id = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
const items: Item[] = [testWords(1, 'Autumn kites'), testWords(2, '4 October')];
const whole = { left: 0, top: 0, width: 1000, height: 800 };
const face = { left: 400, top: 300, width: 200, height: 200 };
const still = { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false };
const ground = frameGround(null, still, whole, 1, whole);

function lettered(hands: Hands, values: Partial<Parameters<typeof letterItems>[2]> = {}, all: readonly Item[] = items) {
  const pieces = [{ rect: whole, room: roomIn(whole, { shape: 'rectangle' }, 0, [face], []) }];
  const frame = {
    originalId: id(9),
    place: { id: 'made/place', purpose: 'post' as const },
    pieces,
    whole: null,
    ground,
    subject: null,
    scale: 4,
  };
  return letterItems([...all], hands, { ...frame, ...values }, book);
}
const stand = (x: number, y: number, size: number) => ({ x, y, size, lines: 1 });

describe('the hand has the last word', () => {
  test('an item stands where it was put, as large as it was made, and the others are laid out beside it', () => {
    const { items: stood, moved } = lettered({ [id(1)]: { ...noHand, stand: stand(0.5, 0.15, 0.12) } });
    const [first, second] = stood;
    if (!first || !second) throw new Error('an item is missing');
    expect(first).toMatchObject({ itemId: id(1), isMoved: true, em: 96, lines: 1 });
    expect(first.box.left + first.box.width / 2).toBeCloseTo(500, 6);
    expect(first.box.top + first.box.height / 2).toBeCloseTo(120, 6);
    expect(second.isMoved).toBe(false);
    expect(intersection(first.box, second.box).height).toBe(0);
    expect(moved).toEqual([]);
    // On every piece where it is on every piece, in its place there.
    const halves = [0, 500].map((left) => ({ ...whole, left, width: 500 }));
    const pieces = halves.map((rect) => ({ rect, room: roomIn(rect, { shape: 'rectangle' }, 0, [], []) }));
    const onBoth = lettered({ [id(1)]: { ...noHand, stand: stand(0.5, 0.15, 0.05) } }, { pieces });
    const middles = onBoth.items.filter(({ isMoved }) => isMoved).map(({ box }) => box.left + box.width / 2);
    expect(middles).toEqual([250, 750]);
  });

  test('what stands under it goes along, unless a hand has put that somewhere itself', () => {
    const under: Item[] = [items[0] as Item, { ...(items[1] as Item), wish: 'under the words before', wanted: 0.05 }];
    const both = (hands: Hands) => lettered(hands, {}, under).items;
    const [title, date] = both({ [id(1)]: { ...noHand, stand: stand(0.3, 0.8, 0.1) } });
    if (!title || !date) throw new Error('an item is missing');
    expect([title.isMoved, date.isMoved]).toEqual([true, false]);
    expect(date.box.top - title.box.top - title.box.height).toBeLessThan(40);
    expect(date.box.left).toBeCloseTo(title.box.left, 6);
    expect(title.box.top + title.box.height / 2).toBeCloseTo(640, 6);
    const apart = both({ [id(2)]: { ...noHand, stand: stand(0.8, 0.9, 0.05) } });
    expect(apart.map(({ itemId, isMoved }) => [itemId, isMoved])).toEqual([
      [id(2), true],
      [id(1), false],
    ]);
  });

  test('it may be left out, rewritten with breaks of its own, and coloured, in one frame', () => {
    expect(lettered({ [id(1)]: { ...noHand, isOff: true } }).items.map(({ itemId }) => itemId)).toEqual([id(2)]);
    const rewritten = lettered({ [id(2)]: { ...noHand, text: 'Sunday\n4th', colour: '#ff0000' } });
    expect(rewritten.items[1]).toMatchObject({ text: 'Sunday\n4th', lines: 2 });
    expect(rewritten.layers.map((layer) => layer.kind === 'outline' && layer.colour)).toEqual(['#ffffff', '#ff0000']);
    expect(lettered({}, { place: { id: 'made/place', purpose: 'profile' } }).items).toEqual([]);
  });

  test('what is doubtful about where it was put is told, and nothing about what was laid out', () => {
    const told = (x: number, y: number, size: number) =>
      lettered({ [id(1)]: { ...noHand, stand: stand(x, y, size) } }).moved.map(({ kind }) => kind);
    expect(told(0.5, 0.5, 0.1)).toEqual(['covers']);
    expect(told(0.1, 0.9, 0.1)).toEqual(['near the edge']);
    expect(told(0.5, 0.15, 0.02)).toEqual(['small']);
    const small = lettered({ [id(1)]: { ...noHand, stand: stand(0.5, 0.15, 0.02) } }).moved[0];
    expect(told(0.5, 0.15, 0.02 * (small?.times ?? 1))).toEqual([]);
    expect(lettered({}).moved).toEqual([]);
  });

  test('hands that hold nothing are forgotten', () => {
    const held = withHand({}, id(1), { colour: '#112233' });
    expect(held).toEqual({ [id(1)]: { ...noHand, colour: '#112233' } });
    expect(withHand(held, id(2), { isOff: true })).toHaveProperty(id(2));
    expect(withHand(held, id(1), { colour: null })).toEqual({});
  });

  test('an item snaps to the nearest line within reach, each way by itself', () => {
    const bounds = { left: 40, top: 40, width: 920, height: 720 };
    const box = { left: 43, top: 500, width: 100, height: 30 };
    const other = { left: 300, top: 503, width: 50, height: 80 };
    const { by, lines } = snapItem(box, whole, bounds, [other], 6);
    expect(by).toEqual({ x: -3, y: 3 });
    expect(lines).toEqual([
      { axis: 'x', at: 40 },
      { axis: 'y', at: 503 },
    ]);
    expect(snapItem({ ...box, left: 60, top: 560 }, whole, bounds, [], 6)).toEqual({
      by: { x: 0, y: 0 },
      lines: [],
      distances: [],
    });
    expect(snapItem({ ...box, left: 333.4 - 50 }, whole, bounds, [], 6).by.x).toBeCloseTo(-0.067, 2);
  });

  test('an item snaps to where it is as far from one neighbour as from the other, and both distances are told', () => {
    const neighbours = [
      { left: 100, top: 300, width: 80, height: 100 },
      { left: 517, top: 330, width: 200, height: 100 },
    ];
    const box = { left: 296, top: 350, width: 100, height: 40 };
    const { by, lines, distances } = snapItem(box, whole, whole, neighbours, 6);
    // Between 180 and 517 there are 237 px left: half of them on each side.
    expect(by.x).toBeCloseTo(2.5, 9);
    expect(lines.filter(({ axis }) => axis === 'x')).toEqual([]);
    const across = distances.filter(({ axis }) => axis === 'x');
    expect(across.map(({ from, to }) => [from, to])).toEqual([
      [180, 298.5],
      [398.5, 517],
    ]);
    // With a neighbour on one side only, the frame's edge is the other; what lies above or below has no say.
    const [right] = neighbours.slice(1);
    const alone = { ...box, left: 207 };
    expect(snapItem(alone, whole, whole, right ? [right] : [], 6).by.x).toBeCloseTo(1.5, 9);
    expect(snapItem({ ...alone, top: 700 }, whole, whole, right ? [right] : [], 0.5).distances).toEqual([]);
  });
});
