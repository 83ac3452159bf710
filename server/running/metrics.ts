import { Gauge, Registry } from 'prom-client';
import type { Database } from '../store/database.ts';
import { workKinds, workThere } from '../store/work.ts';
import { counted } from './counting.ts';

const states = ['waiting', 'working', 'failed'] as const;

/** What there is to do, as it is in the database when somebody asks. */
export function workMetrics(db: Database): Registry {
  const register = new Registry();
  const registers = [register];
  const rows: Gauge<'kind' | 'state'> = new Gauge({
    name: 'inkwell_work',
    help: 'Things to do, by kind and state.',
    labelNames: ['kind', 'state'] as const,
    registers,
    async collect() {
      const there = await workThere(db);
      for (const kind of workKinds) for (const state of states) rows.set({ kind, state }, 0);
      for (const { kind, state, count } of there) rows.set({ kind, state }, count);
    },
  });
  // Metrics are collected side by side, so each asks for itself.
  const oldest: Gauge<'kind'> = new Gauge({
    name: 'inkwell_work_oldest_seconds',
    help: 'How long the oldest of what waits has been there.',
    labelNames: ['kind'] as const,
    registers,
    async collect() {
      const waiting = (await workThere(db)).filter(({ state }) => state === 'waiting');
      for (const kind of workKinds) oldest.set({ kind }, 0);
      for (const { kind, oldestSeconds } of waiting) oldest.set({ kind }, oldestSeconds);
    },
  });
  return register;
}

/** How much a worker has in work. */
export function pixelMetrics(worker: { pixelsInWork: number; mostPixels: number }): Registry {
  const register = new Registry();
  const registers = [register];
  const pixels: Gauge = new Gauge({
    name: 'inkwell_pixels_in_work',
    help: 'About how many pixels lie in memory for what is being done.',
    registers,
    collect: () => pixels.set(worker.pixelsInWork),
  });
  const most = new Gauge({ name: 'inkwell_pixels_most', help: 'So many are in work at most.', registers });
  most.set(worker.mostPixels);
  return register;
}

/** The media type of what `metricsText` gives. */
export const metricsType = counted.contentType;

/** All of it as text, with what this process has counted. */
export const metricsText = (own: readonly Registry[]): Promise<string> => Registry.merge([counted, ...own]).metrics();
