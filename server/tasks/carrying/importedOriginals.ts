import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { type FileOriginal, type Original, OriginalSettingsSchema, type ProjectFile } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { findAlike, setOriginalDeleted } from '../../store/library/originals.ts';
import { listOwnFonts } from '../../store/library/ownFonts.ts';
import { takePages } from '../library/changeOriginal.ts';
import { bytesEntry, type ProjectZip } from './projectZip.ts';

/** All pictures and fonts of a file, each in a file of its own. @returns where the bytes of a SHA-256 are */
export async function extracted(zip: ProjectZip, folder: string): Promise<(sha256: string) => string> {
  const parts = (sha256: string) => join(folder, sha256);
  const { originals, fonts } = zip.file;
  const bySha = new Map([
    ...originals.map((one) => [one.sha256, { entry: bytesEntry.original(one.sha256), ...one }] as const),
    ...fonts.map((one) => [one.sha256, { entry: bytesEntry.font(one.sha256), ...one }] as const),
  ]);
  for (const { entry, sha256, bytes } of bySha.values()) await zip.extract(entry, parts(sha256), { sha256, bytes });
  return parts;
}

/** The fonts of a file that are not here. */
export async function missingFonts({ db }: Services, { fonts }: ProjectFile): Promise<ProjectFile['fonts']> {
  const known = new Set((await listOwnFonts(db)).flatMap(({ id, isPutAside }) => (isPutAside ? [] : [id])));
  return fonts.filter(({ id }) => !known.has(id));
}

/**
 * The originals of a file here, by their ids in it. One that is in the library with all that is set on it is that one.
 *
 * @param taken those that had to be made, for whoever has to put them aside again
 */
export async function takeOriginals(
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
    const same = alike.find((one) => !used.has(one.id) && isSameOriginal(one, original));
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
export const isSameOriginal = (here: Original, there: FileOriginal): boolean =>
  here.name === there.name &&
  here.rewritten === null &&
  there.rewritten === null &&
  isDeepStrictEqual(OriginalSettingsSchema.parse(here), OriginalSettingsSchema.parse(there));
