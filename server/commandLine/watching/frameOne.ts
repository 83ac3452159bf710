import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, rename, rm, stat } from 'node:fs/promises';
import { basename, join, parse } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Delivery, OpenProject, Original } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import type { Services } from '../../services.ts';
import { findAlike } from '../../store/library/originals.ts';
import { originalsOf } from '../../store/projects/projects.ts';
import { chooseOriginals } from '../../tasks/projects/changeProject.ts';
import { fileProblem } from '../failures.ts';
import { delivered, writeKit } from '../framing/delivering.ts';
import { looked } from '../framing/takingIn.ts';
import type { Ledger } from './ledger.ts';
import { refuse } from './refuse.ts';

/** What came of a file. */
export type FileOutcome =
  | { is: 'framed'; folder: string; delivery: Delivery }
  | { is: 'refused'; to: string; reason: string }
  /** These bytes were framed before. */
  | { is: 'known'; folder: string }
  /** It has changed meanwhile, or is gone: it is looked at again when it is whole. */
  | { is: 'moving' };

/** What pictures are framed with. */
export interface WatchTask {
  /** The folder that is watched. */
  folder: string;
  /** Where what comes of them goes, a folder each. */
  out: string;
  project: OpenProject;
  ledger: Ledger;
  /** Runs what is about the same bytes one after the other. */
  inTurn: <Result>(sha256: string, task: () => Promise<Result>) => Promise<Result>;
}

/** A file as it is on its disk; null where it is gone. */
export const stateOf = async (path: string): Promise<string | null> => {
  const there = await stat(path).catch(() => null);
  return there && `${there.size} ${there.mtimeMs}`;
};

async function sha256Of(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/** Frames one picture, unless its bytes were framed before. @throws what holds for all of them, such as a full disk */
export async function frameOne(services: Services, task: WatchTask, path: string): Promise<FileOutcome> {
  const before = await stateOf(path);
  if (before === null) return { is: 'moving' };
  try {
    return await framed(services, task, path);
  } catch (error) {
    const reason = fileProblem(error, path);
    if (reason === null) throw error;
    // A file that is still being written is refused for what is only not there yet.
    if ((await stateOf(path)) !== before) return { is: 'moving' };
    return { is: 'refused', to: await refuse(task.folder, path, reason), reason };
  }
}

async function framed(services: Services, task: WatchTask, path: string): Promise<FileOutcome> {
  const sha256 = await sha256Of(path);
  return task.inTurn(sha256, () => framedAs(services, task, path, sha256));
}

async function framedAs(
  services: Services,
  { out, project, ledger }: WatchTask,
  path: string,
  sha256: string,
): Promise<FileOutcome> {
  const known = ledger.doneOf(sha256);
  if (known) return { is: 'known', folder: known.folder };
  const name = `${fileNameWord(parse(path).name) || 'picture'}-${sha256.slice(0, 8)}`;
  const done = { sha256, file: basename(path), folder: name };
  // What was written whole, and not noted any more before a crash, is done.
  if (await isThere(join(out, name))) {
    await ledger.finish(done);
    return { is: 'known', folder: name };
  }
  const original = await originalOf(services, project, path, sha256);
  await looked(services, [original], true);
  const { frames } = await chooseOriginals(services, project.id, [original.id], []);
  const ids = frames.flatMap(({ id, originalId }) => (originalId === original.id ? [id] : []));
  const delivery = await delivered(services, project, ids, true);
  const unfinished = join(out, `.unfinished-${name}`);
  await rm(unfinished, { recursive: true, force: true });
  await mkdir(unfinished, { recursive: true });
  await writeKit(services, delivery, project.name, unfinished);
  await rename(unfinished, join(out, name));
  await ledger.finish(done);
  return { is: 'framed', folder: name, delivery };
}

const isThere = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  );

/** The original of a file in the project: one that came in before a crash is that one. */
async function originalOf(
  { db, importing }: Services,
  { id }: OpenProject,
  path: string,
  sha256: string,
): Promise<Original> {
  const chosen = new Set(((await originalsOf(db, id)) ?? []).map((one) => one.id));
  const alike = await findAlike(db, { sha256, page: 0 });
  return alike.find((one) => chosen.has(one.id)) ?? importing.take(createReadStream(path), basename(path));
}
