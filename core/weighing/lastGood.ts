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
  /**
   * How many are tried at once, asked before every round. Two settle it together where the expectation is right: the last good
   * one and the first that is not. @default 1
   */
  atOnce?: () => 1 | 2;
}

/** After so many rounds the expectation is not trusted alone any more, and every second one divides what is left. */
const trustedRounds = 3;

/** Finds the last good candidate, the same as trying all of them; null where none is good. */
export async function lastGood<Candidate>(search: LastGoodSearch<Candidate>): Promise<Candidate | null> {
  const { candidates, atOnce = () => 1 } = search;
  const tried = new Set<number>();
  let best = -1;
  let end = candidates.length;
  for (let round = 0; ; round += 1) {
    const open: number[] = [];
    for (let at = best + 1; at < end; at += 1) if (!tried.has(at)) open.push(at);
    if (open.length === 0) return best < 0 ? null : (candidates[best] as Candidate);
    const dividing = round >= trustedRounds && round % 2 === 1;
    const expected = candidates.indexOf(search.expected());
    // Where the last of all is expected to be good, there is nothing after it.
    const count = expected + 1 < candidates.length ? atOnce() : 1;
    const next = dividing ? dividers(open, count) : neighbours(open, expected, count);
    for (const at of next) tried.add(at);
    const verdicts = await Promise.all(next.map((at) => search.attempt(candidates[at] as Candidate)));
    for (const [index, at] of next.entries()) {
      const verdict = verdicts[index];
      if (verdict === 'final') return candidates[at] as Candidate;
      if (verdict === 'good') best = Math.max(best, at);
      if (verdict === 'hopeless') end = Math.min(end, at);
    }
  }
}

/** Those that divide what is open into equal parts. */
function dividers(open: readonly number[], count: number): number[] {
  const at = (part: number) => open[Math.floor((open.length * part) / (count + 1))] as number;
  return [...new Set(Array.from({ length: count }, (_, index) => at(index + 1)))];
}

/** The open one nearest to what is expected, and where two are wanted the one nearest to what comes after it. */
function neighbours(open: readonly number[], expected: number, count: number): number[] {
  const first = nearest(open, expected);
  const others = open.filter((at) => at !== first);
  return count === 1 || others.length === 0 ? [first] : [first, nearest(others, expected + 1)];
}
