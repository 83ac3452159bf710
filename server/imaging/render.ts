import type { DeliveryFormat, Weight } from '@inkwell/core/model';
import { asStored, type Orientation, planHash, type RenderPlan, sampling, turnUpright } from '@inkwell/core/planning';
import { highestQualityThatFits } from '@inkwell/core/weighing';
import sharp from 'sharp';
import type { WorkingCopy } from './workingCopy.ts';

/** Uncompressed pixels, 8 bits a channel, row by row. */
export interface Pixels {
  data: Buffer;
  width: number;
  height: number;
  channels: 1 | 2 | 3 | 4;
}

/**
 * What full encodings of an original weigh of quick ones, as the last search found: it hardly differs between the
 * frames of one picture. It only saves encodings, so it may be forgotten at any time.
 */
const corrections = new Map<string, number>();
const correctionsKept = 1000;

/** No file is encoded below this quality: what falls apart is not worth posting. */
const lowestQuality = 10;

/** Carries out a plan up to, not including, its encoding. */
export async function renderPixels(plan: RenderPlan, copy: WorkingCopy): Promise<Pixels> {
  const { level, cut, resampleTo, trim } = sampling(asStored(plan, copy.orientation), copy.levels);
  // The working copy is in sRGB; a profile in it would only be applied once more, to every pixel.
  const reading = { page: level, limitInputPixels: false, sequentialRead: false, ignoreIcc: true };
  let picture = sharp(copy.path, reading)
    .extract(cut)
    .resize(resampleTo.width, resampleTo.height, { fit: 'fill', kernel: 'lanczos3' });
  if (trim) picture = picture.extract(trim);
  if (plan.flatten) picture = picture.flatten({ background: plan.flatten });
  const { data, info } = await picture.raw().toBuffer({ resolveWithObject: true });
  return upright(
    { data, width: info.width, height: info.height, channels: info.channels as Pixels['channels'] },
    copy.orientation,
  );
}

/** Turns rendered pixels upright. */
async function upright(pixels: Pixels, orientation: Orientation): Promise<Pixels> {
  if (orientation === 1) return pixels;
  const { flop, degrees } = turnUpright(orientation);
  // sharp mirrors before it turns.
  const { data, info } = await fromPixels(pixels)
    .flop(flop)
    .rotate(degrees)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: pixels.channels };
}

const fromPixels = ({ data, width, height, channels }: Pixels) => sharp(data, { raw: { width, height, channels } });

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
    sketch: async (quality) => (await fromPixels(pixels).jpeg({ quality }).toBuffer()).length,
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
