import type { Original, Trim } from '@inkwell/core/model';
import { scalePlan, wholePlan } from '@inkwell/core/planning';
import { type ContentOptions, contentBox } from '@inkwell/core/seeing';
import type { WorkingCopies } from '../copies/workingCopy.ts';
import { renderPixels } from '../stages/renderPixels.ts';

/** The longer side at which a margin is looked for, in pixels. */
const lookedAt = 2000;

/** The trim that leaves an original's empty margin away; null where there is none to leave. */
export async function proposeTrim(
  original: Original,
  options: ContentOptions,
  copies: WorkingCopies,
): Promise<Trim | null> {
  const share = Math.min(1, lookedAt / Math.max(original.width, original.height));
  const seen = await renderPixels(scalePlan(wholePlan(original), share), await copies.get(original));
  const box = contentBox(seen, options);
  if (!box) return null;
  const [x, y] = [original.width / seen.width, original.height / seen.height];
  // Seen smaller, an edge may lie anywhere within its pixel: the trim keeps all of it.
  const left = Math.floor(box.left * x);
  const top = Math.floor(box.top * y);
  const trim = {
    left,
    top,
    width: Math.min(original.width, Math.ceil((box.left + box.width) * x)) - left,
    height: Math.min(original.height, Math.ceil((box.top + box.height) * y)) - top,
  };
  return trim.width === original.width && trim.height === original.height ? null : trim;
}
