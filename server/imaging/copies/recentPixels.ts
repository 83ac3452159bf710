import { plainEncoding, planHash, type RenderPlan } from '@inkwell/core/planning';
import { LRUCache } from 'lru-cache';
import { type FramePixels, framePixels } from '../stages/framePixels.ts';
import type { DrawnFrom } from '../stages/renderPixels.ts';

/** Pictures of so many bytes are kept at most: a strip of twenty panels just so. */
const bound = 512_000_000;

/**
 * The pixels of the frames whose encodings somebody is looking at: many encodings of one picture are tried, and it is
 * rendered once for all of them.
 */
export class RecentPixels {
  private readonly kept: LRUCache<string, FramePixels, RenderPlan>;

  constructor(copies: { forPlan(plan: RenderPlan): Promise<DrawnFrom> }) {
    this.kept = new LRUCache({
      maxSize: bound,
      // What is measured of them lies in memory a second time.
      sizeCalculation: ({ whole, cut }) => 2 * cut.reduce((sum, { data }) => sum + data.length, whole.data.length),
      fetchMethod: async (_key, _stale, { context: plan }) => framePixels(plan, await copies.forPlan(plan)),
    });
  }

  get(plan: RenderPlan): Promise<FramePixels> {
    return this.kept.forceFetch(pixelsHash(plan), { context: plan });
  }
}

/** The same for all plans that differ in nothing but their encoding. */
export const pixelsHash = (plan: RenderPlan): string => planHash({ ...plan, encoding: plainEncoding('png') });
