import { scaledBy, scaledRect } from '../../geometry/index.ts';
import type { RenderPlan } from '../renderPlan.ts';
import { showingTheSame } from './derivedPlan.ts';

/** The same picture at other dimensions, in one piece, with everything on it as large a part of it. At least one pixel each way. */
export function scalePlan(plan: RenderPlan, factor: number): RenderPlan {
  const output = scaledBy(plan.output, factor);
  const shape = plan.shape && {
    ...plan.shape,
    radius: plan.shape.radius * factor,
    ring: plan.shape.ring && { ...plan.shape.ring, width: plan.shape.ring.width * factor },
  };
  const finish = plan.finish && { ...plan.finish, scale: plan.finish.scale * factor };
  const border = plan.border && {
    ...plan.border,
    width: plan.border.width * factor,
    around: plan.border.around.map((rect) => scaledRect(rect, { x: factor, y: factor })),
  };
  const closing = plan.closing && {
    ...plan.closing,
    width: Math.min(Math.max(1, Math.round(plan.closing.width * factor)), Math.max(1, output.width - 1)),
  };
  const lettering = plan.lettering && scaledLettering(plan.lettering, plan.output, output);
  return showingTheSame(plan, { ...plan, output, grid: null, shape, closing, finish, border, lettering });
}

function scaledLettering(
  { scale, layers, items }: NonNullable<RenderPlan['lettering']>,
  before: RenderPlan['output'],
  after: RenderPlan['output'],
): RenderPlan['lettering'] {
  const times = { x: after.width / before.width, y: after.height / before.height };
  return {
    scale: { x: scale.x * times.x, y: scale.y * times.y },
    layers,
    items: items.map((item) => ({
      ...item,
      box: scaledRect(item.box, times),
      piece: scaledRect(item.piece, times),
      xHeight: item.xHeight && item.xHeight * times.y,
      em: item.em * times.y,
    })),
  };
}
