import type { Dimensions } from '../model/index.ts';
import { planContentArea } from './contentArea.ts';
import type { RenderPlan } from './renderPlan.ts';
import { showingTheSame } from './scaledPlan.ts';

/** Less than this is not worth another scaling. */
const worthEnlarging = 1.05;

/** The same frame left plain, its border included: what its finish is compared with. */
export const plainPlan = (plan: RenderPlan): RenderPlan => ({ ...plan, finish: null });

/** The plan of a picture at the dimensions at which it is sharpened, unfinished; null where nothing is gained by that. */
export function enlargedPlan(plan: RenderPlan): RenderPlan | null {
  const { finish } = plan;
  if (!finish || finish.oversize < worthEnlarging) return null;
  const { pixels } = planContentArea(plan);
  const output = {
    width: Math.round(pixels.width * finish.oversize),
    height: Math.round(pixels.height * finish.oversize),
  };
  return drawnAt(plan, output);
}

/** What fills a plan's content area, unfinished and with nothing round it, at other dimensions. */
export const drawnAt = (plan: RenderPlan, output: Dimensions): RenderPlan =>
  showingTheSame(plan, {
    ...plan,
    output,
    finish: null,
    border: null,
    shape: null,
    closing: null,
    grid: null,
    flatten: null,
  });
