import { intersection, piecesOf, type Rect } from '@inkwell/core/geometry';
import type { Chroma, EncodedFile, PictureNature, SeamStep, Similarity, Weight } from '@inkwell/core/model';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import { highestQualityThatFits, lowestQualityThatKeeps, marginOver } from '@inkwell/core/weighing';
import { inTwos } from '../inTwos.ts';
import { cutPieces } from './cutting.ts';
import { type Encoder, encoderOf, paletteColours } from './encoders.ts';
import type { FinishWatch } from './finishing.ts';
import { judged, nature } from './judging.ts';
import type { Pixels } from './pixels.ts';
import { renderPixels } from './renderPixels.ts';
import { seamSteps } from './seams.ts';
import type { WorkingCopy } from './workingCopy.ts';

/** The pixels of a plan: the whole, and what of it goes into each file, in reading order. */
export interface FramePixels {
  whole: Pixels;
  cut: Pixels[];
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

/** A finished file and how it was encoded. */
export interface EncodedPiece {
  data: Buffer;
  quality: number | null;
  chroma: Chroma | null;
}

/** A spot that has kept less than this of its colours at 4:2:0 is seen to smear. */
const smearing = 94;

/** Photographs hold the strictest level at about this quality. */
const usualQuality = 84;

/** A twentieth of a point of similarity is less than one step of quality, and less than the levels are exact to. */
const closeEnough = 0.05;

export async function framePixels(plan: RenderPlan, copy: WorkingCopy, watch?: FinishWatch): Promise<FramePixels> {
  const whole = await renderPixels(plan, copy, watch);
  return { whole, cut: plan.grid ? await cutPieces(whole, plan.grid) : [whole] };
}

/** Carries out a plan to the finished files. */
export async function renderFiles(plan: RenderPlan, copy: WorkingCopy, watch?: FinishWatch): Promise<Rendered> {
  return encodeFiles(plan, await framePixels(plan, copy, watch));
}

/**
 * Encodes the pixels of a plan: each file as good as fits its budget, or no heavier than it needs, and all of them at one
 * quality where they share it. Where nothing fits, the lightest files come back with `weight.fits` false.
 */
export async function encodeFiles(plan: RenderPlan, pixels: FramePixels): Promise<Rendered> {
  const { encoding } = plan;
  const natural = await nature(pixels.whole);
  const chroma = chromaFor(plan, natural);
  const encoder = encoderOf({ ...encoding, chroma: chroma ?? '4:2:0', metadata: encoding }, encoding.quality);
  const searches = pixels.cut.map((piece, index) => new PieceSearch(plan, piece, encoder, watchedIn(plan, index)));
  if (encoder.qualities.length === 0) await inTwos(searches, (search) => search.take(null));
  else if (encoding.sharedQuality) await settleTogether(searches, encoding.quality);
  else await inTwos(searches, (search) => search.settle());
  const files: EncodedFile[] = [];
  const pieces: EncodedPiece[] = [];
  await inTwos(searches, async (search, index) => {
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
    fits: bytes <= encoding.budgetBytes,
    metadataBytes: await metadataBytes(plan, pixels.cut[0], pieces[0]),
    nature: natural,
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

/** Gives all pieces one quality: what holds the level in every one, or what fits in all where that is too heavy. */
async function settleTogether(searches: readonly PieceSearch[], highest: number): Promise<void> {
  const [first, ...others] = searches;
  let wanted = (await first?.needed()) ?? highest;
  await inTwos(others, async (search) => {
    // What was enough for the pieces before usually is enough for this one, too.
    wanted = Math.max(wanted, (await search.needed(wanted)) ?? highest);
  });
  let shared = wanted;
  await inTwos(searches, async (search) => {
    await search.settleAt(shared);
    shared = Math.min(shared, search.quality);
  });
  await inTwos(searches, (search) => search.take(shared));
}

/** How finely the files of a plan keep colour; null where their format has no choice. */
export function chromaFor({ encoding }: RenderPlan, { chromaKept }: PictureNature): Chroma | null {
  if (encoding.format === 'webp') return '4:2:0';
  if (encoding.format === 'png') return null;
  if (encoding.chroma !== 'measured') return encoding.chroma;
  return chromaKept < smearing ? '4:4:4' : '4:2:0';
}

/** The regions that count in one piece, in its own pixels. */
export function watchedIn({ encoding, grid }: RenderPlan, index: number): Rect[] {
  const piece = grid ? piecesOf(grid)[index] : null;
  if (!piece) return encoding.watched;
  return encoding.watched
    .map((region) => intersection(region, piece))
    .filter(({ width, height }) => width > 0 && height > 0)
    .map((region) => ({ ...region, left: region.left - piece.left, top: region.top - piece.top }));
}

const stepsOf = async (whole: Pixels, plan: RenderPlan, pieces: EncodedPiece[]) =>
  plan.grid
    ? seamSteps(whole, plan.grid, pieces, (pixels, quality) =>
        encoderFor(plan, pieces[0]?.chroma ?? null).encode(pixels, quality),
      )
    : new Map<number, SeamStep[]>();

const encoderFor = ({ encoding }: RenderPlan, chroma: Chroma | null) =>
  encoderOf({ ...encoding, chroma: chroma ?? '4:2:0', metadata: encoding }, encoding.quality);

/** What metadata and profile take of every file, measured by encoding one without them. */
async function metadataBytes({ encoding }: RenderPlan, pixels?: Pixels, made?: EncodedPiece): Promise<number> {
  const { profile, words, origin } = encoding;
  if (!pixels || !made || !(profile || words || origin.position || origin.device)) return 0;
  const bare = { profile: false, words: null, origin: { position: null, device: null } };
  const encoder = encoderOf({ ...encoding, chroma: made.chroma ?? '4:2:0', metadata: bare }, encoding.quality);
  return Math.max(0, made.data.length - (await encoder.encode(pixels, made.quality)).length);
}

/**
 * What full encodings of an original weigh of quick ones, and the quality that held its level, as the last search found:
 * they hardly differ between the frames of one picture. They only save encodings, so they may be forgotten at any time.
 */
const corrections = new Map<string, number>();
const guesses = new Map<string, number>();
const hintsKept = 1000;
function keepHint(hints: Map<string, number>, key: string, value: number) {
  if (hints.size >= hintsKept) hints.clear();
  hints.set(key, value);
}

/** The search for the file of one piece. Every quality is encoded and judged once, however often it is looked at. */
class PieceSearch {
  private readonly made = new Map<number | null, Buffer>();
  private readonly judgements = new Map<number | null, Similarity>();
  private readonly hint: string;
  private chosen: number | null = null;
  sketches = 0;

  constructor(
    private readonly plan: RenderPlan,
    private readonly pixels: Pixels,
    private readonly encoder: Encoder,
    private readonly regions: readonly Rect[],
  ) {
    const { format, colours, enough } = plan.encoding;
    this.hint = `${plan.original.sha256} ${plan.original.page} ${format} ${colours} ${enough?.overall}`;
  }

  get encodings(): number {
    return this.made.size;
  }

  get quality(): number {
    return this.chosen ?? this.plan.encoding.quality;
  }

  file(): { data: Buffer; quality: number | null } {
    const data = this.made.get(this.chosen);
    if (!data) throw new Error('A piece has not been encoded yet.');
    return { data, quality: this.chosen };
  }

  async take(quality: number | null): Promise<void> {
    await this.encode(quality);
    this.chosen = quality;
  }

  async similarity(quality: number | null): Promise<Similarity> {
    const known = this.judgements.get(quality);
    if (known) return known;
    const measured = await judged(this.pixels, await this.encode(quality), this.regions);
    this.judgements.set(quality, measured);
    return measured;
  }

  /** Chooses the file by itself: the lightest that holds the level, or as good as fits. */
  async settle(): Promise<void> {
    await this.settleAt((await this.needed()) ?? this.plan.encoding.quality);
  }

  /**
   * The lowest quality, from `from` on, that holds the level; null where the file is to be as good as fits, and where no
   * quality does.
   */
  async needed(from = 0): Promise<number | null> {
    const { enough } = this.plan.encoding;
    if (!enough) return null;
    const known = guesses.get(this.hint);
    const guess = from > 0 ? from : (known ?? usualQuality);
    const { best } = await lowestQualityThatKeeps({
      qualities: this.encoder.qualities.filter((quality) => quality >= from),
      encode: (quality) => this.similarity(quality),
      margin: (similarity) => marginOver(similarity, enough),
      close: closeEnough,
      guess,
    });
    if (best) keepHint(guesses, this.hint, best.quality);
    return best?.quality ?? null;
  }

  /** Chooses the highest quality up to `highest` that fits, or the lowest there is where none does. */
  async settleAt(highest: number): Promise<void> {
    const qualities = this.encoder.qualities.filter((quality) => quality <= highest);
    const top = qualities.at(-1);
    if (top === undefined) return this.take(this.encoder.qualities[0] ?? null);
    const known = this.made.get(top);
    const { budgetBytes } = this.plan.encoding;
    if (known && known.length <= budgetBytes) return this.take(top);
    const correction = corrections.get(this.hint) ?? this.encoder.correction;
    const found = await highestQualityThatFits({
      qualities,
      budget: budgetBytes,
      tolerance: this.encoder.tolerance,
      slack: this.encoder.slack,
      correction,
      encode: async (quality) => {
        const data = await this.encode(quality);
        return { bytes: data.length };
      },
      sketch: (quality) => {
        this.sketches += 1;
        return this.encoder.sketch(this.pixels, quality);
      },
      // More than four bits a pixel are rare even for noise at a high quality: trying the highest first saves the
      // sketches. So is what another search has had to go down to.
      highestFirst:
        known !== undefined ||
        highest < this.plan.encoding.quality ||
        budgetBytes >= (this.pixels.width * this.pixels.height) / 2,
    });
    if (found.sketches > 0) keepHint(corrections, this.hint, found.correction);
    await this.take(found.best?.quality ?? (this.encoder.qualities[0] as number));
  }

  private async encode(quality: number | null): Promise<Buffer> {
    const known = this.made.get(quality);
    if (known) return known;
    const data = await this.encoder.encode(this.pixels, quality);
    this.made.set(quality, data);
    return data;
  }
}

/** A plan's files as they are known to come out: each at the quality and with the chroma that was found for it. */
export async function renderAs(
  plan: RenderPlan,
  copy: WorkingCopy,
  files: readonly Pick<EncodedFile, 'quality' | 'chroma'>[],
): Promise<Pick<Rendered, 'pieces' | 'seams'>> {
  const { whole, cut } = await framePixels(plan, copy);
  const pieces: EncodedPiece[] = [];
  await inTwos(cut, async (pixels, index) => {
    const { quality = null, chroma = null } = files[index] ?? {};
    pieces[index] = { data: await encoderFor(plan, chroma).encode(pixels, quality), quality, chroma };
  });
  return { pieces, seams: () => stepsOf(whole, plan, pieces) };
}
