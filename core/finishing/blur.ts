import type { Plane } from '../seeing/index.ts';

/** Two and a half standard deviations each way hold 98.8 % of a Gaussian. */
const reachOf = (deviation: number) => Math.max(1, Math.round(2.5 * deviation));

/** The right half of a Gaussian, the middle first; the whole sums to 1. */
function halfGaussian(deviation: number): Float32Array {
  const half = Float32Array.from({ length: reachOf(deviation) + 1 }, (_, at) => Math.exp(-((at / deviation) ** 2) / 2));
  const sum = half.reduce((total, weight, at) => total + (at === 0 ? weight : 2 * weight), 0);
  return half.map((weight) => weight / sum);
}

/** Three pixels each way are written out below: that is what small radii need, and it is twice as fast as counting. */
const writtenOut = 3;

/**
 * A plane blurred by a Gaussian, columns and rows one after the other. Beyond its edges the outermost pixels go on.
 *
 * @param deviation the standard deviation in pixels, above 0
 */
export function blurred(plane: Plane, deviation: number): Plane {
  const half = halfGaussian(deviation);
  const small = half.length - 1 <= writtenOut;
  const { width, height } = plane;
  const reach = small ? writtenOut : half.length - 1;
  const across = new Float32Array(plane.data.length);
  const line = new Float32Array(width + 2 * reach);
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    line.fill(plane.data[row] as number, 0, reach);
    line.set(plane.data.subarray(row, row + width), reach);
    line.fill(plane.data[row + width - 1] as number, reach + width);
    if (small) blurLineNear(line, half, across, row, width);
    else blurLine(line, half, across, row, width);
  }
  const data = new Float32Array(plane.data.length);
  for (let y = 0; y < height; y += 1) {
    const rowAt = (by: number) => Math.min(height - 1, Math.max(0, y + by)) * width;
    if (small) blurColumnsNear(across, half, rowAt, data, y * width, width);
    else blurColumns(across, half, rowAt, data, y * width, width);
  }
  return { data, width, height };
}

/** So many pixels round a pixel have a say in its blurred value. */
export const blurReach = reachOf;

/** @param line a row with `half.length - 1` pixels more at each end */
function blurLine(line: Float32Array, half: Float32Array, into: Float32Array, start: number, width: number): void {
  const reach = half.length - 1;
  for (let x = 0; x < width; x += 1) {
    const at = x + reach;
    let sum = (half[0] as number) * (line[at] as number);
    for (let by = 1; by <= reach; by += 1) {
      sum += (half[by] as number) * ((line[at - by] as number) + (line[at + by] as number));
    }
    into[start + x] = sum;
  }
}

/** The same with three pixels each way, each read once and handed on. */
function blurLineNear(line: Float32Array, half: Float32Array, into: Float32Array, start: number, width: number): void {
  const [w0 = 1, w1 = 0, w2 = 0, w3 = 0] = half;
  let a = line[0] as number;
  let b = line[1] as number;
  let c = line[2] as number;
  let d = line[3] as number;
  let e = line[4] as number;
  let f = line[5] as number;
  for (let x = 0; x < width; x += 1) {
    const g = line[x + 6] as number;
    into[start + x] = w0 * d + w1 * (c + e) + w2 * (b + f) + w3 * (a + g);
    a = b;
    b = c;
    c = d;
    d = e;
    e = f;
    f = g;
  }
}

type RowAt = (by: number) => number;

/** @param rowAt where the row so many rows further down begins, held inside of the plane */
function blurColumns(
  rows: Float32Array,
  half: Float32Array,
  rowAt: RowAt,
  into: Float32Array,
  start: number,
  width: number,
): void {
  for (let x = 0; x < width; x += 1) into[start + x] = (half[0] as number) * (rows[start + x] as number);
  for (let by = 1; by < half.length; by += 1) {
    const weight = half[by] as number;
    const [above, below] = [rowAt(-by), rowAt(by)];
    for (let x = 0; x < width; x += 1) {
      into[start + x] =
        (into[start + x] as number) + weight * ((rows[above + x] as number) + (rows[below + x] as number));
    }
  }
}

function blurColumnsNear(
  rows: Float32Array,
  half: Float32Array,
  rowAt: RowAt,
  into: Float32Array,
  start: number,
  width: number,
): void {
  const [w0 = 1, w1 = 0, w2 = 0, w3 = 0] = half;
  const [a, b, c, e, f, g] = [rowAt(-3), rowAt(-2), rowAt(-1), rowAt(1), rowAt(2), rowAt(3)] as const;
  for (let x = 0; x < width; x += 1) {
    into[start + x] =
      w0 * (rows[start + x] as number) +
      w1 * ((rows[c + x] as number) + (rows[e + x] as number)) +
      w2 * ((rows[b + x] as number) + (rows[f + x] as number)) +
      w3 * ((rows[a + x] as number) + (rows[g + x] as number));
  }
}
