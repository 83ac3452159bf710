import { isAllMeasured, type Measured } from '@inkwell/core/model';
import type { Database, Queryable } from '../../store/database.ts';
import { knownDetails } from '../../store/measured/details.ts';
import { knownFigures } from '../../store/measured/figures.ts';
import { knownLegibilities } from '../../store/measured/legibilities.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { type FramedPicture, framesOfProject } from '../../store/projects/frames.ts';
import { addWork, dropMeasuring, failures, type NewWork, priorities } from '../../store/work.ts';
import type { Measuring, Planner, Planning } from './planner.ts';

export const planKey = (planHash: string) => `plan ${planHash}`;
const detailKey = (hash: string) => `detail ${hash}`;
const legibilityKey = (hash: string) => `legibility ${hash}`;

/** All work that a frame's measuring can come to. */
const keysOf = ({ planned, detail, legibility }: Measuring): string[] => [
  planKey(planned.planHash),
  ...(detail ? [detailKey(detail.hash)] : []),
  ...(legibility ? [legibilityKey(legibility.hash)] : []),
];

/** The work that it takes to know everything about a frame; of what is known already, none. */
function workFor(
  { frameId, projectId, plan, planned: { planHash }, detail, legibility }: ToMeasure,
  known: Known,
  priority: number,
): NewWork[] {
  const common = { priority, wantedBy: [frameId], projectId };
  const wanted: NewWork[] = [];
  const [weight, figures] = [known.weights.has(planHash), known.figures.has(planHash)];
  if (!weight || (plan.finish !== null && !figures)) {
    wanted.push({ key: planKey(planHash), task: { kind: 'plan', plan, isWay: false }, ...common });
  }
  if (detail && !known.details.has(detail.hash)) {
    const task = { kind: 'detail' as const, plan, ...detail };
    wanted.push({ key: detailKey(detail.hash), task, ...common });
  }
  if (legibility && !known.legibilities.has(legibility.hash)) {
    const task = { kind: 'legibility' as const, plan, ...legibility };
    const key = legibilityKey(legibility.hash);
    wanted.push({ key, task, after: planKey(planHash), ...common });
  }
  return wanted;
}

interface Known {
  weights: Awaited<ReturnType<typeof knownWeights>>;
  figures: Awaited<ReturnType<typeof knownFigures>>;
  details: Awaited<ReturnType<typeof knownDetails>>;
  legibilities: Awaited<ReturnType<typeof knownLegibilities>>;
}

type ToMeasure = { frameId: string; projectId: string } & Measuring;

const measurings = (planning: Planning, frames: readonly FramedPicture[]): ToMeasure[] =>
  frames.flatMap((framed) => {
    const measuring = planning.measuringOf(framed);
    return measuring ? [{ frameId: framed.frame.id, projectId: framed.project.id, ...measuring }] : [];
  });

const hashesOf = (measurings: readonly ToMeasure[]) => measurings.map(({ planned }) => planned.planHash);

/** What is known of frames: of those without a finish or without marks there is less to ask for. */
async function knownOf(db: Queryable, wanted: readonly ToMeasure[]): Promise<Known> {
  const finished = wanted.filter(({ plan }) => plan.finish !== null);
  return {
    weights: await knownWeights(db, hashesOf(wanted)),
    figures: await knownFigures(db, hashesOf(finished)),
    details: await knownDetails(
      db,
      wanted.flatMap(({ detail }) => detail?.hash ?? []),
    ),
    legibilities: await knownLegibilities(
      db,
      wanted.flatMap(({ legibility }) => legibility?.hash ?? []),
    ),
  };
}

/**
 * Asks for all that is not known yet of frames as they are set. It belongs into the transaction that has set them: what has to be
 * measured is asked for once, when it changes, and never because somebody looks.
 *
 * @param again tries again what could not be measured
 */
export async function queueMeasuring(
  db: Queryable,
  planning: Planning,
  frames: readonly FramedPicture[],
  priority: number = priorities.measuring,
  again = false,
): Promise<void> {
  const wanted = measurings(planning, frames);
  const known = await knownOf(db, wanted);
  await addWork(
    db,
    wanted.flatMap((one) => workFor(one, known, priority)),
    again,
  );
}

/** So many frames are planned in one go: what else a process does comes in between. */
const planned = 100;

/** Asks for all that is not known yet of a project's frames, the first of which are measured first. */
export async function queueProject(db: Database, planner: Planner, projectId: string): Promise<void> {
  await dropMeasuring(db, projectId);
  const frames = (await framesOfProject(db, projectId)).reverse();
  for (let from = 0; from < frames.length; from += planned) {
    await queueMeasuring(db, await planner.open(), frames.slice(from, from + planned));
  }
}

/** What is known of frames as they are set; null where it is being measured, or could not be. */
export async function measuredOf(
  db: Queryable,
  planning: Planning,
  frames: readonly FramedPicture[],
): Promise<Measured[]> {
  const wanted = measurings(planning, frames);
  const known = await knownOf(db, wanted);
  const measured = wanted.map(({ frameId, planned, plan, detail, legibility }) => ({
    frameId,
    ...planned,
    weight: known.weights.get(planned.planHash) ?? null,
    detail: detail ? (known.details.get(detail.hash) ?? null) : [],
    legibility: legibility ? (known.legibilities.get(legibility.hash) ?? null) : [],
    // Of a plain frame there is nothing to measure.
    isFinished: plan.finish !== null,
    figures: known.figures.get(planned.planHash) ?? null,
  }));
  const missing = wanted.filter((_, index) => !isAllMeasured(measured[index] as (typeof measured)[number]));
  const failed = await failures(db, missing.flatMap(keysOf));
  return measured.map((one, index) => {
    const keys = isAllMeasured(one) ? [] : keysOf(wanted[index] as ToMeasure);
    return { ...one, failure: keys.flatMap((key) => failed.get(key) ?? [])[0] ?? null };
  });
}
