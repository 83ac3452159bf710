import type { Rect } from '@inkwell/core/geometry';
import type { Similarity } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { highestQualityThatFits, lowestQualityThatKeeps, marginOver } from '@inkwell/core/weighing';
import { LRUCache } from 'lru-cache';
import type { Encoder, Ladder } from './encoders.ts';
import { judged } from './judging.ts';
import type { Pixels } from './pixels.ts';

/**
 * Photographs hold the strictest level at about this quality. Every search begins here, and not where one before it has
 * ended: the same plan has to give the same bytes, whatever was rendered before.
 */
const usualQuality = 84;

/** A twentieth of a point of similarity is less than one step of quality, and less than the levels are exact to. */
const closeEnough = 0.05;

/**
 * What full encodings of an original weigh of quick ones, as the last search found: it hardly differs between the frames
 * of one picture. It only saves encodings, so it may be forgotten at any time.
 */
const corrections = new LRUCache<string, number>({ max: 1000 });

/** Searches under way: beside another one, a second encoding at a time would only take the processor from it. */
let searching = 0;

/** The search for the file of one piece. Every quality is encoded and judged once, however often it is looked at. */
export class PieceSearch {
  private readonly made = new Map<number | null, Buffer>();
  private readonly judgements = new Map<number | null, Similarity>();
  /** Null before anything is chosen, and where the format has no quality. */
  private chosen: number | null = null;
  sketches = 0;

  constructor(
    private readonly plan: RenderPlan,
    private readonly pixels: Pixels,
    private readonly encoder: Encoder,
    private readonly regions: readonly Rect[],
  ) {}

  get encodings(): number {
    return this.made.size;
  }

  get quality(): number | null {
    return this.chosen;
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

  /** The lowest quality, from `from` on, that holds the plan's level; null where it has none, and where no quality does. */
  async needed(ladder: Ladder, from?: number): Promise<number | null> {
    const { enough } = this.plan.encoding;
    if (!enough) return null;
    const { best } = await lowestQualityThatKeeps({
      qualities: ladder.qualities.filter((quality) => quality >= (from ?? 0)),
      encode: (quality) => this.similarity(quality),
      margin: (similarity) => marginOver(similarity, enough),
      close: closeEnough,
      guess: from ?? usualQuality,
    });
    return best?.quality ?? null;
  }

  /** Chooses the highest quality up to `highest` that fits, or the lowest there is where none does. */
  async settleAt(ladder: Ladder, highest: number): Promise<void> {
    const { original, encoding } = this.plan;
    const { budgetBytes, quality: usual } = encoding;
    const picture = `${original.sha256} ${original.page} ${encoding.format} ${encoding.colours}`;
    const qualities = ladder.qualities.filter((quality) => quality <= highest);
    const [lowest = highest, top] = [ladder.qualities[0], qualities.at(-1)];
    if (top === undefined) return this.take(lowest);
    const pixelCount = this.pixels.width * this.pixels.height;
    searching += 1;
    const found = await highestQualityThatFits({
      qualities,
      budget: budgetBytes,
      tolerance: ladder.tolerance,
      slack: ladder.slack * Math.sqrt(pixelCount),
      encode: async (quality) => ({ bytes: (await this.encode(quality)).length }),
      sketch: (quality) => {
        this.sketches += 1;
        return ladder.sketch(this.pixels, quality);
      },
      correction: async (quality) => corrections.get(picture) ?? ladder.correction(this.pixels, quality),
      // More than four bits a pixel are rare even for noise at a high quality: trying the highest first saves the
      // sketches. So is what was encoded already, and what another search has had to go down to.
      highestFirst: this.made.has(top) || highest < usual || budgetBytes >= pixelCount / 2,
      atOnce: () => (searching > 1 ? 1 : 2),
    }).finally(() => {
      searching -= 1;
    });
    if (found.correction !== null) corrections.set(picture, found.correction);
    await this.take(found.best?.quality ?? lowest);
  }

  private async encode(quality: number | null): Promise<Buffer> {
    const known = this.made.get(quality);
    if (known) return known;
    const data = await this.encoder.encode(this.pixels, quality);
    this.made.set(quality, data);
    return data;
  }
}

/** Chooses the file of a piece by itself: the lightest that holds the level, or as good as fits. */
export async function settleAlone(search: PieceSearch, ladder: Ladder, highest: number): Promise<void> {
  await search.settleAt(ladder, (await search.needed(ladder)) ?? highest);
}
