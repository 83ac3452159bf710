import { largestWindow, wholeOf } from '../../geometry/index.ts';
import type { PictureSource } from '../../model/index.ts';
import { plainEncoding } from '../encodingPlan.ts';
import { engineVersion, type RenderPlan } from '../renderPlan.ts';
import { bare } from './derivedPlan.ts';

/** The plan that shows an original whole, as the bench's left side and lists do. */
export function wholePlan(original: PictureSource): RenderPlan {
  const { sha256, page, width, height } = original;
  return {
    ...bare,
    engine: engineVersion,
    original: { sha256, page, width, height },
    picture: { left: 0, top: 0, width, height },
    window: largestWindow(wholeOf({ width, height }), { width, height }),
    backing: null,
    output: { width, height },
    stretch: 1,
    encoding: plainEncoding(original.hasAlpha ? 'png' : 'jpeg'),
  };
}
