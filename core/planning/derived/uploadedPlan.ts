import type { Rect } from '../../geometry/index.ts';
import type { RenderPlan } from '../renderPlan.ts';
import { scalePlan } from './scaledPlan.ts';

/** The plan of a frame in one piece whose file has other dimensions than its place: what stands on it is where it is in that file. */
export function uploadedPlan(plan: RenderPlan, share: number): RenderPlan {
  const scaled = scalePlan(plan, share);
  const rect = ({ left, top, width, height }: Rect): Rect => ({
    left: left * share,
    top: top * share,
    width: width * share,
    height: height * share,
  });
  const items = scaled.lettering?.items.map((item) => ({
    ...item,
    box: rect(item.box),
    piece: rect(item.piece),
    xHeight: item.xHeight && item.xHeight * share,
    em: item.em * share,
  }));
  return { ...scaled, lettering: scaled.lettering && { ...scaled.lettering, items: items ?? [] } };
}
