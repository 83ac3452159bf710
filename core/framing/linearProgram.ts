/** A half-space of n dimensions: the points x with `normal` · x <= `limit`. */
export interface HalfSpace {
  normal: readonly number[];
  limit: number;
}

/** Points this little outside of a half-space count as inside: rounding errors of coordinates around 1. */
const slack = 1e-9;
/** A number this small is nothing where one has to be divided by it. */
const nothing = 1e-12;
/** Every coordinate is looked for between minus and plus this. */
const bound = 1e4;

/**
 * The point with the greatest `objective` · x inside all half-spaces, or null where they have no point in common.
 * Incremental: half-spaces are added one by one, and where the best point so far falls outside of a new one, the
 * answer lies on its boundary, which is the same question with one dimension less (R. Seidel, "Small-dimensional
 * linear programming and convex hulls made easy", 1991; without the shuffling, so that it is deterministic).
 *
 * @param objective as many numbers as there are dimensions
 * @param halfSpaces in coordinates of about 1; a few dozen at most
 */
export function maximise(objective: readonly number[], halfSpaces: readonly HalfSpace[]): number[] | null {
  const dimensions = objective.length;
  const rows = new Rows(dimensions, halfSpaces.length + 2 * dimensions);
  for (let axis = 0; axis < dimensions; axis += 1) {
    for (const sign of [1, -1]) {
      const start = rows.next();
      rows.values.fill(0, start, start + dimensions);
      rows.values[start + axis] = sign;
      rows.values[start + dimensions] = bound;
    }
  }
  for (const { normal, limit } of halfSpaces) {
    const start = rows.next();
    for (let at = 0; at < dimensions; at += 1) rows.values[start + at] = normal[at] ?? 0;
    rows.values[start + dimensions] = limit;
  }
  const best = new Float64Array(dimensions);
  return solve(Float64Array.from(objective), rows, rows.count, best) ? [...best] : null;
}

/** Room for the rows of every number of dimensions: a solution with fewer dimensions is done before the next begins. */
const rooms: Float64Array[] = [];

function roomFor(dimensions: number, length: number): Float64Array {
  const known = rooms[dimensions];
  if (known && known.length >= length) return known;
  const room = new Float64Array(2 * length);
  rooms[dimensions] = room;
  return room;
}

/** Half-spaces one after the other in one array, each as its normal and its limit: this runs thousands of times a second. */
class Rows {
  readonly values: Float64Array;
  count = 0;

  constructor(
    readonly dimensions: number,
    count: number,
  ) {
    this.values = roomFor(dimensions, count * (dimensions + 1));
  }

  /** Where the values of one more row begin; whatever lies there has to be written over. */
  next(): number {
    this.count += 1;
    return (this.count - 1) * (this.dimensions + 1);
  }
}

/** Writes the best point for the first `count` rows into `best`; false where there is none. */
function solve(objective: Float64Array, rows: Rows, count: number, best: Float64Array): boolean {
  const { dimensions, values } = rows;
  if (dimensions === 1) return solveLine(objective[0] ?? 0, rows, count, best);
  // The first rows keep every coordinate within bound: their best corner is where it begins.
  for (let axis = 0; axis < dimensions; axis += 1) best[axis] = (objective[axis] ?? 0) < 0 ? -bound : bound;
  for (let row = 0; row < count; row += 1) {
    const start = row * (dimensions + 1);
    const limit = values[start + dimensions] ?? 0;
    let reached = 0;
    let pivot = 0;
    for (let axis = 0; axis < dimensions; axis += 1) {
      const value = values[start + axis] ?? 0;
      reached += value * (best[axis] ?? 0);
      if (Math.abs(value) > Math.abs(values[start + pivot] ?? 0)) pivot = axis;
    }
    if (reached <= limit + slack) continue;
    if (Math.abs(values[start + pivot] ?? 0) < nothing) return false;
    if (!solveOnBoundary(objective, rows, row, pivot, best)) return false;
  }
  return true;
}

/** The best point on the boundary of a row, for the rows before it: there the pivot's coordinate follows from the others. */
function solveOnBoundary(objective: Float64Array, rows: Rows, row: number, pivot: number, best: Float64Array): boolean {
  const { dimensions, values } = rows;
  const start = row * (dimensions + 1);
  const lead = values[start + pivot] ?? 1;
  const limit = values[start + dimensions] ?? 0;
  const fewer = new Rows(dimensions - 1, row);
  for (let other = 0; other < row; other += 1) {
    const at = other * (dimensions + 1);
    const share = (values[at + pivot] ?? 0) / lead;
    const to = fewer.next();
    for (let axis = 0; axis < dimensions - 1; axis += 1) {
      const from = axis < pivot ? axis : axis + 1;
      fewer.values[to + axis] = (values[at + from] ?? 0) - share * (values[start + from] ?? 0);
    }
    fewer.values[to + dimensions - 1] = (values[at + dimensions] ?? 0) - share * limit;
  }
  const along = new Float64Array(dimensions - 1);
  const share = (objective[pivot] ?? 0) / lead;
  for (let axis = 0; axis < dimensions - 1; axis += 1) {
    const from = axis < pivot ? axis : axis + 1;
    along[axis] = (objective[from] ?? 0) - share * (values[start + from] ?? 0);
  }
  const found = new Float64Array(dimensions - 1);
  if (!solve(along, fewer, row, found)) return false;
  let rest = limit;
  for (let axis = 0; axis < dimensions - 1; axis += 1) {
    const to = axis < pivot ? axis : axis + 1;
    best[to] = found[axis] ?? 0;
    rest -= (values[start + to] ?? 0) * (found[axis] ?? 0);
  }
  best[pivot] = rest / lead;
  return true;
}

function solveLine(objective: number, { values }: Rows, count: number, best: Float64Array): boolean {
  let [low, high] = [-bound, bound];
  for (let row = 0; row < count; row += 1) {
    const slope = values[2 * row] ?? 0;
    const limit = values[2 * row + 1] ?? 0;
    if (slope > nothing) high = Math.min(high, limit / slope);
    else if (slope < -nothing) low = Math.max(low, limit / slope);
    else if (limit < -slack) return false;
  }
  if (low > high + slack) return false;
  best[0] = objective < 0 ? Math.min(low, high) : high;
  return true;
}
