import { Piscina } from 'piscina';
import { loaderOf } from '../running/loader.ts';

/**
 * Threads by what they do: arithmetic for one picture on each core that is planned for; looking at a picture takes several hundred
 * megabytes, so that one is looked at at a time.
 */
const threads = { arithmetic: 2, looking: 1 } as const;
/** A thread that has had nothing to do for so long goes. */
const idleMs = 30_000;

const pools = new Map<keyof typeof threads, Piscina>();

function poolOf(what: keyof typeof threads, module: URL): Piscina {
  const known = pools.get(what);
  if (known) return known;
  const pool = new Piscina({
    execArgv: loaderOf(module),
    minThreads: 0,
    maxThreads: threads[what],
    idleTimeout: idleMs,
  });
  pools.set(what, pool);
  return pool;
}

/**
 * Runs what a module exports as its default in a thread: arithmetic over millions of pixels that requests must not wait
 * for. Threads are started when the first is asked for, and do not keep the program alive.
 *
 * @param signal ends the task, and its thread
 */
export const inThread = <Task, Result>(
  module: URL,
  task: Task,
  what: keyof typeof threads = 'arithmetic',
  signal: AbortSignal | null = null,
): Promise<Result> => poolOf(what, module).run(task, { filename: module.href, signal });
