import { intersection, type Rect } from '../../geometry/index.ts';
import type { LetterStyle, Wish } from '../../model/index.ts';
import { colourOn, enough } from '../colourOn.ts';
import type { Alignment } from '../setting/setWords.ts';
import { alignmentOf, type Block } from './block.ts';
import type { FrameGround } from './frameGround.ts';
import { openIn, type Room } from './room.ts';
import { nearestIn, openPlaces, type Stretch } from './seams.ts';
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
 * large as they can be, what has a place of its own rather stands there.
 */
const worthwhile = { anywhere: 0.92, there: 0.6 } as const;
/** A spread of so many levels is as busy as a ground can be. */
const busiest = 64;
/** What each thing costs that a good designer would avoid. */
const costs = { smaller: 2, wish: 3, busy: 0.8, contrast: 1.2, spared: 3, lines: 0.03 } as const;
/** More open rectangles than these are looked at no further: the largest come first. */
const mostRooms = 12;

/**
 * Positions along one axis that are tried in an open rectangle: its ends, its middle, and the middle of the frame, or what is open
 * nearest to them. Between seams also the middle of each stretch: the seam lies in the middle of what is free between two words.
 */
function positions(open: readonly Stretch[], from: number, free: number, middle: number): number[] {
  const liked = [from, from + free / 2, from + free, Math.min(from + free, Math.max(from, middle))];
  const between = open.length > 1 ? open.map((one) => (one.from + one.to) / 2) : [];
  return [...new Set([...liked.map((one) => nearestIn(open, one)), ...between])];
}

/** Over seams, where a size finds no place, the next is this much smaller. */
const step = 0.97;

/** A block in an open rectangle, as large as it can be there, with where it can begin; null where it cannot be read there. */
function fitted(block: Block, rect: Rect, least: number, wanted: number, { seams }: Room) {
  const most = Math.min(rect.width / block.width, rect.height / block.height, Math.max(wanted, least));
  for (let em = most; em >= least; em *= step) {
    const open = openPlaces(block, alignmentOf(block, 0.5), em, seams, rect);
    if (open) return { block, rect, em, open };
  }
  return null;
}

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
  const fits = blocks.flatMap(({ block, least: em }) =>
    open.flatMap((rect) => fitted(block, rect, em, wanted, room) ?? []),
  );
  const least = asked.wish === 'wherever it is calm' ? worthwhile.anywhere : worthwhile.there;
  const largest = Math.max(...fits.map(({ em }) => em));
  let best: (PlacedBlock & { cost: number }) | null = null;
  for (const { block, rect, em, open: places } of fits) {
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
        if (!best || cost < best.cost) best = { block, box, em, cost };
      }
    }
  }
  if (!best) return null;
  const { block, box, em } = best;
  // Where seams lie between the letters these cannot move against each other.
  return room.seams.length > 0 ? { block, box, em, alignment: alignmentOf(block, 0.5) } : { block, box, em };
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
    costs.lines * (block.parts[0]?.words?.lines ?? 1)
  );
}
