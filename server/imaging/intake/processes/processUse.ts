import { readFile } from 'node:fs/promises';

/** What a process uses. */
export interface ProcessUse {
  /** Of its own, in bytes; files that it has mapped do not count. */
  memory: number;
  /** Seconds of processor time since it was started. */
  processor: number;
}

/** Clock ticks in a second, as Linux counts processor time for programs (proc(5), stat). */
const ticks = 100;

/** What a process uses now; null where it is gone. */
export async function useOf(pid: number): Promise<ProcessUse | null> {
  try {
    const [status, stat] = await Promise.all([
      readFile(`/proc/${pid}/status`, 'utf8'),
      readFile(`/proc/${pid}/stat`, 'utf8'),
    ]);
    const kilobytes = Number(/^RssAnon:\s+(\d+)/m.exec(status)?.[1] ?? 0);
    // The name, in brackets, may hold anything; what follows are numbers.
    const numbers = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return { memory: kilobytes * 1024, processor: (Number(numbers[11]) + Number(numbers[12])) / ticks };
  } catch (error) {
    if (['ENOENT', 'ESRCH'].includes((error as NodeJS.ErrnoException).code ?? '')) return null;
    throw error;
  }
}
