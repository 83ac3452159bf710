import { isDeepStrictEqual } from 'node:util';
import { type NewIds, settingsHere } from '@inkwell/core/carrying';
import { plainFinishId, shippedFinishes } from '@inkwell/core/finishing';
import {
  type ImportedProject,
  type ImportNote,
  type Original,
  OriginalSettingsSchema,
  type ProjectFile,
} from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { addFinish, listFinishes } from '../../store/library/finishes.ts';
import { keepRewritten, saveOriginalSettings } from '../../store/library/originals.ts';
import { addSheet } from '../../store/library/sheets.ts';
import { changeFrames, framesOfProject, type NewFrame } from '../../store/projects/frames.ts';
import { addProject, changeOriginals, openProject } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { newSlug } from '../book/changeSheets.ts';
import { regionProblem } from '../library/changeOriginal.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { checkEmblems } from '../projects/checkEmblems.ts';
import { newFrames } from '../projects/newFrames.ts';
import { isSameOriginal } from './importedOriginals.ts';

/** Keeps the project with all that it needs, in one transaction. @param otherSheets slugs that come as sheets of one's own */
export async function keepImported(
  services: Services,
  file: ProjectFile,
  originals: ReadonlyMap<string, Original>,
  otherSheets: ReadonlySet<string>,
): Promise<ImportedProject> {
  const notes: ImportNote[] = [];
  const id = await saveAndMeasure(
    services,
    async (tx) => {
      const place = await placesHere(services, tx, file, otherSheets, notes);
      const finish = await finishesHere(tx, file);
      const ids: NewIds = { original: (one) => originals.get(one)?.id ?? null, place, finish };
      await setOriginals(tx, file, originals, finish);
      const settings = settingsHere(file, ids, plainFinishId);
      await checkEmblems(tx, [], settings.lettering);
      const projectId = await addProject(tx, file.name, settings);
      const chosen = file.originals.flatMap((one) => (one.isChosen ? (ids.original(one.id) ?? []) : []));
      await changeOriginals(tx, projectId, chosen, []);
      await changeFrames(tx, projectId, await framesHere(services, tx, projectId, file, ids, notes), []);
      return projectId;
    },
    framesOfProject,
  );
  return { project: orNotFound(await openProject(services.db, id), 'This project'), notes };
}

/** Adds the sheets that are not here. @returns what a place of the file is called here */
async function placesHere(
  { planner }: Services,
  tx: Queryable,
  { sheets, name }: ProjectFile,
  otherSheets: ReadonlySet<string>,
  notes: ImportNote[],
): Promise<NewIds['place']> {
  const known = new Set((await planner.open(tx)).sheets.map(({ slug }) => slug));
  const slugs = new Map<string, string>();
  for (const { slug, ...content } of sheets) {
    if (known.has(slug) && !otherSheets.has(slug)) continue;
    // The id of a sheet of one's own stays, where it is free: other files name it as well.
    const isFree = !known.has(slug) && slug.startsWith('own-');
    const given = isFree ? slug : await newSlug(tx, content.name);
    await addSheet(tx, { slug: given }, content, { savedBy: '', note: `From the project file ${name}`.slice(0, 300) });
    slugs.set(slug, given);
    notes.push({ text: `The sheet ${content.name} came with it, as a sheet of your own.`, isLoss: false });
  }
  return (placeId) => {
    const [slug = '', ...rest] = placeId.split('/');
    return [slugs.get(slug) ?? slug, ...rest].join('/');
  };
}

/** Adds the finishes that are not here. @returns what a finish of the file is here; null where there is none */
async function finishesHere(tx: Queryable, { finishes }: ProjectFile): Promise<NewIds['finish']> {
  const here = await listFinishes(tx);
  const known = new Map<string, string>(shippedFinishes.map(({ id }) => [id, id]));
  for (const { id, ...settings } of finishes) {
    const same = here.find(({ name, description, treatment }) =>
      isDeepStrictEqual({ name, description, treatment }, settings),
    );
    known.set(id, (same ?? (await addFinish(tx, settings))).id);
  }
  return (id) => known.get(id) ?? null;
}

/** Sets on new originals what is set on them in the file. @throws UserError where a region reaches past its picture */
async function setOriginals(
  tx: Queryable,
  file: ProjectFile,
  originals: ReadonlyMap<string, Original>,
  finish: NewIds['finish'],
): Promise<void> {
  for (const one of file.originals) {
    const here = originals.get(one.id);
    if (!here || isSameOriginal(here, one)) continue;
    const settings = OriginalSettingsSchema.parse(one);
    const problem = regionProblem(here, settings);
    if (problem) throw new UserError(`${one.name}: ${problem} Nothing was taken.`);
    const finishId = settings.finishId === null ? null : finish(settings.finishId);
    await saveOriginalSettings(tx, here.id, here.version, { ...settings, finishId });
    const from = one.rewritten && originals.get(one.rewritten.from);
    if (one.rewritten && from) await keepRewritten(tx, here.id, { ...one.rewritten, from: from.id });
  }
}

/** The frames of a file as they are here; those that no place takes are told of. */
async function framesHere(
  services: Services,
  tx: Queryable,
  projectId: string,
  file: ProjectFile,
  { original, place, finish }: NewIds,
  notes: ImportNote[],
): Promise<NewFrame[]> {
  const project = orNotFound(await openProject(tx, projectId), 'This project');
  const newFrame = await newFrames(services, tx, project, project.originals);
  const originalOf = new Map(project.originals.map((one) => [one.id, one]));
  const reasons = new Map<string, number>();
  const frames = file.frames.flatMap(({ originalId, placeId, settings }): NewFrame[] => {
    const picture = originalOf.get(original(originalId) ?? '');
    const finishId = settings.finishId === null ? null : finish(settings.finishId);
    try {
      if (!picture) throw new UserError('A frame is of a picture that the project has not chosen.');
      return [newFrame(picture, place(placeId), { ...settings, finishId })];
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      reasons.set(error.message, (reasons.get(error.message) ?? 0) + 1);
      return [];
    }
  });
  for (const [reason, count] of reasons) {
    notes.push({ text: `${count} ${count === 1 ? 'frame was' : 'frames were'} left out. ${reason}`, isLoss: true });
  }
  return frames;
}
