import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import type { Decoders } from '../imaging/intake/processes/decoders.ts';
import type { DoorServices, Services } from '../services.ts';
import { readSettings, type Settings } from '../settings/settings.ts';
import { type Code, Misuse } from './codes.ts';

// The whole program takes seconds to load: a command loads only what it needs, and not before it is needed.

/** What a command is run with. */
export interface Context {
  /** The folder in which it was called: names of files are meant from there. */
  caller: string;
  environment: NodeJS.ProcessEnv;
  /** What comes of it, line by line. */
  say: (line: string) => void;
}

/** A path as people read it: from where the command was called, as far as it lies below that. */
export function shown({ caller }: Context, path: string): string {
  const short = relative(caller, path);
  return short === '' || short.startsWith('..') ? path : short;
}

/** Runs what a command does, and takes what it ends with. */
export type Run = (task: () => Promise<Code>) => Promise<void>;

export const settingsOf = ({ environment }: Context): Settings => readSettings(environment);

/** Does something with the services of the program. */
export async function withServices(context: Context, task: (services: Services) => Promise<Code>): Promise<Code> {
  const { openServices } = await import('../start.ts');
  const { services, stop } = await openServices(settingsOf(context));
  try {
    return await task(services);
  } finally {
    await stop();
  }
}

/** Does something at the door, about the workspace that was named or the first. */
export async function withDoor(
  context: Context,
  task: (services: DoorServices, workspaceId: string) => Promise<Code>,
): Promise<Code> {
  const { openServices } = await import('../start.ts');
  const { services, door, stop } = await openServices(settingsOf(context));
  try {
    return await task(door, services.workspaceId);
  } finally {
    await stop();
  }
}

/** Does something beside a worker of its own, which does the work that is asked for. */
export async function withWorker(context: Context, task: () => Promise<Code>): Promise<Code> {
  const { startWorker } = await import('../start.ts');
  const { stop } = await startWorker(settingsOf(context));
  try {
    return await task();
  } finally {
    await stop();
  }
}

/** Does something with pictures that nobody keeps: without a database. */
export async function withDecoding(
  task: (decoding: { decoders: Decoders; folder: string }) => Promise<Code>,
): Promise<Code> {
  const { Decoders } = await import('../imaging/intake/processes/decoders.ts');
  const decoders = new Decoders();
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-'));
  try {
    return await task({ decoders, folder });
  } finally {
    decoders.end();
    await rm(folder, { recursive: true, force: true });
  }
}

/** Does something that nobody else does at the same time. @param what it is, in a line @throws Misuse where somebody does it */
export async function alone(context: Context, what: string, task: () => Promise<Code>): Promise<Code> {
  const { default: pg } = await import('pg');
  const connection = new pg.Client(settingsOf(context).DATABASE_URL);
  // The lock goes with its connection; a task that goes on without it does nothing twice for want of another.
  connection.on('error', () => undefined);
  await connection.connect();
  try {
    const { rows } = await connection.query<{ is: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 0)) as is',
      [what],
    );
    if (!rows[0]?.is) throw new Misuse('Somebody else does that already. End it there, or name another folder.');
    return await task();
  } finally {
    await connection.end().catch(() => undefined);
  }
}
