import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { beginBackup, endBackup, takeDue } from '../../store/backup/backups.ts';
import type { Database } from '../../store/database.ts';
import { type MadeBackup, makeBackup } from './makeBackup.ts';

/** Where backups go: a file, or a folder in which each gets a name of its own. */
export type Target = { file: string } | { folder: string; keep: number | null };

const named = /^inkwell-[\dTZ-]+\.tar(\.unfinished)?$/;

/** What a path means: a folder where there is one, or where it ends like one. */
export async function targetOf(path: string, keep: number | null): Promise<Target> {
  const isFolder = path.endsWith('/') || ((await stat(path).catch(() => null))?.isDirectory() ?? false);
  return isFolder ? { folder: path, keep } : { file: path };
}

/** The file of the next backup in a folder: the one that was broken off, if there is one. */
async function nextIn(folder: string): Promise<string> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const all = (await readdir(folder)).filter((name) => named.test(name)).sort();
  const brokenOff = all.findLast((name) => name.endsWith('.unfinished'));
  const fresh = `inkwell-${new Date().toISOString().replace(/\.\d+/, '').replaceAll(':', '-')}.tar`;
  return join(folder, brokenOff?.replace('.unfinished', '') ?? fresh);
}

/** Removes all backups of a folder but the newest ones. */
async function keepNewest(folder: string, keep: number): Promise<void> {
  const all = (await readdir(folder)).filter((name) => named.test(name) && name.endsWith('.tar')).sort();
  for (const name of all.slice(0, Math.max(0, all.length - keep))) await rm(join(folder, name));
}

/** What a backup is made with. */
export interface BackingUp {
  url: string;
  whole: Database;
  passphrase: string | null;
  onFile?: (done: number, of: number) => void;
}

/** Makes a backup, and notes what came of it. @returns where it lies @throws Error in plain words where it could not be made */
export async function backUp(how: BackingUp, target: Target): Promise<MadeBackup & { path: string }> {
  const path = 'file' in target ? target.file : await nextIn(target.folder);
  return makeNoted(how, target, path, await beginBackup(how.whole, path));
}

/** The same where one is due; null where none is. */
export async function backUpWhenDue(
  how: BackingUp,
  { folder, keep, everyHours }: { folder: string; keep: number; everyHours: number },
): Promise<(MadeBackup & { path: string }) | null> {
  const begun = await how.whole.transaction(async (tx) => {
    if (!(await takeDue(tx, folder, everyHours))) return null;
    const path = await nextIn(folder);
    return { path, id: await beginBackup(tx, path) };
  });
  return begun && makeNoted(how, { folder, keep }, begun.path, begun.id);
}

async function makeNoted({ url, whole, ...how }: BackingUp, target: Target, path: string, id: string) {
  try {
    const made = await makeBackup(url, path, how);
    const { takenAt, files, bytes } = made;
    await endBackup(whole, id, { takenAt, files, bytes, state: 'done' });
    if ('folder' in target && target.keep !== null) await keepNewest(target.folder, target.keep);
    return { ...made, path };
  } catch (error) {
    const failure = error instanceof Error ? error.message : String(error);
    await endBackup(whole, id, { state: 'failed', failure });
    throw error;
  }
}
