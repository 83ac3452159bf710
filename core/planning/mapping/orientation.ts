import { z } from 'zod';
import type { Rect } from '../../geometry/index.ts';
import type { Part } from './part.ts';

/** The orientation tag of Exif 2.32 (tag 274): how stored rows and columns lie when the picture stands upright. */
export const OrientationSchema = z.union([1, 2, 3, 4, 5, 6, 7, 8].map((value) => z.literal(value as Orientation)));
export type Orientation = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8;

/** Upright columns are stored as rows. */
const swaps = (orientation: Orientation) => orientation >= 5;
/** The stored picture's left (top) edge is on the far side of the axis that it lies on when upright. */
const reversesAcross = (orientation: Orientation) => [2, 3, 7, 8].includes(orientation);
const reversesDown = (orientation: Orientation) => [3, 4, 6, 7].includes(orientation);

/** The part of the stored pixels that is `part` of the upright picture; its output lies as stored, too. */
export function asStored({ original, source, within, output }: Part, orientation: Orientation): Part {
  const swap = swaps(orientation);
  const width = swap ? original.height : original.width;
  const height = swap ? original.width : original.height;
  const stored = ({ left, top, ...sides }: Rect): Rect => {
    const across = swap ? { start: top, length: sides.height } : { start: left, length: sides.width };
    const down = swap ? { start: left, length: sides.width } : { start: top, length: sides.height };
    return {
      left: reversesAcross(orientation) ? width - across.start - across.length : across.start,
      top: reversesDown(orientation) ? height - down.start - down.length : down.start,
      width: across.length,
      height: down.length,
    };
  };
  return {
    original: { width, height },
    source: stored(source),
    within: stored(within),
    output: swap ? { width: output.height, height: output.width } : output,
  };
}

/** What turns stored pixels upright: first mirrored left to right where `flop` says so, then turned clockwise. */
export function turnUpright(orientation: Orientation): { flop: boolean; degrees: 0 | 90 | 180 | 270 } {
  const flop = [2, 4, 5, 7].includes(orientation);
  const degrees = ({ 1: 0, 2: 0, 3: 180, 4: 180, 5: 270, 6: 90, 7: 90, 8: 270 } as const)[orientation];
  return { flop, degrees };
}
