import { planContentArea } from '../contentArea.ts';
import type { RenderPlan } from '../renderPlan.ts';
import { drawnAt } from './derivedPlan.ts';

/** Less than this is not worth another scaling. */
const worthEnlarging = 1.05;

/** The plan of a picture at the dimensions at which it is sharpened, unfinished; null where nothing is gained by that. */
export function enlargedPlan(plan: RenderPlan): RenderPlan | null {
  const { finish } = plan;
  if (!finish || finish.oversize < worthEnlarging) return null;
  const { pixels } = planContentArea(plan);
  return drawnAt(plan, {
    width: Math.round(pixels.width * finish.oversize),
    height: Math.round(pixels.height * finish.oversize),
  });
}
