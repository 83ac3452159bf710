import type { Original } from '@inkwell/core/model';
import { engineVersion, type RenderPlan } from '@inkwell/core/planning';

/** The plan that shows an original whole, as the bench's left side and lists do. */
export function previewPlan(original: Pick<Original, 'sha256' | 'width' | 'height' | 'hasAlpha'>): RenderPlan {
  const { sha256, width, height } = original;
  return {
    engine: engineVersion,
    original: { sha256, width, height },
    source: { left: 0, top: 0, width, height },
    output: { width, height },
    flatten: null,
    encoding: { format: original.hasAlpha ? 'png' : 'jpeg', quality: 90, budgetBytes: Number.MAX_SAFE_INTEGER },
  };
}
