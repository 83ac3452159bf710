import { plainEncoding, planHash, type RenderPlan } from '@inkwell/core/planning';
import { type FramePixels, framePixels } from './render.ts';
import type { WorkingCopies } from './workingCopy.ts';

/** Pictures of so many bytes are kept at most, beside the one that was asked for last. */
const bound = 160_000_000;

/**
 * The pixels of the frames whose encodings somebody is looking at: many encodings of one picture are tried, and it is
 * rendered once for all of them.
 */
export class RecentPixels {
  /** The oldest first. */
  private readonly kept = new Map<string, { pixels: Promise<FramePixels>; bytes: number }>();

  constructor(private readonly copies: WorkingCopies) {}

  get(plan: RenderPlan): Promise<FramePixels> {
    const key = pixelsHash(plan);
    const known = this.kept.get(key);
    const pixels = known?.pixels ?? this.render(plan, key);
    this.kept.delete(key);
    this.kept.set(key, { pixels, bytes: plan.output.width * plan.output.height * (plan.grid ? 8 : 4) });
    this.makeRoom();
    return pixels;
  }

  private render(plan: RenderPlan, key: string): Promise<FramePixels> {
    const pixels = this.copies.get(plan.original).then((copy) => framePixels(plan, copy));
    // A rendering that failed is tried again when it is asked for again.
    pixels.catch(() => this.kept.delete(key));
    return pixels;
  }

  private makeRoom(): void {
    let sum = [...this.kept.values()].reduce((total, { bytes }) => total + bytes, 0);
    for (const [key, { bytes }] of this.kept) {
      if (sum <= bound || this.kept.size === 1) return;
      this.kept.delete(key);
      sum -= bytes;
    }
  }
}

/** The same for all plans that differ in nothing but their encoding. */
export const pixelsHash = (plan: RenderPlan): string => planHash({ ...plan, encoding: plainEncoding('png') });
