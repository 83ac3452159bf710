import { type CurvePoint, readCurve } from './qualityCurve.ts';

export interface QualitySearch<Encoded extends { bytes: number }> {
  /** The most bytes the result may have. */
  budget: number;
  /** Lowest and highest quality that are allowed, whole numbers, `floor <= ceiling`. */
  floor: number;
  ceiling: number;
  /** Encodes with full effort. */
  encode: (quality: number) => Promise<Encoded>;
  /** Bytes of a quick encoding at the same quality: need not be right, only roughly proportional. */
  sketch: (quality: number) => Promise<number>;
  /** True where the budget is so wide that the ceiling is worth trying before anything is sketched. */
  ceilingFirst?: boolean;
  /**
   * How far an encoder may stray from "more quality, more bytes": a higher quality never weighs less than
   * (1 - tolerance) times a lower one. @default 0.002
   */
  tolerance?: number;
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
/** After so many full encodings the estimate is not trusted alone any more, and every second step halves what is left. */
const trustedSteps = 3;

/**
 * The highest quality whose file fits, the same answer as trying every quality from floor to ceiling, given the
 * tolerance. A quick encoder locates it on a curve; full encodings settle it: a file that fits rules out everything
 * below, a file too heavy by more than the tolerance rules out everything above, until nothing is left to try.
 */
export async function highestQualityThatFits<Encoded extends { bytes: number }>(
  search: QualitySearch<Encoded>,
): Promise<QualityFound<Encoded>> {
  const { budget, floor, ceiling, tolerance = 0.002 } = search;
  const tried = new Set<number>();
  const curve: CurvePoint[] = [];
  let correction = search.correction ?? usualCorrection;
  let best: QualityFound<Encoded>['best'] = null;
  let ruledOutFrom = ceiling + 1;

  const encode = async (quality: number) => {
    const encoded = await search.encode(quality);
    tried.add(quality);
    if (encoded.bytes <= budget) best = { quality, encoded };
    else if (encoded.bytes * (1 - tolerance) > budget) ruledOutFrom = Math.min(ruledOutFrom, quality);
    if (curve.length > 0) correction = encoded.bytes / readCurve(curve, quality);
  };
  const sketch = async (quality: number) => {
    curve.push({ quality, bytes: await search.sketch(quality) });
    curve.sort((a, b) => a.quality - b.quality);
  };
  // The quality whose estimate is nearest to the budget, on either side of it: as an estimate errs both ways, this one
  // and its neighbours are the likeliest to settle it.
  const predicted = () => {
    const distance = (quality: number) => Math.abs(Math.log((readCurve(curve, quality) * correction) / budget));
    let quality = ceiling;
    while (quality > floor && distance(quality - 1) < distance(quality)) quality -= 1;
    return quality;
  };
  const left = () => {
    const qualities: number[] = [];
    for (let quality = best ? best.quality + 1 : floor; quality < ruledOutFrom; quality += 1) {
      if (!tried.has(quality)) qualities.push(quality);
    }
    return qualities;
  };

  if (search.ceilingFirst) await encode(ceiling);
  if (best === null) {
    await sketch(ceiling);
    // One more point where the answer is expected: the curve is only trusted near its points.
    if (predicted() < ceiling) await sketch(predicted());
  }
  for (let open = left(); open.length > 0; open = left()) {
    const guess = predicted();
    const halving = tried.size >= trustedSteps && tried.size % 2 === 1;
    const next = halving ? open[open.length >> 1] : nearest(open, guess);
    if (next === undefined) break;
    await encode(next);
  }
  return { best, encodings: tried.size, sketches: curve.length, correction };
}

function nearest(values: readonly number[], to: number): number | undefined {
  let found = values[0];
  for (const value of values) if (found !== undefined && Math.abs(value - to) < Math.abs(found - to)) found = value;
  return found;
}
