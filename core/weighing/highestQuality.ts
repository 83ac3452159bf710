import { BytesEstimate } from './bytesEstimate.ts';
import { lastGood } from './lastGood.ts';
import { nearest } from './nearest.ts';

export interface QualitySearch<Encoded extends { bytes: number }> {
  /** The most bytes the result may have. */
  budget: number;
  /** The qualities that are allowed, ascending, at least one. */
  qualities: readonly number[];
  /** Encodes with full effort. */
  encode: (quality: number) => Promise<Encoded>;
  /** Rough bytes at a quality, quickly: need not be right, only roughly proportional; two at a time. */
  sketch: (quality: number) => Promise<number>;
  /**
   * Better than a sketch: about what a full encoding weighs. Asked once, for the quality at which the answer is expected
   * without it. It only saves encodings. @default the sketch
   */
  estimate?: ((quality: number) => Promise<number>) | null;
  /**
   * How many full encodings may run at a time, asked before every round: two are quicker where nobody else needs the
   * processor, one after the other are fewer. The answer is the same. @default 2
   */
  atOnce?: () => 1 | 2;
  /** True where the budget is so wide that the highest quality is worth trying before anything is sketched. */
  highestFirst?: boolean;
  /**
   * How far an encoder may stray from "more quality, more bytes": a higher quality never weighs less than
   * (1 - tolerance) times a lower one. @default 0.002
   */
  tolerance?: number;
  /** The same in bytes, for small files, in which a few bytes are many per cent. @default 0 */
  slack?: number;
}

export interface QualityFound<Encoded> {
  /** Null where no quality fits. */
  best: { quality: number; encoded: Encoded } | null;
  /** How many full and quick encodings it took. */
  encodings: number;
  sketches: number;
}

/** Where the curve is sketched first. Then it is sketched where the answer is expected, so that it need not be straight. */
const sketchedAt = [60, 90];

/**
 * The highest quality whose file fits, the same answer as trying every quality, given the tolerance. Sketches and one
 * estimate tell where it is expected; full encodings settle it: a file that fits rules out everything below, a
 * file too heavy by more than the tolerance rules out everything above, until nothing is left to try.
 */
export async function highestQualityThatFits<Encoded extends { bytes: number }>(
  search: QualitySearch<Encoded>,
): Promise<QualityFound<Encoded>> {
  const { budget, qualities, tolerance = 0.002, slack = 0 } = search;
  const encoded = new Map<number, Encoded>();
  const highest = qualities.at(-1);
  if (highest === undefined) throw new RangeError('highestQualityThatFits: at least one quality is needed.');
  const [lowest = highest] = qualities;
  const attempt = async (quality: number) => {
    const file = await search.encode(quality);
    encoded.set(quality, file);
    if (file.bytes <= budget) return 'good';
    return file.bytes * (1 - tolerance) - slack > budget ? 'hopeless' : 'bad';
  };
  const bestOf = (quality: number | null) => {
    const file = quality === null ? undefined : encoded.get(quality);
    return quality !== null && file ? { quality, encoded: file } : null;
  };
  if (search.highestFirst && (await attempt(highest)) === 'good') {
    return { best: bestOf(highest), encodings: 1, sketches: 0 };
  }

  const estimate = new BytesEstimate();
  const sketch = async (quality: number) => {
    if (!estimate.isSketchedAt(quality)) estimate.sketch(quality, await search.sketch(quality));
  };
  const expected = () => qualities.findLast((quality) => estimate.at(quality) <= budget) ?? lowest;
  await Promise.all([...new Set(sketchedAt.map((quality) => nearest(qualities, quality)))].map(sketch));
  for (const [quality, { bytes }] of encoded) estimate.learn(quality, bytes);
  await sketch(expected());
  if (search.estimate) {
    const quality = expected();
    estimate.suppose(quality, await search.estimate(quality));
    await sketch(expected());
  }
  const found = await lastGood({
    candidates: search.highestFirst ? qualities.slice(0, -1) : qualities,
    attempt: async (quality) => {
      const verdict = await attempt(quality);
      estimate.learn(quality, (encoded.get(quality) as Encoded).bytes);
      return verdict;
    },
    expected,
    atOnce: search.atOnce ?? (() => 2),
  });
  return { best: bestOf(found), encodings: encoded.size, sketches: estimate.sketches };
}
