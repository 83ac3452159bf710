import { isDeepStrictEqual } from 'node:util';
import {
  type BroughtBack,
  type Frame,
  type FrameSettings,
  FrameSettingsSchema,
  type OpenProject,
  OriginalSettingsSchema,
  ProjectSettingsSchema,
  pairKey,
} from '@inkwell/core/model';
import type { Queryable } from '../../store/database.ts';
import { findOriginals, saveOriginalSettings } from '../../store/library/originals.ts';
import { changeFrames, framesAffected, framesOfProject, saveFrames } from '../../store/projects/frames.ts';
import { findStep, orderOriginals } from '../../store/projects/history.ts';
import { changeOriginals, openProject, renameProject, saveProjectSettings } from '../../store/projects/projects.ts';
import { orNotFound } from '../../userError.ts';
import type { WorkspaceTools } from '../../workspaces.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { checkEmblems } from '../projects/checkEmblems.ts';
import { projectThen } from './projectThen.ts';

interface Outcome extends BroughtBack {
  /** Pictures whose settings came back: other projects may show them as well. */
  changed: string[];
}

/**
 * Makes a project what it was after a step. That is a step of its own, which can be taken back in the same way: what came since is not lost.
 *
 * @throws UserError where the step is not there, or an emblem's picture was deleted since
 */
export async function bringBack(
  tools: Pick<WorkspaceTools, 'db' | 'planner'>,
  projectId: string,
  step: number,
): Promise<BroughtBack> {
  const { frames, pictures } = await saveAndMeasure(
    tools,
    async (tx): Promise<Outcome> => {
      orNotFound(await findStep(tx, projectId, step), 'This step');
      const then = await projectThen(tx, projectId, { step, is: 'after' });
      const now = orNotFound(await openProject(tx, projectId), 'This project');
      await bringProject(tx, now, then);
      const changed = await bringOriginals(tx, then);
      return { frames: await bringFrames(tx, now, then), pictures: changed.length, changed };
    },
    async (tx, { changed }) => {
      const elsewhere = await Promise.all(changed.map((originalId) => framesAffected(tx, { originalId })));
      return [
        ...(await framesOfProject(tx, projectId)),
        ...elsewhere.flat().filter(({ frame }) => frame.projectId !== projectId),
      ];
    },
  );
  return { frames, pictures };
}

/** Its name, what is set for all of it, and which pictures are in it in which order. */
async function bringProject(tx: Queryable, now: OpenProject, then: OpenProject): Promise<void> {
  const [ofNow, ofThen] = [ProjectSettingsSchema.parse(now), ProjectSettingsSchema.parse(then)];
  if (now.name !== then.name) await renameProject(tx, now.id, then.name);
  if (!isDeepStrictEqual(ofNow, ofThen)) {
    await checkEmblems(tx, now.lettering, then.lettering);
    await saveProjectSettings(tx, now.id, now.version, ofThen);
  }
  const [inNow, inThen] = [now, then].map(({ originals }) => originals.map(({ id }) => id));
  if (!inNow || !inThen || isDeepStrictEqual(inNow, inThen)) return;
  const without = (all: string[], others: string[]) => all.filter((id) => !others.includes(id));
  await changeOriginals(tx, now.id, without(inThen, inNow), without(inNow, inThen));
  await orderOriginals(tx, now.id, inThen);
}

/** What is set on pictures. @returns the ids of those that were set otherwise */
async function bringOriginals(tx: Queryable, then: OpenProject): Promise<string[]> {
  const known = new Map(
    (
      await findOriginals(
        tx,
        then.originals.map(({ id }) => id),
      )
    ).map((one) => [one.id, one]),
  );
  const changed: string[] = [];
  for (const original of then.originals) {
    const now = known.get(original.id);
    const settings = OriginalSettingsSchema.parse(original);
    if (!now || isDeepStrictEqual(OriginalSettingsSchema.parse(now), settings)) continue;
    if (await saveOriginalSettings(tx, original.id, now.version, settings)) changed.push(original.id);
  }
  return changed;
}

/** @returns how many frames are set otherwise, came back or went */
async function bringFrames(tx: Queryable, now: OpenProject, then: OpenProject): Promise<number> {
  // What came back is a frame of its own: it may have been taken out and chosen again meanwhile.
  const there = new Map(now.frames.map((frame) => [pairKey(frame), frame]));
  const wanted = new Set(then.frames.map(pairKey));
  const gone = now.frames.filter((frame) => !wanted.has(pairKey(frame)));
  const missing = then.frames.filter((frame) => !there.has(pairKey(frame)));
  await changeFrames(
    tx,
    now.id,
    missing.map(({ id: _, version: __, ...frame }) => frame),
    gone.map(({ id }) => id),
  );
  let changed = gone.length + missing.length;
  for (const { ids, settings } of alike(then.frames, there)) {
    await saveFrames(tx, ids, settings);
    changed += ids.length;
  }
  return changed;
}

interface Alike {
  ids: string[];
  settings: FrameSettings;
}

/** Frames that have to be set otherwise, those that become alike together. @param there the frames as they are, by their pairs */
function alike(frames: readonly Frame[], there: ReadonlyMap<string, Frame>): Alike[] {
  const groups = new Map<string, Alike>();
  for (const frame of frames) {
    const now = there.get(pairKey(frame));
    const settings = FrameSettingsSchema.parse(frame);
    if (!now || isDeepStrictEqual(FrameSettingsSchema.parse(now), settings)) continue;
    const key = JSON.stringify(settings);
    const group = groups.get(key) ?? { ids: [], settings };
    groups.set(key, group);
    group.ids.push(now.id);
  }
  return [...groups.values()];
}
