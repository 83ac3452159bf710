import { Piscina } from 'piscina';

const threads = 2;
/** A thread that has had nothing to do for so long goes. */
const idleMs = 30_000;

let pool: Piscina | null = null;

/**
 * Runs what a module exports as its default in a thread: arithmetic over millions of pixels that requests must not wait
 * for. Threads are started when the first is asked for, and do not keep the program alive.
 */
export function inThread<Task, Result>(module: URL, task: Task): Promise<Result> {
  pool ??= new Piscina({
    execArgv: ['--import', 'tsx'],
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: idleMs,
  });
  return pool.run(task, { filename: module.href });
}
