import { plainPlan, type RenderPlan } from '@inkwell/core/planning';
import type { Services } from '../../services.ts';
import { type FramedPicture, findFrame } from '../../store/projects/frames.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { Planning } from './planner.ts';

/** How long a browser may keep what an address answers that names a plan. */
export const forEver = 'private, max-age=31536000, immutable';

export interface AskedFrame {
  framed: FramedPicture;
  planning: Planning;
  plan: RenderPlan;
}

/**
 * A frame whose plan is still the one that was asked for: addresses that name a plan never change what they answer.
 *
 * @param as whether all of the plan was asked for, or the same frame left plain
 * @throws UserError where the frame is gone, its place is, or it has changed meanwhile
 */
export async function askedFrame(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  id: string,
  hash: string,
  as: 'planHash' | 'plainHash' = 'planHash',
): Promise<AskedFrame> {
  const framed = orNotFound(await findFrame(db, id), 'This frame');
  const planning = await planner.open();
  const { plan, planned } = orNotFound(planning.measuringOf(framed), 'The place of this frame');
  if (planned[as] !== hash) throw new UserError('The frame has changed since this was asked for.', 409);
  return { framed, planning, plan: as === 'plainHash' ? plainPlan(plan) : plan };
}
