import { stat } from 'node:fs/promises';
import { basename, join, sep } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { watch as watchFolder } from 'chokidar';
import { glob } from 'tinyglobby';
import { stateOf } from './frameOne.ts';
import { refusedFolder } from './refuse.ts';

/** The folders that matter, and what counts as whole. */
export interface Folders {
  /** The one that is watched. */
  folder: string;
  /** Where what comes of pictures goes. */
  out: string;
  /** Seconds for which a file has to stay as it is, to count as whole. */
  settle: number;
}

/** Whether a file is on its way, is nobody’s picture, or was put there by the program itself. */
function isIgnored(path: string, { folder, out }: Folders): boolean {
  const name = basename(path);
  const isIn = (outer: string, inner: string) => inner === outer || inner.startsWith(`${outer}${sep}`);
  return (
    (name.startsWith('.') && path !== folder) ||
    /\.(part|partial|tmp|temp|download|crdownload)$|~$/i.test(name) ||
    isIn(join(folder, refusedFolder), path) ||
    (isIn(out, path) && !isIn(out, folder))
  );
}

/** The files that are there, by their names, each when it is whole. */
export async function filesThere(folders: Folders, take: (path: string) => Promise<void>): Promise<void> {
  const all = (await glob('**/*', { cwd: folders.folder, absolute: true })).map((path) => join(path));
  const wanted = all
    .filter((path) => !isIgnored(path, folders))
    .sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
  await Promise.all(
    wanted.map(async (path) => {
      await settled(path, folders.settle);
      await take(path);
    }),
  );
}

/** Files as they come, each when it is whole, until that is ended; then waits until those that came are taken. */
export async function filesComing(
  folders: Folders,
  take: (path: string) => Promise<void>,
  failed: (error: unknown) => void,
  ended: AbortSignal,
): Promise<void> {
  const taking = new Set<Promise<void>>();
  const begin = (path: string) => {
    const one = take(join(path)).finally(() => taking.delete(one));
    taking.add(one);
  };
  const watcher = watchFolder(folders.folder, {
    ignored: (path) => isIgnored(join(path), folders),
    awaitWriteFinish: { stabilityThreshold: folders.settle * 1000, pollInterval: 200 },
  });
  watcher.on('add', begin).on('change', begin).on('error', failed);
  await new Promise<void>((resolve) => {
    if (ended.aborted) resolve();
    else ended.addEventListener('abort', () => resolve(), { once: true });
  });
  await watcher.close();
  await Promise.all(taking);
}

/** Waits until a file has stayed as it is for a while. */
async function settled(path: string, seconds: number): Promise<void> {
  const { mtimeMs } = await stat(path).catch(() => ({ mtimeMs: 0 }));
  if (Date.now() - mtimeMs > seconds * 1000) return;
  for (let before = await stateOf(path); ; ) {
    await pause(seconds * 1000);
    const now = await stateOf(path);
    if (now === before) return;
    before = now;
  }
}
