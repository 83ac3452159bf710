import { coveringRect } from '@inkwell/core/geometry';
import type { PictureSource, Trim } from '@inkwell/core/model';
import { bodyBox } from '@inkwell/core/seeing';
import type { WorkingCopies } from '../copies/workingCopy.ts';
import { seenForTrim } from './trimming.ts';

/** A body that leaves less than this part of a side empty is the picture itself. */
const leastMargin = 0.01;

/** The trim to the body of artwork; null where it has no margin, or nothing on it. */
export async function bodyOf(original: PictureSource, copies: WorkingCopies): Promise<Trim | null> {
  const seen = await seenForTrim(original, copies);
  const box = bodyBox(seen);
  if (!box) return null;
  const isWhole = box.width >= (1 - leastMargin) * seen.width && box.height >= (1 - leastMargin) * seen.height;
  return isWhole ? null : coveringRect(box, seen, original);
}
