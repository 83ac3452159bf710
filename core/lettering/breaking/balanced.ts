/** A part of a paragraph that is not broken. */
export interface Piece {
  width: number;
  /** Of the space after it, which is not seen at the end of a line. */
  space: number;
}

/** A last line of one word that is shorter than this share of a line looks lost. */
const lostShare = 0.4;
/** What a lost word costs, in squared lines: more than any raggedness that avoids it. */
const lostCost = 1;

/**
 * Breaks pieces into 1 line, 2 lines and so on, each time into lines of widths as equal as can be: the least sum of squared widths
 * over all ways to break, which is the least raggedness, for their sum stays the same (dynamic programming, as Knuth and Plass 1981);
 * with a price on a short word that stands alone at the end.
 *
 * @param most lines; there are never more than pieces
 * @returns for each number of lines, for each line the index of the piece after its last
 */
export function balancedBreaks(pieces: readonly Piece[], most: number): number[][] {
  const count = pieces.length;
  const starts = [0];
  for (const { width, space } of pieces) starts.push((starts.at(-1) as number) + width + space);
  const widthOf = (from: number, to: number) =>
    (starts[to] as number) - (starts[from] as number) - (pieces[to - 1] as Piece).space;
  /** For each number of lines: the least cost of the pieces before each, and where the last line of that begins. */
  const costs = [Float64Array.from({ length: count + 1 }, (_, to) => (to === 0 ? 0 : Number.POSITIVE_INFINITY))];
  const begins: Int32Array[] = [new Int32Array(count + 1)];
  const found: number[][] = [];
  for (let lines = 1; lines <= Math.min(most, count); lines += 1) {
    const before = costs[lines - 1] as Float64Array;
    const cost = new Float64Array(count + 1).fill(Number.POSITIVE_INFINITY);
    const begin = new Int32Array(count + 1);
    const mean = widthOf(0, count) / lines;
    let last = { cost: Number.POSITIVE_INFINITY, from: 0 };
    for (let to = lines; to <= count; to += 1) {
      for (let from = lines - 1; from < to; from += 1) {
        const width = widthOf(from, to);
        const sum = (before[from] as number) + width * width;
        if (sum < (cost[to] as number)) [cost[to], begin[to]] = [sum, from];
        if (to < count) continue;
        const isLost = from > 0 && to - from === 1 && width < lostShare * mean;
        const whole = sum + (isLost ? lostCost * mean * mean : 0);
        if (whole < last.cost) last = { cost: whole, from };
      }
    }
    costs.push(cost);
    begins.push(begin);
    found.push([...endsBefore(begins, lines - 1, last.from), count]);
  }
  return found;
}

/** Where the lines of the pieces before one end, followed back from the last. */
function endsBefore(begins: readonly Int32Array[], lines: number, to: number): number[] {
  const ends: number[] = [];
  for (let line = lines, end = to; line > 0; line -= 1) {
    ends.unshift(end);
    end = begins[line]?.[end] as number;
  }
  return ends;
}
