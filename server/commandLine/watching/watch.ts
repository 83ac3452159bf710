import { stat } from 'node:fs/promises';
import { basename, join, sep } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { PlaceSet } from '@inkwell/core/model';
import { watch as watchFolder } from 'chokidar';
import pLimit from 'p-limit';
import { glob } from 'tinyglobby';
import type { Services } from '../../services.ts';
import { addProject, openProject } from '../../store/projects/projects.ts';
import { applyPlaceSet } from '../../tasks/book/placeSets.ts';
import { changeProjectSettings } from '../../tasks/projects/changeProject.ts';
import { type Code, codes } from '../codes.ts';
import { type Context, shown } from '../context.ts';
import { failureWords } from '../failures.ts';
import { worded } from '../framing/frameOptions.ts';
import { frameOne, stateOf, type WatchTask } from './frameOne.ts';
import { Ledger } from './ledger.ts';
import { refusedFolder } from './refuse.ts';

/** What a folder is watched with. */
export interface WatchOptions {
  folder: string;
  out: string;
  /** What the project is called. */
  name: string;
  set: PlaceSet;
  /** What items of its lettering say, by their names. */
  words: ReadonlyMap<string, string>;
  /** Seconds for which a file has to stay as it is, to count as whole. */
  settle: number;
  /** Ends as soon as all that is there was looked at. */
  isOnce: boolean;
}

/** A project has at most so many pictures; then the next one is begun. */
const mostPictures = 500;
/** Before what holds for all files, such as a full disk, is tried again. */
const retryMs = 10_000;

/** Names of files that are on their way, or are nobody’s picture. */
const isIgnored = (path: string, out: string, folder: string): boolean => {
  const name = basename(path);
  const isInside = (inner: string) => path === inner || path.startsWith(`${inner}${sep}`);
  return (
    (name.startsWith('.') && path !== folder) ||
    /\.(part|partial|tmp|temp|download|crdownload)$|~$/i.test(name) ||
    isInside(join(folder, refusedFolder)) ||
    (isInside(out) && !folder.startsWith(`${out}${sep}`) && out !== folder)
  );
};

/**
 * Frames what comes into a folder, each picture once, however often it is started. What is refused is moved aside, beside a text that says why.
 *
 * @param ended ends it: what is being framed is finished first
 */
export async function watch(
  context: Context,
  services: Services,
  options: WatchOptions,
  ended: AbortSignal,
): Promise<Code> {
  const { folder, out, settle, isOnce } = options;
  const ledger = await Ledger.open(out);
  const project = await projectFor(services, options, ledger);
  const turns = new Map<string, ReturnType<typeof pLimit>>();
  const inTurn: WatchTask['inTurn'] = (sha256, doing) => {
    const turn = turns.get(sha256) ?? pLimit(1);
    turns.set(sha256, turn);
    return turn(doing);
  };
  const task: WatchTask = { folder, out, ledger, project, inTurn };
  const limit = pLimit(2);
  /** Files that wait, or are looked at; true where one has changed since that began. */
  const active = new Map<string, boolean>();
  const beginning = pLimit(1);
  let isAnyLeft = false;
  const say = (path: string, words: string) => context.say(`${shown(context, path)}: ${words}`);

  const lookAt = async (path: string): Promise<void> => {
    // The same bytes under two names are one picture: one is framed, and then the other is known.
    const outcome = await frameOne(services, await beginning(() => withRoom(services, options, task)), path);
    if (outcome.is === 'moving') return;
    if (outcome.is === 'known') say(path, `was framed before, into ${outcome.folder}.`);
    if (outcome.is === 'refused') {
      isAnyLeft = true;
      say(path, `${outcome.reason} It is in ${shown(context, outcome.to)} now.`);
    }
    if (outcome.is === 'framed') {
      const { files, leftOut } = outcome.delivery;
      say(path, `${files.length} ${files.length === 1 ? 'file' : 'files'} in ${outcome.folder}.`);
      for (const one of leftOut) say(path, `left out ${one.file}: ${one.reasons.join(' ')}`);
      if (leftOut.length > 0) isAnyLeft = true;
    }
  };
  const take = async (path: string): Promise<void> => {
    if (active.has(path)) {
      active.set(path, true);
      return;
    }
    active.set(path, false);
    await limit(async () => {
      do {
        active.set(path, false);
        try {
          if (!ended.aborted) await lookAt(path);
        } catch (error) {
          // It holds for all of them: nothing is moved, and it is tried again until it works.
          say(path, `${failureWords(error)} It is tried again.`);
          active.set(path, true);
          await pause(retryMs, undefined, { signal: ended }).catch(() => undefined);
        }
      } while (active.get(path) && !ended.aborted);
      active.delete(path);
    });
  };

  if (isOnce) {
    const all = await glob('**/*', { cwd: folder, absolute: true, dot: false });
    const files = all.map((path) => join(path)).sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
    const wanted = files.filter((path) => !isIgnored(path, out, folder));
    await Promise.all(
      wanted.map(async (path) => {
        await settled(path, settle);
        await take(path);
      }),
    );
  } else {
    const running = new Set<Promise<void>>();
    const begin = (path: string) => {
      const taking = take(path).finally(() => running.delete(taking));
      running.add(taking);
    };
    const watcher = watchFolder(folder, {
      ignored: (path) => isIgnored(join(path), out, folder),
      awaitWriteFinish: { stabilityThreshold: settle * 1000, pollInterval: 200 },
    });
    watcher.on('add', (path) => begin(join(path)));
    watcher.on('change', (path) => begin(join(path)));
    watcher.on('error', (error) =>
      say(folder, `${failureWords(error)} What comes in may not be seen until that is mended.`),
    );
    context.say(`Watching ${shown(context, folder)}. What comes of it goes to ${shown(context, out)}. Ctrl-C ends it.`);
    await new Promise<void>((resolve) => {
      if (ended.aborted) resolve();
      else ended.addEventListener('abort', () => resolve(), { once: true });
    });
    await watcher.close();
    await Promise.all(running);
  }
  return isAnyLeft ? codes.wrong : codes.right;
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

/** What a project is begun with, in a line: with other words, or another set, the next one is begun. */
const madeOf = ({ set, words }: WatchOptions): string =>
  JSON.stringify({ set: set.id, version: set.version, words: [...words].sort() });

/** The project that pictures come into: the one of before, as long as its set and its words are as they were. */
async function projectFor(services: Services, options: WatchOptions, ledger: Ledger): Promise<WatchTask['project']> {
  const known = ledger.project;
  const project = known?.madeOf === madeOf(options) ? await openProject(services.db, known.project) : null;
  return project ?? begun(services, options, ledger);
}

async function begun(services: Services, options: WatchOptions, ledger: Ledger): Promise<WatchTask['project']> {
  const { name, set, words } = options;
  const id = await addProject(services.db, name);
  const { project } = await applyPlaceSet(services, set.id, id, 1);
  const lettering = worded(project.lettering, words);
  const whole = words.size > 0 ? await changeProjectSettings(services, id, project.version, { lettering }) : project;
  await ledger.begin({ project: id, madeOf: madeOf(options) });
  return whole;
}

/** The same task, in the next project where this one is full or gone. */
async function withRoom(services: Services, options: WatchOptions, task: WatchTask): Promise<WatchTask> {
  const project = await openProject(services.db, task.project.id);
  if (project && project.originals.length < mostPictures) task.project = project;
  else task.project = await begun(services, options, task.ledger);
  return { ...task };
}
