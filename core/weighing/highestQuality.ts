import { lastGood } from './lastGood.ts';
import { type CurvePoint, readCurve } from './qualityCurve.ts';

export interface QualitySearch<Encoded extends { bytes: number }> {
  /** The most bytes the result may have. */
  budget: number;
  /** The qualities that are allowed, ascending, at least one. */
  qualities: readonly number[];
  /** Encodes with full effort. */
  encode: (quality: number) => Promise<Encoded>;
  /** Bytes of a quick encoding at the same quality: need not be right, only roughly proportional. */
  sketch: (quality: number) => Promise<number>;
  /** True where the budget is so wide that the highest quality is worth trying before anything is sketched. */
  highestFirst?: boolean;
  /**
   * How far an encoder may stray from "more quality, more bytes": a higher quality never weighs less than
   * (1 - tolerance) times a lower one. @default 0.002
   */
  tolerance?: number;
  /** The same in bytes, for small files, in which a few bytes are many per cent. @default 0 */
  slack?: number;
  /**
   * What a full encoding weighs of a sketch, if something is known of it: what an earlier search over the same picture
   * found. It only saves encodings; the answer does not depend on it. @default 0.83
   */
  correction?: number;
}

export interface QualityFound<Encoded> {
  /** Null where no quality fits. */
  best: { quality: number; encoded: Encoded } | null;
  /** How many full and quick encodings it took. */
  encodings: number;
  sketches: number;
  /** What the last full encoding weighed of a sketch. */
  correction: number;
}

/** A full-effort encoding usually weighs this part of a quick one. */
const usualCorrection = 0.83;

/**
 * The highest quality whose file fits, the same answer as trying every quality, given the tolerance. A quick encoder
 * locates it on a curve; full encodings settle it: a file that fits rules out everything below, a file too heavy by more
 * than the tolerance rules out everything above, until nothing is left to try.
 */
export async function highestQualityThatFits<Encoded extends { bytes: number }>(
  search: QualitySearch<Encoded>,
): Promise<QualityFound<Encoded>> {
  const { budget, qualities, tolerance = 0.002, slack = 0 } = search;
  const encoded = new Map<number, Encoded>();
  const curve: CurvePoint[] = [];
  let correction = search.correction ?? usualCorrection;
  const highest = qualities.at(-1);
  if (highest === undefined) throw new RangeError('highestQualityThatFits: at least one quality is needed.');

  const attempt = async (quality: number) => {
    const file = await search.encode(quality);
    encoded.set(quality, file);
    if (curve.length > 0) correction = file.bytes / readCurve(curve, quality);
    if (file.bytes <= budget) return 'good';
    return file.bytes * (1 - tolerance) - slack > budget ? 'hopeless' : 'bad';
  };
  const sketch = async (quality: number) => {
    curve.push({ quality, bytes: await search.sketch(quality) });
    curve.sort((a, b) => a.quality - b.quality);
  };
  // The quality whose estimate is nearest to the budget, on either side of it: as an estimate errs both ways, this one
  // and its neighbours are the likeliest to settle it.
  const expected = () => {
    const distance = (quality: number) => Math.abs(Math.log((readCurve(curve, quality) * correction) / budget));
    return qualities.reduce((near, quality) => (distance(quality) <= distance(near) ? quality : near));
  };

  const done = search.highestFirst && (await attempt(highest)) === 'good';
  let found: number | null = highest;
  if (!done) {
    await sketch(highest);
    // One more point where the answer is expected: the curve is only trusted near its points.
    const likely = expected();
    if (likely < highest) await sketch(likely);
    const candidates = search.highestFirst ? qualities.slice(0, -1) : qualities;
    found = await lastGood({ candidates, attempt, expected });
  }
  const file = found === null ? undefined : encoded.get(found);
  return {
    best: found !== null && file ? { quality: found, encoded: file } : null,
    encodings: encoded.size,
    sketches: curve.length,
    correction,
  };
}
