import type { OpenProject, OpenStep, PlaceOfNetwork, RecalledFrame, Step } from '@inkwell/core/model';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import { peopleNames } from '../../store/access/people.ts';
import type { Queryable } from '../../store/database.ts';
import { analysesOf } from '../../store/library/analyses.ts';
import type { FramedPicture } from '../../store/projects/frames.ts';
import { findStep, listSteps, type StoredStep, touchedBy } from '../../store/projects/history.ts';
import { projectName } from '../../store/projects/projects.ts';
import { orNotFound } from '../../userError.ts';
import type { WorkspaceTools } from '../../workspaces.ts';
import type { Planning } from '../plans/planner.ts';
import { type Moment, projectThen } from './projectThen.ts';

/** So many frames of a step are shown: each is planned anew. */
const mostShown = 120;

/** What was done to a project, the last step first. @param whole knows what people are called @param before only earlier steps */
export async function historyOf(
  { db }: Pick<WorkspaceTools, 'db'>,
  whole: Queryable,
  projectId: string,
  before: number | null,
): Promise<Step[]> {
  orNotFound(await projectName(db, projectId), 'This project');
  return named(whole, await listSteps(db, projectId, before));
}

async function named(whole: Queryable, steps: readonly StoredStep[]): Promise<Step[]> {
  const names = await peopleNames(
    whole,
    steps.flatMap(({ personId }) => personId ?? []),
  );
  return steps.map(({ personId, ...step }) => ({ ...step, who: (personId && names.get(personId)) ?? null }));
}

/** What a frame was at a moment. */
interface Then {
  at: PlaceOfNetwork;
  picture: string;
  plan: RenderPlan;
}

/** A project at a moment, with what its frames came to. */
class Recalled {
  private constructor(
    readonly project: OpenProject,
    private readonly framedOf: ReadonlyMap<string, FramedPicture>,
    private readonly planning: Planning,
  ) {}

  /** @param frameId only this frame of it */
  static async at(
    { db, planner }: WorkspaceTools,
    projectId: string,
    moment: Moment,
    frameId: string | null = null,
  ): Promise<Recalled> {
    const project = await projectThen(db, projectId, moment, frameId);
    const analysisOf = await analysesOf(db, project.originals);
    const originalOf = new Map(project.originals.map((one) => [one.id, one]));
    const framedOf = new Map(
      project.frames.flatMap((frame): [string, FramedPicture][] => {
        const original = originalOf.get(frame.originalId);
        return original ? [[frame.id, { frame, original, project, seen: analysisOf(original) }]] : [];
      }),
    );
    return new Recalled(project, framedOf, await planner.open());
  }

  /** Null where the frame was not there, or its place is not in the spec book any more. */
  frame(id: string): Then | null {
    const framed = this.framedOf.get(id);
    const [at, plan] = framed ? [this.planning.atOf(framed), this.planning.planOf(framed)] : [];
    return framed && at && plan ? { at, plan, picture: framed.original.name } : null;
  }
}

/** A step with the frames that look otherwise since. @param which all frames that there were then instead */
export async function openStep(
  tools: WorkspaceTools,
  whole: Queryable,
  projectId: string,
  id: number,
  which: 'touched' | 'all',
): Promise<OpenStep> {
  const stored = orNotFound(await findStep(tools.db, projectId, id), 'This step');
  const [step] = await named(whole, [stored]);
  const [before, after] = await Promise.all(
    (['before', 'after'] as const).map((is) => Recalled.at(tools, projectId, { step: id, is })),
  );
  if (!step || !before || !after) throw new Error('A step has two sides.');
  const ids =
    which === 'all' ? after.project.frames.map((one) => one.id) : await touchedFrames(tools, before, after, id);
  const frames = ids.slice(0, mostShown).flatMap((frameId): RecalledFrame[] => {
    const [was, is] = [before.frame(frameId), after.frame(frameId)];
    const one = is ?? was;
    if (!one) return [];
    const names = { picture: one.picture, network: one.at.network.name, place: one.at.place.name };
    return [{ id: frameId, ...names, before: seenAs(was), after: seenAs(is) }];
  });
  const differing = frames.filter((one) => one.before?.planHash !== one.after?.planHash);
  return which === 'all'
    ? { step, frames, count: ids.length }
    : { step, frames: differing, count: ids.length - frames.length + differing.length };
}

function seenAs(then: Then | null): RecalledFrame['after'] {
  if (!then) return null;
  const { width, height } = then.plan.output;
  return { planHash: planHash(then.plan), width, height };
}

/** The frames that a step may have changed: those whose rows it did something to, and those of what stands above them. */
async function touchedFrames({ db }: WorkspaceTools, before: Recalled, after: Recalled, id: number): Promise<string[]> {
  const touched = await touchedBy(db, after.project.id, id);
  const rowsOf = (table: string) => new Set(touched.flatMap((one) => (one.table === table ? one.rowId : [])));
  const [ofFrames, ofOriginals, ofProject] = [rowsOf('frames'), rowsOf('originals'), rowsOf('projects')];
  const there = new Set(after.project.frames.map((one) => one.id));
  const all = [...after.project.frames, ...before.project.frames.filter((one) => !there.has(one.id))];
  return all
    .filter((one) => ofProject.size > 0 || ofFrames.has(one.id) || ofOriginals.has(one.originalId))
    .map((one) => one.id);
}

/** The plan of a frame at a moment. @throws UserError where it was not there */
export async function planThen(
  tools: WorkspaceTools,
  projectId: string,
  moment: Moment,
  frameId: string,
): Promise<RenderPlan> {
  const recalled = await Recalled.at(tools, projectId, moment, frameId);
  return orNotFound(recalled.frame(frameId), 'This frame').plan;
}
