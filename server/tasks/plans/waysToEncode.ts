import { otherFormats, type Way, waysOut } from '@inkwell/core/checking';
import type { FrameChange, WeighedWay } from '@inkwell/core/model';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import type { Services } from '../../services.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import type { FramedPicture } from '../../store/projects/frames.ts';
import { addWork, failures, priorities } from '../../store/work.ts';
import { orNotFound } from '../../userError.ts';
import { type AskedFrame, askedFrame } from './askedFrame.ts';
import { planKey } from './measuredFrames.ts';

/** What is asked for: ways to make a file that is too heavy fit, or its formats side by side. */
export type About = 'ways' | 'formats';
type Stores = Pick<Services, 'db' | 'planner'>;

/** A frame with some of its settings changed. */
export const changed = (framed: FramedPicture, change: FrameChange): FramedPicture => ({
  ...framed,
  frame: { ...framed.frame, ...change },
});

const ownFormat = ({ frame: { format, weighing } }: FramedPicture): Way => ({
  key: 'own',
  label: 'As it is set',
  cost: '',
  change: { format, weighing },
});

/** The same way with nothing seen to be lost, whatever the frame's own aim. */
const unseen = (way: Way): Way => {
  const { weighing } = way.change;
  if (!weighing) return way;
  const aim = { kind: 'no heavier than it needs' as const, level: 'flick' as const };
  return { ...way, change: { ...way.change, weighing: { ...weighing, aim, mostQuality: null } } };
};

interface PlannedWay {
  way: Way;
  plan: RenderPlan;
  hash: string;
}

function plannedWays({ framed, planning }: AskedFrame, about: About): PlannedWay[] {
  const { frame, original } = framed;
  const { place } = orNotFound(planning.atOf(framed), 'The place of this frame');
  const toWay = { original, place, settings: frame, treatment: planning.finishOf(framed).treatment };
  const ways = about === 'ways' ? waysOut(toWay) : [ownFormat(framed), ...otherFormats(toWay)].map(unseen);
  return ways.flatMap((way) => {
    const plan = planning.planOf(changed(framed, way.change));
    return plan ? [{ way, plan, hash: planHash(plan) }] : [];
  });
}

/**
 * Other ways to make the file of a frame, each with what it weighs. Of formats each is as light as it can be while nothing is
 * seen to be lost, so that they can be compared.
 */
export async function waysToEncode(services: Stores, id: string, hash: string, about: About): Promise<WeighedWay[]> {
  const planned = plannedWays(await askedFrame(services, id, hash), about);
  const hashes = planned.map((one) => one.hash);
  const weights = await knownWeights(services.db, hashes);
  const failed = await failures(services.db, hashes.map(planKey));
  return planned.map((one) => ({
    ...one.way,
    weight: weights.get(one.hash) ?? null,
    failure: failed.get(planKey(one.hash)) ?? null,
  }));
}

/** Asks for the ways that are not measured yet: somebody is looking at them. What failed is tried again. */
export async function measureWays(services: Stores, id: string, hash: string, about: About): Promise<void> {
  const asked = await askedFrame(services, id, hash);
  const planned = plannedWays(asked, about);
  const weights = await knownWeights(
    services.db,
    planned.map((one) => one.hash),
  );
  const missing = planned.filter((one) => !weights.has(one.hash));
  const work = missing.map((one) => ({
    key: planKey(one.hash),
    task: { kind: 'plan' as const, plan: one.plan, isWay: true },
    priority: priorities.delivering,
    projectId: asked.framed.project.id,
  }));
  await addWork(services.db, work, true);
}
