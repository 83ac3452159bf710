import type { DeliveryFormat, SeamStep, Weight } from '@inkwell/core/model';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import { highestQualityThatFits } from '@inkwell/core/weighing';
import { inTwos } from '../inTwos.ts';
import { cutPieces } from './cutting.ts';
import type { FinishWatch } from './finishing.ts';
import { fromPixels, type Pixels } from './pixels.ts';
import { renderPixels } from './renderPixels.ts';
import { seamSteps } from './seams.ts';
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

/** A finished file and the quality that it was encoded at; null where its format has none. */
export interface EncodedPiece {
  data: Buffer;
  quality: number | null;
}

export interface Rendered {
  /** One file, or all pieces in reading order. */
  pieces: EncodedPiece[];
  /** Measures what cutting costs at the seams, by the piece before each. */
  seams: () => Promise<Map<number, SeamStep[]>>;
  /** Of the heaviest piece; the quality is the lowest of all. */
  weight: Weight;
  /** How many full and quick encodings it took. */
  encodings: number;
  sketches: number;
}

/**
 * Carries out a plan to the finished files: each at the highest quality up to the plan's that fits its budget, all at the
 * lowest of these where they share it. Where nothing fits, the lightest files come back with `weight.fits` false.
 */
export async function renderFiles(plan: RenderPlan, copy: WorkingCopy, watch?: FinishWatch): Promise<Rendered> {
  const { whole, cut } = await pixelsOf(plan, copy, watch);
  const { budgetBytes, sharedQuality, quality } = plan.encoding;
  let [encodings, sketches] = [0, 0];
  let ceiling = quality;
  const pieces: EncodedPiece[] = [];
  await inTwos(cut, async (pixels, index) => {
    const found = await highest(pixels, plan, ceiling);
    encodings += found.encodings;
    sketches += found.sketches;
    pieces[index] = found.piece;
    if (sharedQuality && found.piece.quality !== null) ceiling = Math.min(ceiling, found.piece.quality);
  });
  if (sharedQuality) {
    await inTwos(cut, async (pixels, index) => {
      const own = pieces[index]?.quality ?? null;
      if (own === null || own === ceiling) return;
      encodings += 1;
      pieces[index] = { data: await encodePixels(pixels, plan.encoding.format, ceiling), quality: ceiling };
    });
  }
  const bytes = Math.max(...pieces.map(({ data }) => data.length));
  const qualities = pieces.flatMap((one) => (one.quality === null ? [] : [one.quality]));
  const weight: Weight = {
    planHash: planHash(plan),
    format: plan.encoding.format,
    quality: qualities.length > 0 ? Math.min(...qualities) : null,
    bytes,
    fits: bytes <= budgetBytes,
  };
  return { pieces, seams: () => stepsOf(whole, plan, pieces), weight, encodings, sketches };
}

async function pixelsOf(
  plan: RenderPlan,
  copy: WorkingCopy,
  watch?: FinishWatch,
): Promise<{ whole: Pixels; cut: Pixels[] }> {
  const whole = await renderPixels(plan, copy, watch);
  return { whole, cut: plan.grid ? await cutPieces(whole, plan.grid) : [whole] };
}

const stepsOf = async (whole: Pixels, { grid, encoding }: RenderPlan, pieces: EncodedPiece[]) =>
  grid
    ? seamSteps(whole, grid, pieces, (pixels, quality) => encodePixels(pixels, encoding.format, quality))
    : new Map<number, SeamStep[]>();

interface Found {
  piece: EncodedPiece;
  encodings: number;
  sketches: number;
}

/** One piece at the highest quality up to `ceiling` that fits, or at the lowest there is. */
async function highest(pixels: Pixels, plan: RenderPlan, ceiling: number): Promise<Found> {
  const { format, budgetBytes } = plan.encoding;
  if (format === 'png') {
    return { piece: { data: await encodePixels(pixels, 'png', null), quality: null }, encodings: 1, sketches: 0 };
  }
  const encode = async (quality: number) => {
    const data = await encodePixels(pixels, format, quality);
    return { data, bytes: data.length };
  };
  const known = corrections.get(plan.original.sha256);
  const { best, encodings, sketches, correction } = await highestQualityThatFits({
    ...(known ? { correction: known } : {}),
    budget: budgetBytes,
    floor: Math.min(lowestQuality, ceiling),
    ceiling,
    encode,
    // With the same quantisation table as the full encoding, or the two would not keep step over the qualities.
    sketch: async (quality) => (await fromPixels(pixels).jpeg({ quality, quantisationTable: 3 }).toBuffer()).length,
    // More than four bits a pixel at quality 90 is rare, even for noise: trying the ceiling first saves the sketches.
    // What another piece had to go down to is usually low enough for this one, too.
    ceilingFirst: ceiling < plan.encoding.quality || budgetBytes >= (pixels.width * pixels.height) / 2,
  });
  if (corrections.size >= correctionsKept) corrections.clear();
  if (sketches > 0) corrections.set(plan.original.sha256, correction);
  if (best) return { piece: { data: best.encoded.data, quality: best.quality }, encodings, sketches };
  const lightest = await encode(lowestQuality);
  return { piece: { data: lightest.data, quality: lowestQuality }, encodings: encodings + 1, sketches };
}

/** A plan's files at a quality that is known to be the right one for all of them. */
export async function renderAtQuality(
  plan: RenderPlan,
  copy: WorkingCopy,
  quality: number | null,
): Promise<Pick<Rendered, 'pieces' | 'seams'>> {
  const { whole, cut } = await pixelsOf(plan, copy);
  const pieces: EncodedPiece[] = [];
  await inTwos(cut, async (pixels, index) => {
    pieces[index] = { data: await encodePixels(pixels, plan.encoding.format, quality), quality };
  });
  return { pieces, seams: () => stepsOf(whole, plan, pieces) };
}
