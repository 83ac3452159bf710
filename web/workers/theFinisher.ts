import { type Remote, wrap } from 'comlink';
import type { Finisher } from './finisher.ts';

let finisher: Remote<Finisher> | null = null;

/** The worker that finishes pixels, started when it is asked for the first time. */
export function theFinisher(): Remote<Finisher> {
  finisher ??= wrap<Finisher>(new Worker(new URL('./finisher.ts', import.meta.url), { type: 'module' }));
  return finisher;
}
