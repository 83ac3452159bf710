import { lastGood } from './lastGood.ts';
import { nearest } from './nearest.ts';

export interface KeepingSearch<Encoded> {
  /** The qualities that are allowed, ascending, at least one. */
  qualities: readonly number[];
  encode: (quality: number) => Promise<Encoded>;
  /** How much better than it has to be a file is, in points of similarity; below 0 where it is not good enough. */
  margin: (encoded: Encoded) => number;
  /**
   * How far an encoder may stray from "more quality, more similarity", in points: a lower quality is never better by more
   * than this. At 0 the answer holds, and the next lower quality does not; one further down might by chance. @default 0
   */
  tolerance?: number;
  /** Whether a file is so bad that no lower quality can be good enough. @default its margin is at most minus the tolerance */
  isHopeless?: (encoded: Encoded) => boolean;
  /**
   * A file that is better than it has to be by no more points than this is light enough, and its neighbours are not tried.
   * @default 0
   */
  close?: number;
  /**
   * The quality at which the search begins. It only saves encodings; with `close` above 0 several answers may do, and which one
   * it is depends on it.
   */
  guess: number;
}

/**
 * The lowest quality whose file is as good as it has to be, the same answer as trying every quality, given the tolerance;
 * null where none is. A file that is good enough rules out everything above; one that is not, by more than the
 * tolerance, rules out everything below.
 */
export async function lowestQualityThatKeeps<Encoded>(
  search: KeepingSearch<Encoded>,
): Promise<{ best: { quality: number; encoded: Encoded } | null; encodings: number }> {
  const { qualities, tolerance = 0, close = 0, isHopeless } = search;
  const tried = new Map<number, { encoded: Encoded; margin: number }>();
  const attempt = async (quality: number) => {
    const encoded = await search.encode(quality);
    const margin = search.margin(encoded);
    tried.set(quality, { encoded, margin });
    if (margin >= 0) return close > 0 && margin <= close ? 'final' : 'good';
    return (isHopeless?.(encoded) ?? margin + tolerance <= 0) ? 'hopeless' : 'bad';
  };
  const descending = [...qualities].reverse();
  const expected = () => {
    const measured = [...tried].sort(([a], [b]) => a - b);
    const above = measured.find(([, { margin }]) => margin >= 0);
    const below = measured.findLast(([, { margin }]) => margin < 0);
    return nearest(descending, crossing(above, below) ?? search.guess);
  };
  const found = await lastGood({ candidates: descending, attempt, expected });
  const one = found === null ? undefined : tried.get(found);
  return {
    best: found !== null && one ? { quality: found, encoded: one.encoded } : null,
    encodings: tried.size,
  };
}

export interface LightestSearch {
  /** The lowest quality that is good enough. */
  lowest: number;
  /** The qualities above it, ascending. */
  above: readonly number[];
  bytes: (quality: number) => Promise<number>;
  isGood: (quality: number) => Promise<boolean>;
  /** How far an encoder may stray from "more quality, more bytes", as a share and in bytes; see `QualitySearch`. */
  tolerance: number;
  slack: number;
}

/**
 * The quality of the lightest file that is good enough: nearly always the lowest, but now and then a higher quality weighs a
 * little less. Goes up until no file further up can.
 */
export async function lightestFrom({
  lowest,
  above,
  bytes,
  isGood,
  tolerance,
  slack,
}: LightestSearch): Promise<number> {
  let best = { quality: lowest, bytes: await bytes(lowest) };
  for (const quality of above) {
    const heavy = await bytes(quality);
    if (heavy * (1 - tolerance) - slack > best.bytes) break;
    if (heavy < best.bytes && (await isGood(quality))) best = { quality, bytes: heavy };
  }
  return best.quality;
}

type Measured = [quality: number, { margin: number }] | undefined;

/** Where the margin is expected to be 0: between two qualities, or beyond the one that is known. */
function crossing(above: Measured, below: Measured): number | null {
  if (above && below) {
    const share = above[1].margin / (above[1].margin - below[1].margin);
    return above[0] + share * (below[0] - above[0]);
  }
  const one = above ?? below;
  if (!one) return null;
  const [quality, { margin }] = one;
  // What is lost grows about as what a quality leaves away: too good by a point, and e times as much may be left away.
  return 102 - (102 - quality) * Math.exp(Math.max(-1.2, Math.min(1.2, margin)));
}
