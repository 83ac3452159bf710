import { largestWindow, wholeOf } from '@inkwell/core/geometry';
import type { Original } from '@inkwell/core/model';
import { engineVersion, plainEncoding, type RenderPlan } from '@inkwell/core/planning';

/** The plan that shows an original whole, as the bench's left side and lists do. */
export function previewPlan(original: Pick<Original, 'sha256' | 'page' | 'width' | 'height' | 'hasAlpha'>): RenderPlan {
  const { sha256, page, width, height } = original;
  return {
    engine: engineVersion,
    original: { sha256, page, width, height },
    picture: { left: 0, top: 0, width, height },
    window: largestWindow(wholeOf({ width, height }), { width, height }),
    backing: null,
    output: { width, height },
    stretch: 1,
    closing: null,
    finish: null,
    border: null,
    shape: null,
    grid: null,
    flatten: null,
    encoding: plainEncoding(original.hasAlpha ? 'png' : 'jpeg'),
  };
}
