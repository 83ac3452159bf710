import type { DeliveryFormat, Weight } from '@inkwell/core/model';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import { highestQualityThatFits } from '@inkwell/core/weighing';
import { fromPixels, type Pixels } from './pixels.ts';
import { renderPixels } from './renderPixels.ts';
import type { WorkingCopy } from './workingCopy.ts';

/**
 * What full encodings of an original weigh of quick ones, as the last search found: it hardly differs between the
 * frames of one picture. It only saves encodings, so it may be forgotten at any time.
 */
const corrections = new Map<string, number>();
const correctionsKept = 1000;

/** No file is encoded below this quality: what falls apart is not worth posting. */
const lowestQuality = 10;

/** One encoding with full effort. Nothing but the picture goes into the file: no metadata, sRGB untagged. */
export function encodePixels(pixels: Pixels, format: DeliveryFormat, quality: number | null): Promise<Buffer> {
  if (format === 'png') return fromPixels(pixels).png({ compressionLevel: 9, adaptiveFiltering: true }).toBuffer();
  return fromPixels(pixels)
    .jpeg({ quality: quality ?? 90, mozjpeg: true })
    .toBuffer();
}

export interface RenderedFile {
  data: Buffer;
  weight: Weight;
  /** How many full and quick encodings it took. */
  encodings: number;
  sketches: number;
}

/**
 * Carries out a plan to the finished file: the highest quality up to the plan's that fits its budget. Where nothing
 * fits, the lightest file comes back with `weight.fits` false.
 */
export async function renderFile(plan: RenderPlan, copy: WorkingCopy): Promise<RenderedFile> {
  const pixels = await renderPixels(plan, copy);
  const { format, budgetBytes, quality: ceiling } = plan.encoding;
  const done = (data: Buffer, quality: number | null, encodings: number, sketches: number): RenderedFile => ({
    data,
    weight: { planHash: planHash(plan), format, quality, bytes: data.length, fits: data.length <= budgetBytes },
    encodings,
    sketches,
  });
  if (format === 'png') return done(await encodePixels(pixels, 'png', null), null, 1, 0);

  const encode = async (quality: number) => {
    const data = await encodePixels(pixels, format, quality);
    return { data, bytes: data.length };
  };
  const known = corrections.get(plan.original.sha256);
  const { best, encodings, sketches, correction } = await highestQualityThatFits({
    ...(known ? { correction: known } : {}),
    budget: budgetBytes,
    floor: lowestQuality,
    ceiling,
    encode,
    // With the same quantisation table as the full encoding, or the two would not keep step over the qualities.
    sketch: async (quality) => (await fromPixels(pixels).jpeg({ quality, quantisationTable: 3 }).toBuffer()).length,
    // More than four bits a pixel at quality 90 is rare, even for noise: trying the ceiling first saves the sketches.
    ceilingFirst: budgetBytes >= (pixels.width * pixels.height) / 2,
  });
  if (corrections.size >= correctionsKept) corrections.clear();
  if (sketches > 0) corrections.set(plan.original.sha256, correction);
  if (best) return done(best.encoded.data, best.quality, encodings, sketches);
  return done((await encode(lowestQuality)).data, lowestQuality, encodings + 1, sketches);
}

/** A plan's file at a quality that is known to be the right one. */
export async function renderAtQuality(plan: RenderPlan, copy: WorkingCopy, quality: number | null): Promise<Buffer> {
  return encodePixels(await renderPixels(plan, copy), plan.encoding.format, quality);
}
