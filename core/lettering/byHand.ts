import { intersection, type Rect } from '../geometry/index.ts';
import type { Hand, Item, Stand } from '../model/index.ts';
import { alignmentOf, blocksOf, leastEm, partBox, type ReadyItem } from './layout/block.ts';
import type { PlacedBlock } from './layout/placeBlock.ts';
import type { Room } from './layout/room.ts';

/** What is doubtful about where a hand has put an item. */
export interface MovedProblem {
  item: Item;
  kind: 'covers' | 'near the edge' | 'small';
  /** How many times larger it would have to be, where it is small. */
  times: number;
}

/** An item as a hand has written it in one frame. */
export function asWritten(item: Item, hand: Hand | undefined): Item {
  if (!hand || item.kind !== 'words') return item;
  const style = hand.colour ? { ...item.style, colour: hand.colour, otherColour: null } : item.style;
  return hand.text === null ? { ...item, style } : { ...item, style, text: hand.text, short: '' };
}

/** An item where a hand has put it, with what stands under it; null where there is nothing to be seen of it. */
export function placedByHand(
  ready: ReadyItem,
  under: readonly ReadyItem[],
  stand: Stand,
  piece: Rect,
): PlacedBlock | null {
  const blocks = blocksOf(ready, under);
  const block = blocks.find(({ parts }) => parts[0]?.words?.lines === stand.lines) ?? blocks[0];
  const [first] = block?.parts ?? [];
  if (!block || !first) return null;
  const em = stand.size * Math.min(piece.width, piece.height);
  const alignment = alignmentOf(block, stand.x);
  const size = { width: block.width * em, height: block.height * em };
  const ink = partBox(first, { left: 0, top: 0, ...size }, em, alignment);
  const left = piece.left + stand.x * piece.width - ink.left - ink.width / 2;
  const top = piece.top + stand.y * piece.height - ink.top - ink.height / 2;
  return { block, em, alignment, box: { left, top, ...size } };
}

/** Less than this many pixels nobody sees. */
const unseen = 0.5;

/** What is doubtful about an item that a hand has put somewhere: a hand may do all of it. */
export function problemsOf(item: Item, { block, box, em }: PlacedBlock, room: Room, scale: number): MovedProblem[] {
  const covers = room.closed.some((rect) => {
    const common = intersection(rect, box);
    return common.width > unseen && common.height > unseen;
  });
  const inside = intersection(box, room.bounds);
  const isOut = inside.width < box.width - unseen || inside.height < box.height - unseen;
  const times = leastEm(block, scale) / em;
  const kinds: MovedProblem['kind'][] = [
    ...(covers ? (['covers'] as const) : []),
    ...(isOut ? (['near the edge'] as const) : []),
    ...(times > 1.001 ? (['small'] as const) : []),
  ];
  return kinds.map((kind) => ({ item, kind, times }));
}
