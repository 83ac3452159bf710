import { intersection, type Rect } from '@inkwell/core/geometry';
import type { DetailKept, KeepMark } from '@inkwell/core/model';
import { markInFile, type RenderPlan, scalePlan } from '@inkwell/core/planning';
import { detailKept, type Luminance } from '@inkwell/core/seeing';
import { fromPixels, type Pixels } from '../stages/pixels.ts';
import { type DrawnFrom, renderPixels } from '../stages/renderPixels.ts';

/** The shorter side that a mark needs to be recognised, in pixels; words need more. */
const recognisedAt = 48;
const readAt = 72;

/** What is left of every mark's detail at every width at which a frame is shown. Marks that are large enough are left out. */
export async function measureDetail(
  plan: RenderPlan,
  marks: readonly KeepMark[],
  shownWidths: readonly number[],
  copy: DrawnFrom,
): Promise<DetailKept[]> {
  const { output } = plan;
  const seen = marks
    .map((mark) => {
      const rect = intersection(markInFile(mark, plan), { left: 0, top: 0, ...output });
      const shorter = Math.min(rect.width, rect.height);
      const needed = Math.min(shorter, mark.kind === 'text' ? readAt : recognisedAt);
      return { mark, rect, shorter, needed };
    })
    .filter(({ shorter }) => shorter > 1);
  const found: DetailKept[] = [];
  for (const width of shownWidths) {
    const small = seen.filter(({ shorter, needed }) => (shorter * width) / output.width < needed);
    if (small.length === 0) continue;
    const shown = await renderPixels(scalePlan(plan, width / output.width), copy);
    for (const { mark, rect, shorter, needed } of small) {
      const reference = scalePlan(plan, needed / shorter);
      const [before, after] = await Promise.all([
        cut(await renderPixels(reference, copy), rect, output),
        fromPixels(shown)
          .resize(reference.output.width, reference.output.height, { fit: 'fill', kernel: 'cubic' })
          .raw()
          .toBuffer({ resolveWithObject: true })
          .then(({ data, info }) =>
            cut({ data, ...reference.output, channels: info.channels as Pixels['channels'] }, rect, output),
          ),
      ]);
      const kept = detailKept(before, after, Math.round(needed / 4));
      if (kept !== null) found.push({ markId: mark.id, shownWidth: width, kept: Math.round(kept * 1000) / 1000 });
    }
  }
  return found;
}

/** The luminance of a rectangle of the file, from a picture of the whole file at any scale. */
async function cut(picture: Pixels, rect: Rect, file: { width: number; height: number }): Promise<Luminance> {
  const [x, y] = [picture.width / file.width, picture.height / file.height];
  const left = Math.min(picture.width - 1, Math.floor(rect.left * x));
  const top = Math.min(picture.height - 1, Math.floor(rect.top * y));
  const width = Math.max(1, Math.min(picture.width - left, Math.round(rect.width * x)));
  const height = Math.max(1, Math.min(picture.height - top, Math.round(rect.height * y)));
  const data = await fromPixels(picture)
    .extract({ left, top, width, height })
    .flatten({ background: 'white' })
    .toColourspace('b-w')
    .raw()
    .toBuffer();
  return { data, width, height };
}
