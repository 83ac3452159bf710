import { Counter, collectDefaultMetrics, Histogram, Registry } from 'prom-client';

/** What this process counts, whichever of its parts do so. */
export const counted = new Registry();
collectDefaultMetrics({ register: counted });
const registers = [counted];

/** What is done to pictures, from bytes to files. */
type Stage = 'decode' | 'draw' | 'encode' | 'open again' | 'look' | 'small marks' | 'small words';

const stages = new Histogram({
  name: 'inkwell_stage_seconds',
  help: 'Seconds that each stage of the work on a picture took.',
  labelNames: ['stage'] as const,
  buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30, 100],
  registers,
});

/** Does something, and notes how long it took, whatever comes of it. */
export async function timed<Result>(stage: Stage, task: () => Promise<Result>): Promise<Result> {
  const end = stages.startTimer({ stage });
  try {
    return await task();
  } finally {
    end();
  }
}

/** Files that were not taken in, by the status with which that was answered. */
export const refusedFiles = new Counter({
  name: 'inkwell_refused_files_total',
  help: 'Files that were not taken in.',
  labelNames: ['status'] as const,
  registers,
});
