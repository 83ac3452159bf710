import type { Limit } from '../model/index.ts';

/** Share of a limit that is left free, because networks count in units of their own. */
export const defaultHeadroom = 0.03;

/** The most bytes that a file may have: the limit less headroom (a share, 0..1), rounded down. */
export function budgetBytes(limit: Pick<Limit, 'bytes'>, headroom: number = defaultHeadroom): number {
  return Math.max(1, Math.floor(limit.bytes * (1 - headroom)));
}
