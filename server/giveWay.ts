import { readdirSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import { setPriority } from 'node:os';

/** How far the threads that draw pictures stand back behind the one that answers, as the system counts it. */
const niceness = 10;

/**
 * Lets the thread that answers requests come before those that draw pictures: on Linux every thread has a niceness of its own,
 * which those that it starts inherit.
 */
export async function giveWay(): Promise<void> {
  // The threads for files and pictures are all started by the first that is asked for.
  await stat('.');
  for (const thread of readdirSync('/proc/self/task')) {
    if (Number(thread) !== process.pid) setPriority(Number(thread), niceness);
  }
}
