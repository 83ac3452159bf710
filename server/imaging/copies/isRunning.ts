/** Whether there is a process with this number. */
export function isRunning(pid: number): boolean {
  if (Number.isNaN(pid)) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
