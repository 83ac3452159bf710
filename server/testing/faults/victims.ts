import { readdirSync, readFileSync } from 'node:fs';

/** A process of this machine, by its number. */
interface Running {
  pid: number;
  parent: number;
  command: string;
}

/** All processes that run now. */
function processes(): Running[] {
  return readdirSync('/proc').flatMap((name): Running[] => {
    if (!/^\d+$/.test(name)) return [];
    try {
      const status = readFileSync(`/proc/${name}/status`, 'utf8');
      const command = readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ');
      return [{ pid: Number(name), parent: Number(/^PPid:\s+(\d+)/m.exec(status)?.[1]), command }];
    } catch (error) {
      // It has ended meanwhile.
      if (['ENOENT', 'ESRCH'].includes((error as NodeJS.ErrnoException).code ?? '')) return [];
      throw error;
    }
  });
}

/** The processes that another has started. @param what their commands have in them */
export const childrenOf = (pid: number, what: RegExp): number[] =>
  processes().flatMap((one) => (one.parent === pid && what.test(one.command) ? one.pid : []));

/** Ends a process at once, as far as it is still there. */
export function kill(pid: number | undefined): boolean {
  try {
    if (pid !== undefined) process.kill(pid, 'SIGKILL');
    return pid !== undefined;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ESRCH') return false;
    throw error;
  }
}

/** Whether a process still runs. */
export const isThere = (pid: number): boolean => processes().some((one) => one.pid === pid);
