/** Milliseconds that a task takes, by the clock. */
export async function timed(task: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await task();
  return performance.now() - began;
}
