import { createReadStream, createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { isDeepStrictEqual } from 'node:util';
import { type NewIds, type SheetConflict, settingsHere, sheetConflicts } from '@inkwell/core/carrying';
import { plainFinishId, shippedFinishes } from '@inkwell/core/finishing';
import {
  contentOf,
  type FileOriginal,
  type OpenProject,
  type Original,
  OriginalSettingsSchema,
  type ProjectFile,
} from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { addFinish, listFinishes } from '../../store/library/finishes.ts';
import { findAlike, keepRewritten, saveOriginalSettings, setOriginalDeleted } from '../../store/library/originals.ts';
import { listOwnFonts } from '../../store/library/ownFonts.ts';
import { addSheet } from '../../store/library/sheets.ts';
import { changeFrames, framesOfProject, type NewFrame } from '../../store/projects/frames.ts';
import { addProject, changeOriginals, openProject } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { newSlug } from '../book/changeSheets.ts';
import { addFont } from '../library/addFont.ts';
import { regionProblem, takePages } from '../library/changeOriginal.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { checkEmblems } from '../projects/checkEmblems.ts';
import { newFrames } from '../projects/newFrames.ts';
import { bytesEntry, openProjectZip, type ProjectZip } from './projectZip.ts';

/** By whose sheets frames are made where the file’s say something else than those here: those here, or those of the file, as sheets of one’s own. */
export type SheetsOf = 'here' | 'file';

/** Something that came with a project, or is not as it was. */
export interface ImportNote {
  text: string;
  /** Whether something is left out. */
  isLoss: boolean;
}

/** What came of taking a project in. */
export interface ImportedProject {
  project: OpenProject;
  notes: ImportNote[];
}

/**
 * Takes a project in from a file: all of it or nothing.
 *
 * @param sheetsOf null where nobody has said so: where it matters, it is asked
 * @throws UserError where it cannot be taken, or with the conflicts where somebody has to choose
 */
export async function importProject(
  services: Services,
  path: string,
  sheetsOf: SheetsOf | null,
  signal: AbortSignal = new AbortController().signal,
): Promise<ImportedProject> {
  const zip = await openProjectZip(path);
  try {
    return await services.importing.aside((folder) => takeIn(services, zip, folder, sheetsOf, signal));
  } finally {
    zip.close();
  }
}

/** A project file can have at most so many bytes. */
const mostBytes = 40_000_000_000;

/** Takes a project in from a file that is on its way. @throws UserError as `importProject` */
export const receiveProject = (
  services: Services,
  source: Readable,
  sheetsOf: SheetsOf | null,
  signal: AbortSignal,
): Promise<ImportedProject> =>
  services.importing.aside(async (folder) => {
    const path = join(folder, 'project.zip');
    let bytes = 0;
    const bounded = new Transform({
      transform(chunk: Buffer, _, done) {
        bytes += chunk.length;
        done(bytes > mostBytes ? new UserError('A project file can have at most 40 GB.', 413) : null, chunk);
      },
    });
    await pipeline(source, bounded, createWriteStream(path), { signal });
    return importProject(services, path, sheetsOf, signal);
  });

/** @param folder where its parts lie while they are looked at */
async function takeIn(
  services: Services,
  zip: ProjectZip,
  folder: string,
  sheetsOf: SheetsOf | null,
  signal: AbortSignal,
): Promise<ImportedProject> {
  const taken: Original[] = [];
  try {
    const { file } = zip;
    const conflicts = await conflictsOf(services, file);
    if (conflicts.length > 0 && sheetsOf === null) throw conflictRefusal(conflicts);
    // All bytes are looked at before anything is taken.
    const parts = await extracted(zip, folder);
    for (const { id, sha256 } of await missingFonts(services, file)) {
      const given = await addFont(services, createReadStream(parts(sha256)), id);
      if (given !== id) throw new UserError(`The font ${id} of this file is not what it says. Nothing was taken.`);
    }
    const originals = await takeOriginals(services, file, parts, taken, signal);
    const otherSheets = new Set(sheetsOf === 'file' ? conflicts.map(({ slug }) => slug) : []);
    return await keep(services, file, originals, otherSheets);
  } catch (error) {
    for (const { id } of taken) {
      await setOriginalDeleted(services.db, id, true).catch((failure: unknown) =>
        services.log.error(
          { error: String(failure), id },
          'a picture of a project that was not taken in stays in the library',
        ),
      );
    }
    throw error;
  }
}

async function conflictsOf({ planner }: Services, file: ProjectFile): Promise<SheetConflict[]> {
  const { sheets } = await planner.open();
  return sheetConflicts(file, (slug) => {
    const sheet = sheets.find((one) => one.slug === slug);
    return sheet ? contentOf(sheet) : null;
  });
}

function conflictRefusal(conflicts: readonly SheetConflict[]): UserError {
  const words = conflicts.map(({ name, places }) => `${name}${places.length > 0 ? ` (${places.join(', ')})` : ''}`);
  return new UserError(
    `These sheets say something else here than in the file: ${words.join('; ')}. Choose whether frames follow the sheets here, or those of the file, which come as sheets of your own. Nothing was taken yet.`,
    409,
    { conflicts },
  );
}

/** All pictures and fonts of a file, each in a file of its own. @returns where the bytes of a SHA-256 are */
async function extracted(zip: ProjectZip, folder: string): Promise<(sha256: string) => string> {
  const parts = (sha256: string) => join(folder, sha256);
  const { originals, fonts } = zip.file;
  const bySha = new Map([
    ...originals.map((one) => [one.sha256, { entry: bytesEntry.original(one.sha256), ...one }] as const),
    ...fonts.map((one) => [one.sha256, { entry: bytesEntry.font(one.sha256), ...one }] as const),
  ]);
  for (const { entry, sha256, bytes } of bySha.values()) await zip.extract(entry, parts(sha256), { sha256, bytes });
  return parts;
}

async function missingFonts({ db }: Services, { fonts }: ProjectFile): Promise<ProjectFile['fonts']> {
  const known = new Set((await listOwnFonts(db)).flatMap(({ id, isPutAside }) => (isPutAside ? [] : [id])));
  return fonts.filter(({ id }) => !known.has(id));
}

/**
 * The originals of a file here, by their ids in it. One that is in the library with all that is set on it is that one.
 *
 * @param taken those that had to be made, for whoever has to put them aside again
 */
async function takeOriginals(
  services: Services,
  { originals }: ProjectFile,
  parts: (sha256: string) => string,
  taken: Original[],
  signal: AbortSignal,
): Promise<Map<string, Original>> {
  const { db, importing } = services;
  const here = new Map<string, Original>();
  const used = new Set<string>();
  for (const original of originals) {
    const alike = await findAlike(db, original);
    const same = alike.find((one) => !used.has(one.id) && isSame(one, original));
    if (same) {
      used.add(same.id);
      here.set(original.id, same);
      continue;
    }
    const first = await importing.take(createReadStream(parts(original.sha256)), original.fileName, signal, {
      name: original.name,
    });
    taken.push(first);
    if (original.page === 0) {
      here.set(original.id, first);
      continue;
    }
    const [page] = await takePages(services, first, [original.page], signal);
    if (page) {
      taken.push(page);
      here.set(original.id, page);
    }
    await setOriginalDeleted(db, first.id, true);
  }
  return here;
}

/** Whether an original is what one of a file is, with all that is set on it. What it was rewritten from is known by another id. */
const isSame = (here: Original, there: FileOriginal): boolean =>
  here.name === there.name &&
  here.rewritten === null &&
  there.rewritten === null &&
  isDeepStrictEqual(OriginalSettingsSchema.parse(here), OriginalSettingsSchema.parse(there));

/** Keeps the project with all that it needs, in one transaction. @param otherSheets slugs that come as sheets of one's own */
async function keep(
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
    if (!here || isSame(here, one)) continue;
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
