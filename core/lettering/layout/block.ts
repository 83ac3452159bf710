import type { Rect } from '../../geometry/index.ts';
import type { EmblemItem, Item, LetterStyle, ShapeItem, WordsItem } from '../../model/index.ts';
import type { Alignment, SetWords } from '../setting/setWords.ts';

/** An item with all ways in which it can be set. */
export type ReadyItem = { item: WordsItem; ways: readonly SetWords[] } | { item: EmblemItem | ShapeItem };

/** One item of a block. Lengths in em of the block's first item. */
export interface BlockPart {
  item: Item;
  /** Pixels to one of its own em, for one of the block's. */
  em: number;
  /** Of its ink. */
  width: number;
  height: number;
  /** What its plate or outline takes on each side, or an emblem's clear space. */
  pad: number;
  /** From the block's top to its ink. */
  top: number;
  words: SetWords | null;
}

/** Items that stand under each other and are placed as one. Lengths in em of the first of them. */
export interface Block {
  width: number;
  height: number;
  parts: BlockPart[];
}

/** The least pixels of what is read, where a frame is shown smallest. */
const legible = { xHeight: 7, side: 24 } as const;

/** Raised so that they can be read, items under words get at most this large against these: whoever looks has to know what comes first. */
const mostRaised = 0.75;
/** Between two items of a block, in em of the smaller. */
const between = 0.42;

/** Width and height of a shape whose longer side is 1. */
const shapeSides: Record<ShapeItem['form'], { width: number; height: number }> = {
  plate: { width: 1, height: 0.5 },
  bar: { width: 1, height: 0.18 },
  rule: { width: 1, height: 0.025 },
  disc: { width: 1, height: 1 },
  arrow: { width: 1, height: 0.5 },
};

/** How far what sets words off reaches out of their ink on each side, in em of the words. */
function reachOf({ setOff }: Pick<LetterStyle, 'setOff'>): number {
  if (setOff.kind === 'plate') return setOff.padding;
  return setOff.kind === 'outline' ? setOff.width : 0;
}

/** Width and height of an emblem or a shape whose longer side is 1. */
function sidesOf(item: EmblemItem | ShapeItem): { width: number; height: number } {
  if (item.kind === 'shape') return shapeSides[item.form];
  const { width, height } = item.picture;
  const longer = Math.max(width, height);
  return { width: width / longer, height: height / longer };
}

function wordsPart({ item }: Extract<ReadyItem, { ways: unknown }>, way: SetWords, em: number): Omit<BlockPart, 'top'> {
  const { width, height } = way;
  return { item, em, width: width * em, height: height * em, pad: reachOf(item.style) * em, words: way };
}

function plainPart(item: EmblemItem | ShapeItem, em: number): Omit<BlockPart, 'top'> {
  const { width, height } = sidesOf(item);
  const pad = item.kind === 'emblem' ? item.clearSpace * em : 0;
  return { item, em, width: width * em, height: height * em, pad, words: null };
}

/** Puts parts under each other. */
function stacked(parts: readonly Omit<BlockPart, 'top'>[]): Block {
  let bottom = 0;
  const placed = parts.map((part, at): BlockPart => {
    const before = parts[at - 1];
    const gap = before ? between * Math.min(before.em, part.em, 1) : 0;
    const top = bottom + gap + part.pad;
    bottom = top + part.height + part.pad;
    return { ...part, top };
  });
  return { width: Math.max(...placed.map(({ width, pad }) => width + 2 * pad)), height: bottom, parts: placed };
}

/**
 * All ways in which an item and those under it can stand as a block: the first in every number of lines, the others as few as fit
 * its width, or as few as they can have.
 *
 * @param raised how many times larger than they would like to be the others are, against the first; none gets as large as it
 */
export function blocksOf(first: ReadyItem, under: readonly ReadyItem[], raised = 1): Block[] {
  const firsts = 'ways' in first ? first.ways.map((way) => wordsPart(first, way, 1)) : [plainPart(first.item, 1)];
  const emOf = ({ item }: ReadyItem) => {
    const share = item.wanted / first.item.wanted;
    return Math.max(share, Math.min(mostRaised, share * raised));
  };
  return firsts.flatMap((part) => {
    const fitting = (isNarrow: boolean) =>
      under.flatMap((one) => {
        if (!('ways' in one)) return [plainPart(one.item, emOf(one))];
        const room = part.width + 2 * part.pad;
        const fits = one.ways.find((way) => (way.width + 2 * reachOf(one.item.style)) * emOf(one) <= room);
        const way = isNarrow ? (fits ?? one.ways.at(-1)) : one.ways[0];
        return way ? [wordsPart(one, way, emOf(one))] : [];
      });
    const narrow = stacked([part, ...fitting(true)]);
    const wide = stacked([part, ...fitting(false)]);
    return wide.width > narrow.width ? [narrow, wide] : [narrow];
  });
}

/** The least pixels to one em of a block, so that all of it can be read. @param scale pixels of the file to one that is shown */
export function leastEm({ parts }: Block, scale: number): number {
  return Math.max(
    ...parts.map(({ words, em, item }) => {
      if (words) return (legible.xHeight * scale) / (words.xHeight * em);
      return item.kind === 'emblem' ? (legible.side * scale) / em : 0;
    }),
  );
}

/** Parts of a frame's width in which lines lie to each other in the same way, 0..1. */
export const alignmentZones = [
  [0, 0.4],
  [0.4, 0.6],
  [0.6, 1],
] as const;

/** How the lines of a block lie to each other, by where its middle stands in the frame, 0..1. */
export function alignmentOf({ parts }: Block, across: number): Alignment {
  const words = parts.find(({ item }) => item.kind === 'words')?.item;
  if (words?.kind === 'words' && words.style.align !== 'by place') return words.style.align;
  if (across < alignmentZones[1][0]) return 'start';
  return across > alignmentZones[1][1] ? 'end' : 'middle';
}

/** Where the ink of a part lies in a file. @param box of the block */
export function partBox(part: BlockPart, box: Rect, em: number, alignment: Alignment): Rect {
  const outer = (part.width + 2 * part.pad) * em;
  const atStart = part.words?.rightToLeft ? 1 : 0;
  const share = alignment === 'middle' ? 0.5 : alignment === 'start' ? atStart : 1 - atStart;
  return {
    left: box.left + (box.width - outer) * share + part.pad * em,
    top: box.top + part.top * em,
    width: part.width * em,
    height: part.height * em,
  };
}
