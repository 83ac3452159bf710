import type { Chroma, EncodedFile, Trial as MeasuredTrial, PictureNature } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { nearest } from '@inkwell/core/weighing';
import { LRUCache } from 'lru-cache';
import { pixelsHash, type RecentPixels } from '../copies/recentPixels.ts';
import { judged, nature } from '../measuring/judging.ts';
import { paletteColours } from './encoders.ts';
import { chromaFor, encoderFor, watchedIn } from './planEncoder.ts';

/** One encoding of a plan that somebody wants to see, whether it is the one that the plan leads to or not. */
export interface TrialAsked {
  /** Left aside where the plan's format has none. */
  quality: number;
  /** In reading order, from 0. */
  piece: number;
  /** What the picture is, where that was measured already; it is the same for every encoding of its pixels. */
  nature: PictureNature | null;
}

interface Trial {
  data: Buffer;
  chroma: Chroma | null;
  quality: number | null;
  /** Measured when it is first asked for. */
  similarity?: Promise<EncodedFile['similarity']>;
}

/** Files of so many bytes are kept at most. */
const bound = 200_000_000;
const highestQuality = 100;

/** Encodings that were tried, so that going back and forth between qualities costs nothing. */
export class Trials {
  private readonly made: LRUCache<string, Trial, { plan: RenderPlan; asked: TrialAsked }>;

  constructor(private readonly recent: RecentPixels) {
    this.made = new LRUCache({
      maxSize: bound,
      sizeCalculation: ({ data }) => data.length,
      fetchMethod: (_key, _stale, { context: { plan, asked } }) => this.make(plan, asked),
    });
  }

  /** The bytes of an encoding. @throws RangeError where the frame has no such piece */
  async file(plan: RenderPlan, asked: TrialAsked): Promise<Buffer> {
    return (await this.get(plan, asked)).data;
  }

  /** An encoding's weight and, where it is wanted, similarity. */
  async measured(plan: RenderPlan, asked: TrialAsked, withSimilarity: boolean): Promise<MeasuredTrial> {
    const trial = await this.get(plan, asked);
    const { data, quality, chroma } = trial;
    if (withSimilarity) {
      trial.similarity ??= this.pixels(plan, asked)
        .then((pixels) => judged(pixels, data, watchedIn(plan, asked.piece)))
        .catch((error: unknown) => {
          // What failed once is tried again by whoever asks next.
          delete trial.similarity;
          throw error;
        });
    }
    const similarity = (await trial.similarity) ?? null;
    return { bytes: data.length, quality, chroma, colours: paletteColours(data), similarity };
  }

  private get(plan: RenderPlan, asked: TrialAsked): Promise<Trial> {
    const { format, colours, chroma, watched, profile, words, origin } = plan.encoding;
    const says = [asked.quality, asked.piece, format, colours, chroma, watched, profile, words, origin];
    return this.made.forceFetch(`${pixelsHash(plan)} ${JSON.stringify(says)}`, { context: { plan, asked } });
  }

  private async make(plan: RenderPlan, asked: TrialAsked): Promise<Trial> {
    const pixels = await this.pixels(plan, asked);
    const { whole } = await this.recent.get(plan);
    const chroma = await chromaFor(plan, asked.nature ? Promise.resolve(asked.nature) : nature(whole));
    const { encode, ladder } = encoderFor(plan, chroma, highestQuality);
    const quality = ladder && nearest(ladder.qualities, asked.quality);
    return { data: await encode(pixels, quality), chroma, quality };
  }

  private async pixels(plan: RenderPlan, { piece }: TrialAsked) {
    const { cut } = await this.recent.get(plan);
    const pixels = cut[piece];
    if (!pixels) throw new RangeError(`This frame has ${cut.length} files; there is none with number ${piece + 1}.`);
    return pixels;
  }
}
