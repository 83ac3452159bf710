import type { Rect } from '../../geometry/index.ts';
import { calmRange, findCalmBlocks, PlaneMemory } from '../../planes/index.ts';
import { mapMeans } from './ssimMap.ts';

/** Blocks of so many pixels each way are looked at. */
const block = 4;
/** A spot says something about calm areas where at least this share of its blocks are calm. */
const leastCalm = 1 / 8;

/**
 * Reserves the memory that it takes to see how far the calm parts of a picture have moved; what comes back does so once the two
 * planes are filled, for any rectangle: the root of the mean square of the difference, in levels. Steps in a smooth sky and
 * specks round lettering on a plain ground are seen at two levels, where structural similarity, which is made for texture,
 * hardly counts them. 0 where too little of the rectangle is calm.
 */
export function flatAreaErrors(
  arena: PlaneMemory,
  [before, after]: readonly [number, number],
  { width, height }: { width: number; height: number },
): () => (rect: Rect) => number {
  const [columns, rows] = [Math.floor(width / block), Math.floor(height / block)];
  const blocks = { width: columns, height: rows };
  const [moved, calm] = [arena.reservePlane(blocks), arena.reservePlane(blocks)];
  const place = { scale: block, across: 1, first: 0, step: 1 };
  const line = arena.reserve(3 * PlaneMemory.lengthOf({ width, height: 1 }) + 12);
  const [mapMoved, mapCalm] = [mapMeans(arena, columns, rows, place), mapMeans(arena, columns, rows, place)];
  return () => {
    if (columns === 0 || rows === 0) return () => 0;
    findCalmBlocks(arena, [{ at: before, width, height }, after], { range: calmRange, line, moved, calm });
    const [movedMap, calmMap] = [mapMoved(moved), mapCalm(calm)];
    return (rect) => {
      const share = calmMap.mean(rect);
      // Where nothing has moved, sums that are taken from each other may leave a little less than nothing.
      return share < leastCalm ? 0 : Math.sqrt(Math.max(0, movedMap.mean(rect)) / share);
    };
  };
}
