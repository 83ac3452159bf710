import type { Chroma, EncodedFile, PictureNature } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { encoderOf, paletteColours } from './encoders.ts';
import { judged, nature } from './judging.ts';
import { pixelsHash, type RecentPixels } from './recentPixels.ts';
import { chromaFor, type FramePixels, watchedIn } from './render.ts';

/** One encoding of a plan that somebody wants to see, whether it is the one that the plan leads to or not. */
export interface TrialAsked {
  /** Left aside where the plan's format has none. */
  quality: number;
  /** In reading order, from 0. */
  piece: number;
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

/** Encodings that were tried, so that going back and forth between qualities costs nothing. */
export class Trials {
  /** The oldest first. */
  private readonly made = new Map<string, Promise<Trial>>();
  private bytes = 0;
  private readonly natures = new WeakMap<FramePixels, Promise<PictureNature>>();

  constructor(private readonly recent: RecentPixels) {}

  /** The bytes of an encoding. @throws RangeError where the frame has no such piece */
  async file(plan: RenderPlan, asked: TrialAsked): Promise<Buffer> {
    return (await this.get(plan, asked)).data;
  }

  /** An encoding's weight and, where it is wanted, similarity. */
  async measured(
    plan: RenderPlan,
    asked: TrialAsked,
    withSimilarity: boolean,
  ): Promise<Omit<EncodedFile, 'similarity'> & { similarity: EncodedFile['similarity'] | null }> {
    const trial = await this.get(plan, asked);
    const { data, quality, chroma } = trial;
    if (withSimilarity) trial.similarity ??= this.judge(plan, asked.piece, data);
    return {
      bytes: data.length,
      quality,
      chroma,
      colours: paletteColours(data),
      similarity: (await trial.similarity) ?? null,
    };
  }

  private async judge(plan: RenderPlan, piece: number, data: Buffer) {
    return judged(await this.pixels(plan, piece), data, watchedIn(plan, piece));
  }

  private get(plan: RenderPlan, asked: TrialAsked): Promise<Trial> {
    const { format, colours, chroma, watched, profile, words, origin } = plan.encoding;
    const says = [asked.quality, asked.piece, format, colours, chroma, watched, profile, words, origin];
    const key = `${pixelsHash(plan)} ${JSON.stringify(says)}`;
    const known = this.made.get(key);
    if (known) {
      this.made.delete(key);
      this.made.set(key, known);
      return known;
    }
    const trial = this.make(plan, asked);
    this.made.set(key, trial);
    trial.then(
      ({ data }) => this.makeRoom(data.length),
      () => this.made.delete(key),
    );
    return trial;
  }

  private async make(plan: RenderPlan, asked: TrialAsked): Promise<Trial> {
    const pixels = await this.pixels(plan, asked.piece);
    const { encoding } = plan;
    const chroma = chromaFor(plan, await this.nature(plan));
    const encoder = encoderOf({ ...encoding, chroma: chroma ?? '4:2:0', metadata: encoding }, 100);
    const quality = nearest(encoder.qualities, asked.quality);
    return { data: await encoder.encode(pixels, quality), chroma, quality };
  }

  /** What the whole picture is: all its pieces keep colour alike. Remembered while its pixels are. */
  private async nature(plan: RenderPlan): Promise<PictureNature> {
    const pixels = await this.recent.get(plan);
    const known = this.natures.get(pixels) ?? nature(pixels.whole);
    this.natures.set(pixels, known);
    return known;
  }

  private async pixels(plan: RenderPlan, piece: number) {
    const { cut } = await this.recent.get(plan);
    const pixels = cut[piece];
    if (!pixels) throw new RangeError(`This frame has ${cut.length} files; there is none with number ${piece + 1}.`);
    return pixels;
  }

  private async makeRoom(added: number): Promise<void> {
    this.bytes += added;
    for (const [key, trial] of this.made) {
      if (this.bytes <= bound) return;
      this.made.delete(key);
      this.bytes -= (await trial).data.length;
    }
  }
}

function nearest(qualities: readonly number[], wanted: number): number | null {
  if (qualities.length === 0) return null;
  return qualities.reduce((near, quality) => (Math.abs(quality - wanted) < Math.abs(near - wanted) ? quality : near));
}
