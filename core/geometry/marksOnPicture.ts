import type { Mark } from '../model/index.ts';
import { intersection, type Rect } from './rect.ts';

/**
 * The marks as far as they lie on the picture, in their order: a trim may have taken a part of one away, or all of it,
 * and no window can show what is not there.
 */
export function marksOnPicture<Marked extends Mark>(marks: readonly Marked[], box: Rect): Marked[] {
  return marks
    .map((mark) => ({ ...mark, ...intersection(mark, box) }))
    .filter(({ width, height }) => width > 0 && height > 0);
}
