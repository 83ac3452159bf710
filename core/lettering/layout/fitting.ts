import type { Rect } from '../../geometry/index.ts';
import type { Alignment } from '../setting/setWords.ts';
import { alignmentOf, alignmentZones, type Block } from './block.ts';
import type { Room } from './room.ts';
import { nearestIn, openPlaces, type Stretch } from './seams.ts';

/**
 * Positions along one axis that are tried in an open rectangle: its ends, its middle, and the middle of the frame, or what is open
 * nearest to them. Between seams also the middle of each stretch: the seam lies in the middle of what is free between two words.
 */
export function positions(open: readonly Stretch[], from: number, free: number, middle: number): number[] {
  const liked = [from, from + free / 2, from + free, Math.min(from + free, Math.max(from, middle))];
  const between = open.length > 1 ? open.map((one) => (one.from + one.to) / 2) : [];
  return [...new Set([...liked.map((one) => nearestIn(open, one)), ...between])];
}

/** Over seams, where a size finds no place, the next is this much smaller, down to a share of the largest. */
const step = 0.97;
const smallest = 0.02;

/** A block in an open rectangle, with where it can begin there. */
interface Fit {
  block: Block;
  rect: Rect;
  em: number;
  open: Record<'x' | 'y', Stretch[]>;
  /** Of its lines, where seams lie between the letters: these cannot move against each other. */
  alignment?: Alignment;
}

/** A block in an open rectangle, as large as it can be there; none where it cannot be read there. */
export function fitsIn(block: Block, rect: Rect, least: number, wanted: number, room: Room): Fit[] {
  const { seams, bounds } = room;
  const most = Math.min(rect.width / block.width, rect.height / block.height, Math.max(wanted, least));
  if (most < least) return [];
  if (seams.length === 0) {
    const open = openPlaces(block, 'middle', most, seams, rect);
    return open ? [{ block, rect, em: most, open }] : [];
  }
  // Lines lie to each other as they would anyhow where they stand, so that nothing jumps when a hand takes them.
  return alignmentZones.flatMap(([from, to]) => {
    for (let em = most; em >= Math.max(least, most * smallest); em *= step) {
      const lines = alignmentOf(block, (from + to) / 2);
      const found = openPlaces(block, lines, em, seams, rect);
      const leftAt = (share: number) => bounds.left + bounds.width * share - (block.width * em) / 2;
      const x = (found?.x ?? [])
        .map((one) => ({ from: Math.max(one.from, leftAt(from)), to: Math.min(one.to, leftAt(to)) }))
        .filter((one) => one.from <= one.to);
      if (found && x.length > 0) return [{ block, rect, em, open: { ...found, x }, alignment: lines }];
    }
    return [];
  });
}
