import type { Dimensions } from '../model/index.ts';
import type { RenderPlan } from './renderPlan.ts';

/** The part of a file that a plan's window fills. */
export interface PlanOpening {
  /** Whole pixels. */
  pixels: Dimensions;
  /** The same with the picture's own proportions: what the geometry of windows works with. */
  window: Dimensions;
  /** Pixels of ring on each side of it. */
  margin: number;
}

/** Where the picture lies in the file: all of it, or what a ring that lies outside and a closing panel leave. */
export function planOpening({
  output,
  shape,
  stretch,
  closing,
}: Pick<RenderPlan, 'output' | 'shape' | 'stretch' | 'closing'>): PlanOpening {
  const outside = shape?.ring?.side === 'outside' ? shape.ring.width : 0;
  const most = Math.floor((Math.min(output.width, output.height) - 1) / 2);
  const margin = Math.min(most, Math.round(outside));
  const pixels = { width: output.width - (closing?.width ?? 0) - 2 * margin, height: output.height - 2 * margin };
  return { pixels, window: { width: pixels.width, height: pixels.height * stretch }, margin };
}
