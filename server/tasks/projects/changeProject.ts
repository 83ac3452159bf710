import { nextName, nextProject } from '@inkwell/core/carrying';
import {
  type FrameSettings,
  longestName,
  type OpenProject,
  type Pins,
  type ProjectSettings,
  pairKey,
  type SpecSheet,
} from '@inkwell/core/model';
import { patternProblem } from '@inkwell/core/naming';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { areThere } from '../../store/library/originals.ts';
import { changeFrames, framesOfProject, type NewFrame } from '../../store/projects/frames.ts';
import {
  addProject,
  changeOriginals,
  duplicateProject,
  openProject,
  saveProjectSettings,
  setProjectDeleted,
} from '../../store/projects/projects.ts';
import { notFound, orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { checkEmblems } from './checkEmblems.ts';
import { newFrames } from './newFrames.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const what = 'This project';

const opened = async (db: Queryable, id: string): Promise<OpenProject> => orNotFound(await openProject(db, id), what);

/**
 * Saves what holds for all frames of a project, changed on a version of it.
 *
 * @throws UserError with the project as it is now where that was changed elsewhere, or where an emblem's picture is not there
 */
export async function changeProjectSettings(
  services: Stores,
  id: string,
  version: number,
  change: Partial<ProjectSettings>,
): Promise<OpenProject> {
  await saveAndMeasure(
    services,
    async (tx) => {
      const current = await opened(tx, id);
      checkVersion(current, version, 'These project settings were changed in another window.');
      const problem = change.pattern === undefined ? null : patternProblem(change.pattern);
      if (problem) throw new UserError(problem);
      if (change.pins) checkPins((await services.planner.open(tx)).sheets, change.pins);
      if (change.lettering) await checkEmblems(tx, current.lettering, change.lettering);
      orNotFound(await saveProjectSettings(tx, id, version, change), what);
    },
    (tx) => framesOfProject(tx, id),
  );
  return opened(services.db, id);
}

/** A project can only stay on a version that there is. @throws UserError where there is none */
function checkPins(sheets: readonly SpecSheet[], pins: Pins): void {
  for (const [slug, number] of Object.entries(pins)) {
    const own = sheets.find((sheet) => sheet.slug === slug)?.own;
    if (!own || number > own.version) {
      throw new UserError(`There is no version ${number} of the sheet ${slug}. Choose one that there is.`);
    }
  }
}

/** Takes a project back that was put aside. Nobody wanted its frames measured meanwhile: that is asked for again. */
export async function takeProjectBack(services: Stores, id: string): Promise<void> {
  await saveAndMeasure(
    services,
    async (tx) => orNotFound(await setProjectDeleted(tx, id, false), what),
    (tx) => framesOfProject(tx, id),
  );
}

/** Makes a project of its own with the same originals and frames. */
export async function copyProject(services: Stores, id: string): Promise<OpenProject> {
  const copy = await saveAndMeasure(
    services,
    async (tx) => orNotFound(await duplicateProject(tx, id), what),
    framesOfProject,
  );
  return opened(services.db, copy);
}

/** Begins the project that comes after another: with all that was set for that, and without its pictures. */
export async function beginNext({ db }: Pick<Stores, 'db'>, id: string): Promise<OpenProject> {
  const project = await opened(db, id);
  return opened(db, await addProject(db, nextName(project.name, longestName), nextProject(project)));
}

/** Chooses originals for a project, each with the places that all its pictures get, and takes others out of it. */
export async function chooseOriginals(
  services: Stores,
  id: string,
  add: string[],
  remove: string[],
): Promise<OpenProject> {
  await opened(services.db, id);
  if (!(await areThere(services.db, add))) throw notFound('One of these originals');
  await services.db.transaction((tx) => changeOriginals(tx, id, add, remove));
  const project = await opened(services.db, id);
  const { places } = (await services.planner.open()).bookFor(project);
  const usual = project.usualPlaces.filter((placeId) => places.has(placeId));
  const added = add.flatMap((originalId) => usual.map((placeId) => ({ originalId, placeId })));
  return added.length > 0 ? chooseFrames(services, id, added, []) : project;
}

/** A frame that is asked for: composed, unless its settings are given. */
export interface AskedFor {
  originalId: string;
  placeId: string;
  settings?: FrameSettings | undefined;
}

/** Adds frames to a project, as far as they are not there, and takes others out of it. @throws UserError where a place takes none */
export async function chooseFrames(
  services: Stores,
  id: string,
  asked: readonly AskedFor[],
  remove: string[],
): Promise<OpenProject> {
  const project = await opened(services.db, id);
  const { originals } = project;
  const newFrame = await newFrames(services, null, project, originals);
  const originalOf = new Map(originals.map((one) => [one.id, one]));
  const add = asked.map(({ originalId, placeId, settings = {} }): NewFrame => {
    const original = originalOf.get(originalId);
    if (!original) throw new UserError('An original has to be chosen for the project before it is given places.', 409);
    return newFrame(original, placeId, settings);
  });
  await saveAndMeasure(
    services,
    (tx) => changeFrames(tx, id, add, remove),
    async (tx) => {
      const keys = new Set(add.map(pairKey));
      return (await framesOfProject(tx, id)).filter(({ frame }) => keys.has(pairKey(frame)));
    },
  );
  return opened(services.db, id);
}
