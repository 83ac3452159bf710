import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { copyFile, mkdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { plainTreatment } from '@inkwell/core/finishing';
import { largestWindow, wholeOf } from '@inkwell/core/geometry';
import {
  type Aim,
  formatLabel,
  formatWeight,
  type ImageFormat,
  ImageFormatSchema,
  keepNothing,
  type Limit,
  leastSimilarity,
  originalLimits,
  type Place,
  PlaceSchema,
  plainSettings,
  plainWeighing,
} from '@inkwell/core/model';
import { planFrame } from '@inkwell/core/planning';
import { openWorkingCopy } from '../../imaging/copies/workingCopy.ts';
import { type Rendered, renderFiles } from '../../imaging/encoding/render.ts';
import type { Decoders } from '../../imaging/intake/processes/decoders.ts';
import { UserError } from '../../userError.ts';

/** What a file is brought under, and how. */
export interface Weighing {
  limit: Limit;
  /** Those that may be tried; null for the file's own, or JPEG. */
  formats: readonly ImageFormat[] | null;
  aim: Aim | null;
}

/** The file that is kept, or why there is none. */
export type WeighedFile =
  | { data: Buffer; format: ImageFormat; quality: number | null; similarity: number }
  | { reason: string };

/**
 * Brings a picture under a limit in the dimensions that it has: as a frame at a place of just those, which nobody keeps. Of several
 * formats the file that is most like the picture is taken.
 *
 * @param folder for what is only needed meanwhile
 * @throws UserError where it cannot be taken at all
 */
export async function weighFile(
  { decoders, folder }: { decoders: Decoders; folder: string },
  file: string,
  { limit, formats, aim }: Weighing,
): Promise<WeighedFile> {
  const own = join(folder, createHash('sha256').update(file).digest('hex'));
  try {
    await mkdir(own, { recursive: true });
    const { bytes, sha256, path } = await fetched(file, own);
    if (bytes > originalLimits.bytes) {
      return { reason: `It weighs more than ${originalLimits.bytes / 1e6} MB, the most that is taken.` };
    }
    const to = join(own, 'copy');
    const decoded = await decoders.copy({ path, page: 0, to });
    const copy = await openWorkingCopy(to);
    const original = { ...decoded, sha256, trim: null, marks: [] };
    const itself = ImageFormatSchema.safeParse(decoded.format).data ?? 'jpeg';
    const made: { format: ImageFormat; rendered: Rendered }[] = [];
    for (const format of formats ?? [itself]) {
      const place = placeOf(original, format, limit);
      const plan = planFrame({
        original,
        place,
        settings: {
          ...plainSettings,
          window: largestWindow(wholeOf(original), original),
          composed: false,
          format,
          weighing: { ...plainWeighing, aim, belowFloor: true },
        },
        treatment: plainTreatment,
        keeping: keepNothing,
      });
      made.push({ format, rendered: await renderFiles(plan, copy) });
    }
    return best(made, limit);
  } finally {
    await rm(own, { recursive: true, force: true });
  }
}

/** The file alone in a folder, where a decoder may open it. */
async function fetched(file: string, own: string) {
  const { size: bytes } = await stat(file);
  const path = join(own, 'source', 'picture');
  await mkdir(join(own, 'source'));
  await copyFile(file, path);
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return { bytes, sha256: hash.digest('hex'), path };
}

/** A place that is just as large as a picture. @throws UserError where none can be */
function placeOf({ width, height }: { width: number; height: number }, format: ImageFormat, limit: Limit): Place {
  const place = PlaceSchema.safeParse({
    slug: 'as-it-is',
    name: 'This picture',
    purpose: 'post',
    width,
    height,
    formats: [format],
    limit,
  });
  if (place.success) return place.data;
  throw new UserError(place.error.issues[0]?.message ?? 'It cannot be made in these dimensions.');
}

function best(made: readonly { format: ImageFormat; rendered: Rendered }[], limit: Limit): WeighedFile {
  const fitting = made
    .filter(({ rendered }) => rendered.weight.fits)
    .sort((a, b) => leastSimilarity(b.rendered.weight) - leastSimilarity(a.rendered.weight));
  const [first] = fitting;
  const [piece] = first?.rendered.pieces ?? [];
  if (first && piece) {
    const { quality, data } = piece;
    return { data, format: first.format, quality, similarity: leastSimilarity(first.rendered.weight) };
  }
  const lightest = made
    .map(({ format, rendered }) => `${formatLabel[format]} ${formatWeight(rendered.weight.bytes, limit.unit)}`)
    .join(', ');
  return { reason: `It does not fit: at its lightest it weighs as ${lightest}. Allow more, or make it smaller first.` };
}
