import { coveringRect } from '@inkwell/core/geometry';
import type { PictureSource, Trim } from '@inkwell/core/model';
import { scalePlan, wholePlan } from '@inkwell/core/planning';
import { type ContentOptions, contentBox } from '@inkwell/core/seeing';
import type { WorkingCopies } from '../copies/workingCopy.ts';
import type { Pixels } from '../stages/pixels.ts';
import { renderPixels } from '../stages/renderPixels.ts';

/** The longer side at which a margin is looked for, in pixels. */
const lookedAt = 2000;

/** An original as it is looked at for its margin. */
export async function seenForTrim(original: PictureSource, copies: WorkingCopies): Promise<Pixels> {
  const share = Math.min(1, lookedAt / Math.max(original.width, original.height));
  return renderPixels(scalePlan(wholePlan(original), share), await copies.get(original));
}

/** The trim that leaves an original's empty margin away; null where there is none to leave. */
export async function proposeTrim(
  original: PictureSource,
  options: ContentOptions,
  copies: WorkingCopies,
): Promise<Trim | null> {
  const seen = await seenForTrim(original, copies);
  const box = contentBox(seen, options);
  const trim = box && coveringRect(box, seen, original);
  return !trim || (trim.width === original.width && trim.height === original.height) ? null : trim;
}
