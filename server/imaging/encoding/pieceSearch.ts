import type { Rect } from '@inkwell/core/geometry';
import type { PictureNature, Similarity } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import {
  highestQualityThatFits,
  isBeyond,
  lightestFrom,
  lowestQualityThatKeeps,
  marginOver,
} from '@inkwell/core/weighing';
import { judged } from '../measuring/judging.ts';
import { type Pixels, sampled } from '../stages/pixels.ts';
import type { Encoder, Ladder } from './encoders.ts';
import { strayingOf } from './straying.ts';

/**
 * Photographs hold the strictest level at about this quality. Every search begins here, and not where one before it has
 * ended: the same plan has to give the same bytes, whatever was rendered before.
 */
const usualQuality = 84;

/** How many searches for what fits are running in this process. It decides how quick they are, never what they find. */
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
    /** Of the whole picture; only who looks for the lowest quality waits for it. */
    private readonly nature: Promise<PictureNature>,
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

  async bytes(quality: number): Promise<number> {
    return (await this.encode(quality)).length;
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
    const straying = strayingOf(this.plan.encoding.format, await this.nature, enough);
    const { best } = await lowestQualityThatKeeps({
      qualities: ladder.qualities.filter((quality) => quality >= (from ?? 0)),
      encode: (quality) => this.similarity(quality),
      margin: (similarity) => marginOver(similarity, enough),
      isHopeless: (similarity) => isBeyond(similarity, enough, straying),
      guess: from ?? usualQuality,
    });
    return best?.quality ?? null;
  }

  /** The quality of the lightest file that holds the plan's level; null as above. */
  async lightest(ladder: Ladder): Promise<number | null> {
    const { enough } = this.plan.encoding;
    const lowest = await this.needed(ladder);
    if (lowest === null || !enough) return null;
    return lightestFrom({
      lowest,
      above: ladder.qualities.filter((quality) => quality > lowest),
      bytes: (quality) => this.bytes(quality),
      isGood: async (quality) => marginOver(await this.similarity(quality), enough) >= 0,
      tolerance: ladder.tolerance,
      slack: ladder.slack * Math.sqrt(this.pixels.width * this.pixels.height),
    });
  }

  /** The highest quality up to `highest` that fits; null where none does. Whatever else is running, the answer is the same. */
  async fitting(ladder: Ladder, highest: number): Promise<number | null> {
    const { budgetBytes, quality: usual } = this.plan.encoding;
    const qualities = ladder.qualities.filter((quality) => quality <= highest);
    const top = qualities.at(-1);
    if (top === undefined) return null;
    const pixelCount = this.pixels.width * this.pixels.height;
    const picture = { whole: this.pixels, part: sampled(this.pixels) };
    // A small picture is its own part: then the full encoding itself says it, and counts.
    const estimate =
      picture.part === this.pixels
        ? (quality: number) => this.bytes(quality)
        : (ladder.estimate?.bind(null, picture) ?? null);
    searching += 1;
    try {
      const found = await highestQualityThatFits({
        qualities,
        budget: budgetBytes,
        tolerance: ladder.tolerance,
        slack: ladder.slack * Math.sqrt(pixelCount),
        encode: async (quality) => ({ bytes: await this.bytes(quality) }),
        sketch: (quality) => {
          this.sketches += 1;
          return ladder.sketch(picture, quality);
        },
        estimate,
        // More than four bits a pixel are rare even for noise at a high quality: trying the highest first saves the
        // sketches. So is what was encoded already, and what another search has had to go down to.
        highestFirst: this.made.has(top) || highest < usual || budgetBytes >= pixelCount / 2,
        // Where others search as well, all cores have enough to do.
        atOnce: () => (searching === 1 ? 2 : 1),
      });
      return found.best?.quality ?? null;
    } finally {
      searching -= 1;
    }
  }

  private async encode(quality: number | null): Promise<Buffer> {
    const known = this.made.get(quality);
    if (known) return known;
    const data = await this.encoder.encode(this.pixels, quality);
    this.made.set(quality, data);
    return data;
  }
}
