import { createReadStream, createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type SheetConflict, sheetConflicts } from '@inkwell/core/carrying';
import { contentOf, type ImportedProject, type Original, type ProjectFile } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { setOriginalDeleted } from '../../store/library/originals.ts';
import { UserError } from '../../userError.ts';
import { addFont } from '../library/addFont.ts';
import { extracted, missingFonts, takeOriginals } from './importedOriginals.ts';
import { keepImported } from './keepImported.ts';
import { openProjectZip, type ProjectZip } from './projectZip.ts';

/** By whose sheets frames are made where the file’s say something else than those here: those here, or those of the file, as sheets of one’s own. */
export type SheetsOf = 'here' | 'file';

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
    return await keepImported(services, file, originals, otherSheets);
  } catch (error) {
    for (const { id } of taken) {
      await setOriginalDeleted(services.db, id, true).catch((failure: unknown) =>
        services.log.error({ error: failure, id }, 'a picture of a project that was not taken in stays in the library'),
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
