import { intersection, type Point, type Rect } from '../geometry/index.ts';
import type { Hand, Item, LetteredItem, Stand } from '../model/index.ts';
import { alignmentOf, type Block, blocksOf, leastEm, partBox, type ReadyItem } from './layout/block.ts';
import type { PlacedBlock } from './layout/placeBlock.ts';
import { openIn, type Room } from './layout/room.ts';
import { nearestIn, openPlaces } from './layout/seams.ts';
import type { Alignment } from './setting/setWords.ts';

/** What is doubtful about where a hand has put an item. */
export interface MovedProblem {
  item: Item;
  kind: 'covers' | 'on a seam' | 'near the edge' | 'small';
  /** How many times larger it would have to be, where it is small. */
  times: number;
  /** Where it could stand and cover nothing, as large as it is or, where it is small, as it would have to be, the nearest first: in as many lines as it has, then in others. */
  free: Stand[];
}

/** An item as a hand has written it in one frame. */
export function asWritten(item: Item, hand: Hand | undefined): Item {
  if (!hand || item.kind !== 'words') return item;
  const set = hand.setOff ? { ...item.style, setOff: hand.setOff } : item.style;
  const style = hand.colour ? { ...set, colour: hand.colour, otherColour: null } : set;
  return hand.text === null ? { ...item, style } : { ...item, style, text: hand.text, short: '' };
}

/** Where an item stands, as if a hand had put it there. */
export const standOf = ({ box, em, lines, piece }: LetteredItem): Stand => ({
  x: (box.left + box.width / 2 - piece.left) / piece.width,
  y: (box.top + box.height / 2 - piece.top) / piece.height,
  size: em / Math.min(piece.width, piece.height),
  lines,
});

/** An item that a hand has put somewhere, with what stands under it. */
export interface PutByHand {
  first: ReadyItem;
  under: readonly ReadyItem[];
  stand: Stand;
}

/** The middle of an item's ink, by the box of the block that it leads. */
function inkMiddle(block: Block, box: Rect, em: number, alignment: Alignment): Point {
  const [first] = block.parts;
  if (!first) return { x: box.left, y: box.top };
  const ink = partBox(first, box, em, alignment);
  return { x: ink.left + ink.width / 2, y: ink.top + ink.height / 2 };
}

/** An item where a hand has put it, with what stands under it; null where there is nothing to be seen of it. */
export function placedByHand({ first, under, stand }: PutByHand, piece: Rect): PlacedBlock | null {
  const blocks = blocksOf(first, under);
  const block = blocks.find(({ parts }) => parts[0]?.words?.lines === stand.lines) ?? blocks[0];
  if (!block) return null;
  const em = stand.size * Math.min(piece.width, piece.height);
  const alignment = alignmentOf(block, stand.x);
  const size = { width: block.width * em, height: block.height * em };
  const middle = inkMiddle(block, { left: 0, top: 0, ...size }, em, alignment);
  const left = piece.left + stand.x * piece.width - middle.x;
  const top = piece.top + stand.y * piece.height - middle.y;
  return { block, em, alignment, box: { left, top, ...size } };
}

/**
 * Where an item could stand as large as it is and cover nothing: as near as can be in as many lines as it has, then in more or fewer. A
 * number of lines that finds no room is left out.
 */
function freeStands({ first, under, stand }: PutByHand, piece: Rect, room: Room): Stand[] {
  const em = stand.size * Math.min(piece.width, piece.height);
  const from = { x: piece.left + stand.x * piece.width, y: piece.top + stand.y * piece.height };
  const ways = blocksOf(first, under).flatMap((block) => {
    const size = { width: block.width * em, height: block.height * em };
    const lines = block.parts[0]?.words?.lines ?? 1;
    const found = openIn(room, false, size).flatMap((rect) => {
      const open = openPlaces(block, alignmentOf(block, stand.x), em, room.seams, rect);
      if (!open) return [];
      const box = {
        left: nearestIn(open.x, from.x - size.width / 2),
        top: nearestIn(open.y, from.y - size.height / 2),
        ...size,
      };
      const across = (box.left + size.width / 2 - piece.left) / piece.width;
      const { x, y } = inkMiddle(block, box, em, alignmentOf(block, across));
      const at = { x: (x - piece.left) / piece.width, y: (y - piece.top) / piece.height };
      return [{ stand: { ...stand, ...at, lines }, far: Math.hypot(x - from.x, y - from.y) }];
    });
    const [best] = found.sort((a, b) => a.far - b.far);
    return best ? [best] : [];
  });
  const change = (way: (typeof ways)[number]) => Math.abs(way.stand.lines - stand.lines);
  return ways.sort((a, b) => change(a) - change(b) || a.far - b.far).map((way) => way.stand);
}

/** Less than this many pixels nobody sees. */
const unseen = 0.5;

/** What is doubtful about an item that a hand has put somewhere: a hand may do all of it. */
export function problemsOf(
  put: PutByHand & { placed: PlacedBlock },
  piece: Rect,
  room: Room,
  scale: number,
): MovedProblem[] {
  const { block, box, em, alignment = 'middle' } = put.placed;
  const covers = room.closed.some((rect) => {
    const common = intersection(rect, box);
    return common.width > unseen && common.height > unseen;
  });
  const isCut = openPlaces(block, alignment, em, room.seams, box) === null;
  const inside = intersection(box, room.bounds);
  const isOut = inside.width < box.width - unseen || inside.height < box.height - unseen;
  const times = leastEm(block, scale) / em;
  const kinds: MovedProblem['kind'][] = [
    ...(covers ? (['covers'] as const) : []),
    ...(isCut ? (['on a seam'] as const) : []),
    ...(isOut ? (['near the edge'] as const) : []),
    ...(times > 1.001 ? (['small'] as const) : []),
  ];
  const { first, stand } = put;
  return kinds.map((kind) => {
    const size = stand.size * (kind === 'small' ? times : 1);
    return { item: first.item, kind, times, free: freeStands({ ...put, stand: { ...stand, size } }, piece, room) };
  });
}
