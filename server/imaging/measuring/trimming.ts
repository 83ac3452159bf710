import type { Rect } from '@inkwell/core/geometry';
import type { Dimensions, Original, Trim } from '@inkwell/core/model';
import { scalePlan, wholePlan } from '@inkwell/core/planning';
import { type ContentOptions, contentBox } from '@inkwell/core/seeing';
import type { WorkingCopies } from '../copies/workingCopy.ts';
import type { Pixels } from '../stages/pixels.ts';
import { renderPixels } from '../stages/renderPixels.ts';

/** The longer side at which a margin is looked for, in pixels. */
const lookedAt = 2000;

/** An original as it is looked at for its margin. */
export async function seenForTrim(
  original: Pick<Original, 'sha256' | 'page' | 'width' | 'height' | 'hasAlpha'>,
  copies: WorkingCopies,
): Promise<Pixels> {
  const share = Math.min(1, lookedAt / Math.max(original.width, original.height));
  return renderPixels(scalePlan(wholePlan(original), share), await copies.get(original));
}

/** The trim that leaves an original's empty margin away; null where there is none to leave. */
export async function proposeTrim(
  original: Original,
  options: ContentOptions,
  copies: WorkingCopies,
): Promise<Trim | null> {
  const seen = await seenForTrim(original, copies);
  const box = contentBox(seen, options);
  const trim = box && trimOf(box, seen, original);
  return !trim || (trim.width === original.width && trim.height === original.height) ? null : trim;
}

/** A box of a smaller version as a trim: an edge may lie anywhere within its pixel, and the trim keeps all of it. */
export function trimOf(box: Rect, seen: Dimensions, original: Dimensions): Trim {
  const [x, y] = [original.width / seen.width, original.height / seen.height];
  const left = Math.floor(box.left * x);
  const top = Math.floor(box.top * y);
  return {
    left,
    top,
    width: Math.min(original.width, Math.ceil((box.left + box.width) * x)) - left,
    height: Math.min(original.height, Math.ceil((box.top + box.height) * y)) - top,
  };
}
