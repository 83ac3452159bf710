/** What one encoding weighs and how similar it is. */
export interface Tradeoff {
  bytes: number;
  /** 0..100. */
  similarity: number;
}

/**
 * The knee of bytes against similarity: the encoding after which more bytes buy little. It is the one that lies furthest
 * above the straight line from the lightest to the heaviest, bytes taken by their logarithm (the method of Satopää et al.,
 * "Finding a 'Kneedle' in a haystack", 2011, without smoothing). Null of fewer than three, and where none lies above.
 */
export function kneeOf<One extends Tradeoff>(encodings: readonly One[]): One | null {
  const sorted = [...encodings].sort((a, b) => a.bytes - b.bytes);
  const [first, last] = [sorted[0], sorted.at(-1)];
  if (!first || !last) return null;
  const rise = last.similarity - first.similarity;
  if (rise <= 0) return null;
  const above = ({ bytes, similarity }: One) =>
    (similarity - first.similarity) / rise - Math.log(bytes / first.bytes) / Math.log(last.bytes / first.bytes);
  const knee = sorted.reduce((best, one) => (above(one) > above(best) ? one : best));
  // Of two, of one weight, or on one line, none lies above: the difference is 0, or no number.
  return above(knee) > 0.01 ? knee : null;
}
