import type { Planned } from '@inkwell/core/model';
import { LRUCache } from 'lru-cache';

/** What this browser calls a frame's plan, and the same frame left plain. */
export type OwnHashes = Pick<Planned, 'planHash' | 'plainHash'>;

/**
 * What the server calls the plans that were made here, by what they are called here: a plan is the same for both, but the
 * arithmetic of two engines may differ in the last digit. So a picture that was shown once is there again at once.
 */
const called = new LRUCache<string, string>({ max: 10_000 });

/** Notes what the server calls a plan that was made here as well. */
export function learn(own: OwnHashes, { planHash, plainHash }: Planned): void {
  called.set(own.planHash, planHash);
  called.set(own.plainHash, plainHash);
}

/** What the server calls a plan; null while it has not said so. */
export const serverHash = (own: string): string | null => called.get(own) ?? null;
