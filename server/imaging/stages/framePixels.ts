import type { RenderPlan } from '@inkwell/core/planning';
import { timed } from '../../running/counting.ts';
import { cutPieces } from './cutting.ts';
import type { FinishWatch } from './finishing.ts';
import type { Pixels } from './pixels.ts';
import { type DrawnFrom, renderPixels } from './renderPixels.ts';

/** The pixels of a plan: the whole, and what of it goes into each file, in reading order. */
export interface FramePixels {
  whole: Pixels;
  cut: Pixels[];
}

export async function framePixels(plan: RenderPlan, copy: DrawnFrom, watch?: FinishWatch): Promise<FramePixels> {
  return timed('draw', async () => {
    const whole = await renderPixels(plan, copy, watch);
    return { whole, cut: plan.grid ? await cutPieces(whole, plan.grid) : [whole] };
  });
}
