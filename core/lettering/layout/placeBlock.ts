import { intersection, type Rect } from '../../geometry/index.ts';
import type { LetterStyle, Wish } from '../../model/index.ts';
import { colourOn, enough } from '../colourOn.ts';
import type { Alignment } from '../setting/setWords.ts';
import type { Block } from './block.ts';
import { fitsIn, positions } from './fitting.ts';
import type { FrameGround } from './frameGround.ts';
import { openIn, type Room } from './room.ts';
import { distanceFromWish } from './wishes.ts';

/** A block where it stands in a file. */
export interface PlacedBlock {
  block: Block;
  box: Rect;
  /** Pixels to one em of the block's first item. */
  em: number;
  /** How its lines lie to each other; where it is left out, by where the block stands. */
  alignment?: Alignment;
}

export interface ToPlace {
  /** Each with the least em at which it can be read. */
  blocks: readonly { block: Block; least: number }[];
  /** Pixels to one em that would be liked. */
  wanted: number;
  wish: Wish;
  /** Of the block's first words; null where it has none. */
  style: LetterStyle | null;
  room: Room;
  ground: FrameGround;
  /** What the picture is about, in pixels of the file. */
  subject: Rect | null;
}

/**
 * Smaller than this share of what is possible nothing is made for the sake of a better place: words that may stand anywhere are as
 * large as they can be; what has a place of its own, or lies over several pieces, rather stands well.
 */
const worthwhile = { anywhere: 0.92, across: 0.6, there: 0.4 } as const;
/** A spread of so many levels is as busy as a ground can be. */
const busiest = 64;
/** What each thing costs that a good designer would avoid. */
const costs = { smaller: 2, wish: 3, busy: 0.8, contrast: 1.2, spared: 3, lines: 0.03, linesAcross: 0.5 } as const;
/** More open rectangles than these are looked at no further: the largest come first. */
const mostRooms = 12;

/** Places a block as large and as well as its room allows; null where it cannot be read anywhere. */
export function placeBlock(asked: ToPlace, sparing: boolean): PlacedBlock | null {
  const { blocks, wanted, room } = asked;
  const sizes = blocks.map(({ block, least: em }) => ({ width: block.width * em, height: block.height * em }));
  const narrowest = {
    width: Math.min(...sizes.map(({ width }) => width)),
    height: Math.min(...sizes.map(({ height }) => height)),
  };
  const open = openIn(room, sparing, narrowest)
    .sort((a, b) => b.width * b.height - a.width * a.height)
    .slice(0, mostRooms);
  const fits = blocks.flatMap(({ block, least: em }) => open.flatMap((rect) => fitsIn(block, rect, em, wanted, room)));
  const isAnywhere = asked.wish === 'wherever it is calm';
  const least = worthwhile[room.seams.length > 0 ? 'across' : isAnywhere ? 'anywhere' : 'there'];
  const largest = Math.max(...fits.map(({ em }) => em));
  let best: (PlacedBlock & { cost: number }) | null = null;
  for (const { block, rect, em, open: places, alignment } of fits) {
    if (em < largest * least) continue;
    const size = { width: block.width * em, height: block.height * em };
    const middle = (first: number, whole: number, length: number) => first + (whole - length) / 2;
    const across = positions(
      places.x,
      rect.left,
      rect.width - size.width,
      middle(room.bounds.left, room.bounds.width, size.width),
    );
    const down = positions(
      places.y,
      rect.top,
      rect.height - size.height,
      middle(room.bounds.top, room.bounds.height, size.height),
    );
    for (const left of across) {
      for (const top of down) {
        const box = { left, top, ...size };
        const cost = costOf(asked, block, box, em / largest);
        if (!best || cost < best.cost) best = { block, box, em, cost, ...(alignment ? { alignment } : {}) };
      }
    }
  }
  if (!best) return null;
  const { cost: _, ...placed } = best;
  return placed;
}

/** What a place costs: 0 for one where nothing could be better. */
function costOf({ wish, style, room, ground, subject }: ToPlace, block: Block, box: Rect, share: number): number {
  const under = ground.under(box);
  const contrast = style ? colourOn(style, under).contrast : enough;
  const sparedShare = room.spared.reduce((sum, rect) => {
    const common = intersection(rect, box);
    return sum + (common.width * common.height) / (box.width * box.height);
  }, 0);
  return (
    costs.smaller * (1 - share) +
    costs.wish * distanceFromWish(box, wish, room.bounds, subject) +
    costs.busy * Math.min(1, under.spread / busiest) +
    costs.contrast * Math.max(0, 1 - contrast / enough) +
    costs.spared * sparedShare +
    // What lies over several pieces is meant to be read along them.
    (room.seams.length > 0 ? costs.linesAcross : costs.lines) * (block.parts[0]?.words?.lines ?? 1)
  );
}
