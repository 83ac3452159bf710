import { readdirSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import { setPriority } from 'node:os';

/**
 * Lets threads of this process stand back behind whatever waits for nothing but the processor: on Linux every thread has a
 * niceness of its own, which those that it starts inherit.
 *
 * @param niceness as the system counts it: 0 not at all, 19 the most
 * @param areAll false leaves the thread out that runs this, so that it comes before those that draw pictures
 */
export async function giveWay(niceness: number, areAll: boolean): Promise<void> {
  // The threads for files and pictures are all started by the first that is asked for.
  await stat('.');
  for (const thread of readdirSync('/proc/self/task')) {
    if (areAll || Number(thread) !== process.pid) setPriority(Number(thread), niceness);
  }
}
