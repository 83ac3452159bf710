import { borderMargins, type Margins } from '../framing/index.ts';
import type { Dimensions } from '../model/index.ts';
import type { RenderPlan } from './renderPlan.ts';

/** The part of a file that a plan's window fills. */
export interface PlanContentArea {
  /** Whole pixels. */
  pixels: Dimensions;
  /** The same with the picture's own proportions: what the geometry of windows works with. */
  window: Dimensions;
  /** Pixels of ring or border on each side of it. */
  margins: Margins;
}

/** Where the picture lies in the file: all of it, or what a closing panel and a ring or border outside leave. */
export function planContentArea({
  output,
  shape,
  stretch,
  closing,
  border,
}: Pick<RenderPlan, 'output' | 'shape' | 'stretch' | 'closing' | 'border'>): PlanContentArea {
  const most = Math.floor((Math.min(output.width, output.height) - 1) / 2);
  const ring = Math.min(most, shape?.ring?.side === 'outside' ? Math.round(shape.ring.width) : 0);
  const margins =
    ring > 0
      ? { left: ring, top: ring, right: ring, bottom: ring }
      : wholePixels(borderMargins(border, output, closing !== null));
  const pixels = {
    width: Math.max(1, output.width - (closing?.width ?? 0) - margins.left - margins.right),
    height: Math.max(1, output.height - margins.top - margins.bottom),
  };
  return { pixels, window: { width: pixels.width, height: pixels.height * stretch }, margins };
}

/** A border of a proof is a fraction of a pixel wide; where it is drawn it is at least one. */
function wholePixels({ left, top, right, bottom }: Margins): Margins {
  const whole = (width: number) => (width > 0 ? Math.max(1, Math.round(width)) : 0);
  return { left: whole(left), top: whole(top), right: whole(right), bottom: whole(bottom) };
}
