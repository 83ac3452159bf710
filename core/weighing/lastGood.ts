import { nearest } from './nearest.ts';

export interface LastGoodSearch<Candidate> {
  /** In the order in which they are wanted less and less up to wanted most: what is good tends to end somewhere. */
  candidates: readonly Candidate[];
  /**
   * Tries one. `good` rules out everything before it, since something more wanted was found; `final` ends the
   * search; `hopeless` rules out everything after it; `bad` only itself.
   */
  attempt: (candidate: Candidate) => Promise<'good' | 'final' | 'bad' | 'hopeless'>;
  /** The candidate at which it expects the last good one, from what it has learned so far. */
  expected: () => Candidate;
}

/** After so many attempts the expectation is not trusted alone any more, and every second step halves what is left. */
const trustedSteps = 3;

/** Finds the last good candidate, the same as trying all of them; null where none is good. */
export async function lastGood<Candidate>(search: LastGoodSearch<Candidate>): Promise<Candidate | null> {
  const { candidates } = search;
  const tried = new Set<number>();
  let best = -1;
  let end = candidates.length;
  for (;;) {
    const open: number[] = [];
    for (let at = best + 1; at < end; at += 1) if (!tried.has(at)) open.push(at);
    if (open.length === 0) return best < 0 ? null : (candidates[best] as Candidate);
    const halving = tried.size >= trustedSteps && tried.size % 2 === 1;
    const expected = candidates.indexOf(search.expected());
    const next = (halving ? open[open.length >> 1] : nearest(open, expected)) as number;
    tried.add(next);
    const verdict = await search.attempt(candidates[next] as Candidate);
    if (verdict === 'final') return candidates[next] as Candidate;
    if (verdict === 'good') best = Math.max(best, next);
    if (verdict === 'hopeless') end = Math.min(end, next);
  }
}
