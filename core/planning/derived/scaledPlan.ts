import type { Dimensions } from '../../model/index.ts';
import type { RenderPlan } from '../renderPlan.ts';
import { showingTheSame } from './derivedPlan.ts';

/** The same picture at other dimensions, in one piece: a proof. At least one pixel each way. */
export function scalePlan(plan: RenderPlan, factor: number): RenderPlan {
  const scaled = (pixels: number) => Math.max(1, Math.round(pixels * factor));
  const output: Dimensions = { width: scaled(plan.output.width), height: scaled(plan.output.height) };
  const shape = plan.shape && {
    ...plan.shape,
    radius: plan.shape.radius * factor,
    ring: plan.shape.ring && { ...plan.shape.ring, width: plan.shape.ring.width * factor },
  };
  const finish = plan.finish && { ...plan.finish, scale: plan.finish.scale * factor };
  const border = plan.border && {
    ...plan.border,
    width: plan.border.width * factor,
    around: plan.border.around.map(({ left, top, width, height }) => ({
      left: left * factor,
      top: top * factor,
      width: width * factor,
      height: height * factor,
    })),
  };
  const closing = plan.closing && {
    ...plan.closing,
    width: Math.min(scaled(plan.closing.width), Math.max(1, output.width - 1)),
  };
  const lettering = plan.lettering && {
    ...plan.lettering,
    scale: {
      x: (plan.lettering.scale.x * output.width) / plan.output.width,
      y: (plan.lettering.scale.y * output.height) / plan.output.height,
    },
  };
  return showingTheSame(plan, { ...plan, output, grid: null, shape, closing, finish, border, lettering });
}
