import type { Dimensions } from '../../model/index.ts';
import { planContentArea } from '../contentArea.ts';
import type { RenderPlan } from '../renderPlan.ts';

/** Nothing is done to the picture, laid over it or cut out of it. */
export const bare = {
  finish: null,
  border: null,
  shape: null,
  closing: null,
  lettering: null,
  grid: null,
  flatten: null,
} as const satisfies Partial<RenderPlan>;

type Derived = Partial<Omit<RenderPlan, 'engine' | 'original' | 'picture'>>;

/**
 * A plan of the same picture, for a purpose of its own. What is done to the picture, laid over it or cut out of it is left
 * out; what of it stays is among the `changes`.
 */
export const derivedPlan = (plan: RenderPlan, changes: Derived): RenderPlan => ({ ...plan, ...bare, ...changes });

/**
 * A plan at other dimensions that shows exactly what another does: rounded to whole pixels its sides have slightly other
 * proportions, which are taken out again by a stretch, or its pixels would lie a little beside those of the other.
 */
export function showingTheSame(plan: RenderPlan, resized: RenderPlan): RenderPlan {
  const [before, after] = [planContentArea(plan).pixels, planContentArea(resized).pixels];
  const stretch = (plan.stretch * before.height * after.width) / (before.width * after.height);
  return { ...resized, stretch };
}

/** What fills a plan's content area, unfinished and with nothing round it, at other dimensions. */
export const drawnAt = (plan: RenderPlan, output: Dimensions): RenderPlan =>
  showingTheSame(plan, derivedPlan(plan, { output }));

/** The same frame left plain, its border included: what its finish is compared with. */
export const plainPlan = (plan: RenderPlan): RenderPlan => ({ ...plan, finish: null });

/** The two plans that a strip with a closing panel is drawn by, side by side; the one that it is where it has none. */
export function besideClosing(plan: RenderPlan): { strip: RenderPlan; closing: RenderPlan | null } {
  if (!plan.closing) return { strip: plan, closing: null };
  const { finish, shape, flatten } = plan;
  const { width, window, backing } = plan.closing;
  const part = (across: number, changes: Derived = {}) =>
    derivedPlan(plan, { finish, shape, flatten, output: { width: across, height: plan.output.height }, ...changes });
  return { strip: part(plan.output.width - width), closing: part(width, { window, backing }) };
}
