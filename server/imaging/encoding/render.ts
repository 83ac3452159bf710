import type { Chroma, EncodedFile, SeamStep, Weight } from '@inkwell/core/model';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import { timed } from '../../running/counting.ts';
import { mapTwoAtATime } from '../../running/mapTwoAtATime.ts';
import { nature } from '../measuring/judging.ts';
import { seamSteps } from '../measuring/seams.ts';
import type { FinishWatch } from '../stages/finishing.ts';
import { type FramePixels, framePixels } from '../stages/framePixels.ts';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';
import type { DrawnFrom } from '../stages/renderPixels.ts';
import { paletteColours } from './encoders.ts';
import { PieceSearch } from './pieceSearch.ts';
import { bareEncoderFor, chromaFor, encoderFor, watchedIn } from './planEncoder.ts';
import { settleAlone, settleTogether, settleWithin } from './settling.ts';

/** A finished file and how it was encoded. */
export interface EncodedPiece {
  data: Buffer;
  quality: number | null;
  chroma: Chroma | null;
}

export interface Rendered {
  /** One file, or all pieces in reading order. */
  pieces: EncodedPiece[];
  /** Measures what cutting costs at the seams, by the piece before each. */
  seams: () => Promise<Map<number, SeamStep[]>>;
  weight: Weight;
  /** How many full and quick encodings it took. */
  encodings: number;
  sketches: number;
}

/** Carries out a plan to the finished files. */
export async function renderFiles(plan: RenderPlan, copy: DrawnFrom, watch?: FinishWatch): Promise<Rendered> {
  return encodeFiles(plan, await framePixels(plan, copy, watch));
}

/**
 * Encodes the pixels of a plan: each file as good as fits its budget, or no heavier than it needs, and all of them at one
 * quality where they share it. Where nothing fits, the lightest files come back with `weight.fits` false.
 */
export const encodeFiles = (plan: RenderPlan, pixels: FramePixels): Promise<Rendered> =>
  timed('encode', () => encodeAll(plan, pixels));

async function encodeAll(plan: RenderPlan, pixels: FramePixels): Promise<Rendered> {
  const { encoding } = plan;
  const natural = nature(pixels.whole);
  const chroma = await chromaFor(plan, natural);
  const encoder = encoderFor(plan, chroma);
  const { ladder } = encoder;
  const searches = pixels.cut.map(
    (piece, index) => new PieceSearch(plan, piece, encoder, watchedIn(plan, index), natural),
  );
  if (!ladder) await mapTwoAtATime(searches, (search) => search.take(null));
  else if (encoding.sharedQuality && searches.length > 1) await settleTogether(searches, ladder, encoding.quality);
  else await mapTwoAtATime(searches, (search) => settleAlone(search, ladder, encoding.quality));
  const { postBudgetBytes: post } = encoding;
  if (post !== undefined && ladder) await settleWithin(searches, ladder, post, encoding.sharedQuality);
  const files: EncodedFile[] = [];
  const pieces: EncodedPiece[] = [];
  await mapTwoAtATime(searches, async (search, index) => {
    const { data, quality } = search.file();
    pieces[index] = { data, quality, chroma };
    const similarity = await search.similarity(quality);
    files[index] = { bytes: data.length, quality, chroma, colours: paletteColours(data), similarity };
  });
  const qualities = files.flatMap(({ quality }) => (quality === null ? [] : [quality]));
  const bytes = Math.max(...files.map((file) => file.bytes));
  const weight: Weight = {
    planHash: planHash(plan),
    format: encoding.format,
    quality: qualities.length > 0 ? Math.min(...qualities) : null,
    bytes,
    fits:
      bytes <= encoding.budgetBytes &&
      files.reduce((sum, file) => sum + file.bytes, 0) <= (post ?? Number.POSITIVE_INFINITY),
    metadataBytes: await metadataBytes(plan, pixels.cut[0], pieces[0]),
    nature: await natural,
    files,
  };
  return {
    pieces,
    seams: () => stepsOf(pixels.whole, plan, pieces),
    weight,
    encodings: searches.reduce((sum, { encodings }) => sum + encodings, 0),
    sketches: searches.reduce((sum, { sketches }) => sum + sketches, 0),
  };
}

const stepsOf = async (whole: Pixels, plan: RenderPlan, pieces: EncodedPiece[]) =>
  plan.grid
    ? seamSteps(whole, plan.grid, pieces, (pixels, quality) =>
        encoderFor(plan, pieces[0]?.chroma ?? null).encode(pixels, quality),
      )
    : new Map<number, SeamStep[]>();

/** A corner of so many pixels each way says what metadata takes: it is the same beside all pixels. */
const cornerSide = 16;

/** What metadata and profile take of every file, measured by encoding a corner with them and without. */
async function metadataBytes(plan: RenderPlan, pixels?: Pixels, made?: EncodedPiece): Promise<number> {
  const { profile, words, origin } = plan.encoding;
  if (!pixels || !made || !(profile || words || origin.position || origin.device)) return 0;
  const [width, height] = [Math.min(cornerSide, pixels.width), Math.min(cornerSide, pixels.height)];
  const corner = await toPixels(fromPixels(pixels).extract({ left: 0, top: 0, width, height }));
  const [whole, bare] = await Promise.all(
    [encoderFor, bareEncoderFor].map((encoder) => encoder(plan, made.chroma).encode(corner, made.quality)),
  );
  return whole && bare ? Math.max(0, whole.length - bare.length) : 0;
}

/** A plan's files as they are known to come out: each at the quality and with the chroma that was found for it. */
export async function renderAs(
  plan: RenderPlan,
  copy: DrawnFrom,
  files: readonly Pick<EncodedFile, 'quality' | 'chroma'>[],
  watch?: FinishWatch,
): Promise<Pick<Rendered, 'pieces' | 'seams'>> {
  const { whole, cut } = await framePixels(plan, copy, watch);
  const pieces: EncodedPiece[] = [];
  await mapTwoAtATime(cut, async (pixels, index) => {
    const { quality = null, chroma = null } = files[index] ?? {};
    pieces[index] = { data: await encoderFor(plan, chroma).encode(pixels, quality), quality, chroma };
  });
  return { pieces, seams: () => stepsOf(whole, plan, pieces) };
}
