import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { beginBackup, endBackup, takeDue } from '../../store/backup/backups.ts';
import type { Database } from '../../store/database.ts';
import { type MadeBackup, makeBackup, type Places } from './makeBackup.ts';

/** Where backups go: a file, or a folder in which each gets a name of its own. */
export type Target = { file: string } | { folder: string; keep: number | null };

const named = /^inkwell-[\dTZ-]+\.tar$/;
const unfinishedEnding = '.unfinished';

/** What a path means: a folder where there is one, or where it ends like one. */
export async function targetOf(path: string, keep: number | null): Promise<Target> {
  const isFolder = path.endsWith('/') || ((await stat(path).catch(() => null))?.isDirectory() ?? false);
  return isFolder ? { folder: path, keep } : { file: path };
}

/** Where a backup lies that is one file. */
export const inFile = (path: string): Places => ({ unfinished: path + unfinishedEnding, whole: () => path });

/** Where a backup to a target lies. Of a folder, what was broken off is always found under the same name. */
async function placesOf(target: Target): Promise<Places> {
  if ('file' in target) return inFile(target.file);
  const { folder } = target;
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const nameOf = (at: Date) => `inkwell-${at.toISOString().replace(/\.\d+/, '').replaceAll(':', '-')}.tar`;
  return { unfinished: join(folder, `inkwell.tar${unfinishedEnding}`), whole: (at) => join(folder, nameOf(at)) };
}

/** As which a target is noted until it is known what the backup is called. */
const notedAs = (target: Target): string => ('file' in target ? target.file : join(target.folder, '/'));

/** Removes all backups of a folder but the newest ones. */
async function keepNewest(folder: string, keep: number): Promise<void> {
  const all = (await readdir(folder)).filter((name) => named.test(name)).sort();
  for (const name of all.slice(0, Math.max(0, all.length - keep))) await rm(join(folder, name));
}

/** What a backup is made with. */
export interface BackingUp {
  url: string;
  whole: Database;
  passphrase: string | null;
  onFile?: (done: number, of: number) => void;
}

/** Makes a backup, and notes what came of it. @throws Error in plain words where it could not be made */
export const backUp = async (how: BackingUp, target: Target): Promise<MadeBackup> =>
  makeNoted(how, target, await beginBackup(how.whole, notedAs(target)));

/** The same where one is due; null where none is. */
export async function backUpWhenDue(
  how: BackingUp,
  { folder, keep, everyHours }: { folder: string; keep: number; everyHours: number },
): Promise<MadeBackup | null> {
  const target = { folder, keep };
  const id = await how.whole.transaction(async (tx) =>
    (await takeDue(tx, notedAs(target), everyHours)) ? beginBackup(tx, notedAs(target)) : null,
  );
  return id === null ? null : makeNoted(how, target, id);
}

async function makeNoted({ url, whole, ...how }: BackingUp, target: Target, id: string): Promise<MadeBackup> {
  try {
    const made = await makeBackup(url, await placesOf(target), how);
    await endBackup(whole, id, { ...made, state: 'done' });
    if ('folder' in target && target.keep !== null) await keepNewest(target.folder, target.keep);
    return made;
  } catch (error) {
    const failure = error instanceof Error ? error.message : String(error);
    await endBackup(whole, id, { state: 'failed', failure });
    throw error;
  }
}
