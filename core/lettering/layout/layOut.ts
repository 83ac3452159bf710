import type { Rect } from '../../geometry/index.ts';
import type { Item } from '../../model/index.ts';
import { blocksOf, leastEm, type ReadyItem } from './block.ts';
import type { FrameGround } from './frameGround.ts';
import { type PlacedBlock, placeBlock } from './placeBlock.ts';
import type { Room } from './room.ts';

/** An item that a frame is without, and why, in words. */
export interface Lost {
  item: Item;
  reason: string;
}

/** Where everything stands in a room. */
export interface Laid {
  blocks: PlacedBlock[];
  lost: Lost[];
}

export interface ToLayOut {
  /** The most important first. */
  groups: readonly Group[];
  room: Room;
  ground: FrameGround;
  subject: Rect | null;
  /** Pixels of the file to one that is shown, where it is shown smallest. */
  scale: number;
}

/** An item with those that stand under it. */
export interface Group {
  long: ReadyItem[];
  short: ReadyItem[];
}

/** Items stand under the words before them where they wish so. */
export function grouped(items: readonly { long: ReadyItem; short: ReadyItem | null }[]): Group[] {
  const groups: Group[] = [];
  for (const { long, short } of items) {
    const last = groups.at(-1);
    if (last && long.item.wish === 'under the words before') {
      last.long.push(long);
      last.short.push(short ?? long);
    } else groups.push({ long: [long], short: [short ?? long] });
  }
  return groups;
}

/** What stays free between two blocks, as a share of the room's shorter side. */
const apart = 0.03;
/** Where a later item finds no room, those before it are made smaller, by these steps. */
const steps = [1, 0.85, 0.7, 0.55, 0.4] as const;

const outer = ({ left, top, width, height }: Rect, by: number): Rect => ({
  left: left - by,
  top: top - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/**
 * Lays out all items of a room: each as large as it would like to be, as far as there is room, in the order of their importance; where
 * one finds none, those before it give way in size. What still finds no room is lost: a single item where that is enough, the least
 * important first.
 */
export function layOut(asked: ToLayOut): Laid {
  let { groups } = asked;
  const gone: ReadyItem[] = [];
  while (groups.length > 0) {
    const all = placeAtAnySize(asked, groups);
    if (all) return { blocks: all, lost: gone.map(lost) };
    const items = groups.flatMap(({ long }) => long);
    for (const item of items.toReversed()) {
      const blocks = placeAtAnySize(asked, without(groups, item));
      if (blocks && blocks.length > 0) return { blocks, lost: [item, ...gone].map(lost) };
    }
    const last = items.at(-1) as ReadyItem;
    gone.unshift(last);
    groups = without(groups, last);
  }
  return { blocks: [], lost: gone.map(lost) };
}

/** Groups without one of their items. */
function without(groups: readonly Group[], item: ReadyItem): Group[] {
  return groups.flatMap(({ long, short }) => {
    const keeps = (_: ReadyItem, at: number) => long[at] !== item;
    const rest = { long: long.filter(keeps), short: short.filter(keeps) };
    return rest.long.length > 0 ? [rest] : [];
  });
}

function placeAtAnySize(asked: ToLayOut, groups: readonly Group[]): PlacedBlock[] | null {
  for (const step of steps) {
    const blocks = placeAll(asked, groups, step);
    if (blocks) return blocks;
  }
  return null;
}

const lost = ({ item }: ReadyItem): Lost => ({
  item,
  reason: `There is no room where ${item.name} could be read.`,
});

/** Places all groups, the first of them at most `step` of the size that it would like to have; null where one finds no room. */
function placeAll(asked: ToLayOut, groups: readonly Group[], step: number): PlacedBlock[] | null {
  const { room, ground, subject, scale } = asked;
  const shorter = Math.min(room.bounds.width, room.bounds.height);
  const placed: PlacedBlock[] = [];
  for (const [at, group] of groups.entries()) {
    const taken = placed.map(({ box }) => outer(box, apart * shorter));
    const isLast = at === groups.length - 1;
    const free = { ...room, closed: [...room.closed, ...taken] };
    const found = firstPlace(group, (items, raised) => {
      const [first, ...under] = items;
      if (!first) return null;
      const blocks = blocksOf(first, under, raised).map((block) => ({ block, least: leastEm(block, scale) }));
      const wanted = first.item.wanted * shorter * (isLast ? 1 : step);
      const styled = items.find((one) => 'ways' in one);
      const style = styled && 'ways' in styled ? styled.item.style : null;
      const here = { blocks, wanted, wish: first.item.wish, style, ground, subject, room: free };
      return placeBlock(here, true) ?? placeBlock(here, false);
    });
    if (!found) return null;
    placed.push(found);
  }
  return placed;
}

/** So many times as large as they would like to be, against the first, items of a group are made where they could not be read else. */
const raises = [1, 1.6, 2.6] as const;

/** The long version where it finds a place, else the short one. */
function firstPlace(
  { long, short }: Group,
  place: (items: readonly ReadyItem[], raised: number) => PlacedBlock | null,
): PlacedBlock | null {
  const hasShort = short.some((one, at) => one !== long[at]);
  for (const items of hasShort ? [long, short] : [long]) {
    for (const raised of items.length > 1 ? raises : [1]) {
      const found = place(items, raised);
      if (found) return found;
    }
  }
  return null;
}
