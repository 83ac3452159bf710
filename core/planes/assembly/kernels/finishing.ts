// What finishing does to a plane, four pixels at a time.

import { bytes, clampTo, lane, padded, strideOf } from './rows';

/**
 * Unsharp masking: `strength` times the difference to a blurred copy is added, less the threshold.
 *
 * @param half the right half of the blur's weights, the middle first, `radius + 1` of them
 * @param line room for a row with `radius + 4` pixels more at each end
 * @param across room for a plane
 */
export function sharpen(
  plane: usize,
  width: i32,
  height: i32,
  half: usize,
  radius: i32,
  strength: f32,
  threshold: f32,
  line: usize,
  across: usize,
  to: usize,
): void {
  const stride = strideOf(width);
  const middle = f32x4.splat(load<f32>(half));
  for (let y = 0; y < height; y++) {
    padded(plane + y * stride, width, line, radius, radius + lane);
    const row = across + y * stride;
    for (let x = 0; x < width; x += lane) {
      const at = line + (x + radius) * bytes;
      let sum = f32x4.mul(middle, v128.load(at));
      for (let by = 1; by <= radius; by++) {
        const weight = f32x4.splat(load<f32>(half + by * bytes));
        const both = f32x4.add(v128.load(at - by * bytes), v128.load(at + by * bytes));
        sum = f32x4.add(sum, f32x4.mul(weight, both));
      }
      v128.store(row + x * bytes, sum);
    }
  }
  const none = f32x4.splat(0);
  const least = f32x4.splat(threshold);
  const times = f32x4.splat(strength);
  for (let y = 0; y < height; y++) {
    const row = across + y * stride;
    rowsAround(across, height, stride, y, radius, line);
    for (let x = 0; x < width; x += lane) {
      const column = x * bytes;
      let sum = f32x4.mul(middle, v128.load(row + column));
      for (let by = 1; by <= radius; by++) {
        const pair = line + 2 * (by - 1) * bytes;
        const above = v128.load(load<usize>(pair) + column);
        const below = v128.load(load<usize>(pair, 4) + column);
        sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(half + by * bytes), f32x4.add(above, below)));
      }
      const at = y * stride + column;
      const value = v128.load(plane + at);
      const difference = f32x4.sub(value, sum);
      const beyond = f32x4.add(
        f32x4.max(f32x4.sub(difference, least), none),
        f32x4.min(f32x4.add(difference, least), none),
      );
      v128.store(to + at, f32x4.add(value, f32x4.mul(times, beyond)));
    }
  }
}

/** Notes where the rows of a plane lie that are up to `radius` above a row and below it, in pairs, the nearest first. */
function rowsAround(plane: usize, height: i32, stride: i32, y: i32, radius: i32, to: usize): void {
  for (let by = 1; by <= radius; by++) {
    const pair = to + 2 * (by - 1) * bytes;
    store<usize>(pair, plane + clampTo(height, y - by) * stride);
    store<usize>(pair, plane + clampTo(height, y + by) * stride, 4);
  }
}

/** Replaces `count` values by the entry of a table that their multiple points at; what lies outside takes the nearest. */
export function lookUp(plane: usize, count: i32, table: usize, entries: i32, times: f32): void {
  for (let at = 0; at < count; at++) {
    const pointer = plane + at * bytes;
    const index = clampTo(entries, <i32>(load<f32>(pointer) * times + 0.5));
    store<f32>(pointer, load<f32>(table + index * bytes));
  }
}

/**
 * Scales a plane: columns first, then rows.
 *
 * @param downFirst of each output row its first source row; `downTaps` weights to each in `downWeights`; across alike, where the
 *   number of taps is a multiple of four
 * @param before pixels by which the first source pixels of the output reach over the left edge, and `after` over the right
 * @param line room for a row with `before` and `after` pixels more, and four
 */
export function scale(
  plane: usize,
  width: i32,
  height: i32,
  downFirst: usize,
  downWeights: usize,
  downTaps: i32,
  outHeight: i32,
  acrossFirst: usize,
  acrossWeights: usize,
  acrossTaps: i32,
  outWidth: i32,
  before: i32,
  after: i32,
  line: usize,
  to: usize,
): void {
  const stride = strideOf(width);
  for (let y = 0; y < outHeight; y++) {
    const first = load<i32>(downFirst + y * bytes);
    const weights = downWeights + y * downTaps * bytes;
    // Eight pixels at a time; what comes past the last one is written over afterwards.
    for (let x = 0; x < width; x += 2 * lane) {
      const column = plane + x * bytes;
      let sum = f32x4.splat(0);
      let next = sum;
      for (let tap = 0; tap < downTaps; tap++) {
        const weight = v128.load32_splat(weights + tap * bytes);
        const at = column + clampTo(height, first + tap) * stride;
        sum = f32x4.add(sum, f32x4.mul(weight, v128.load(at)));
        next = f32x4.add(next, f32x4.mul(weight, v128.load(at, 16)));
      }
      v128.store(line + (before + x) * bytes, sum);
      v128.store(line + (before + x) * bytes, next, 16);
    }
    const begin = load<f32>(line + before * bytes);
    const end = load<f32>(line + (before + width - 1) * bytes);
    for (let at = 0; at < before; at++) store<f32>(line + at * bytes, begin);
    for (let at = 0; at < after; at++) store<f32>(line + (before + width + at) * bytes, end);
    const row = to + y * strideOf(outWidth);
    const own = line + before * bytes;
    for (let x = 0; x < outWidth; x += lane) {
      // What comes of pixels past the last one is never looked at; they are its like, so that all that is read is there.
      const last = outWidth - 1;
      const one = productsAcross(own, acrossFirst, acrossWeights, acrossTaps, x);
      const two = productsAcross(own, acrossFirst, acrossWeights, acrossTaps, min(x + 1, last));
      const three = productsAcross(own, acrossFirst, acrossWeights, acrossTaps, min(x + 2, last));
      const four = productsAcross(own, acrossFirst, acrossWeights, acrossTaps, min(x + 3, last));
      const begins = f32x4.add(v128.shuffle<f32>(one, two, 0, 2, 4, 6), v128.shuffle<f32>(one, two, 1, 3, 5, 7));
      const ends = f32x4.add(v128.shuffle<f32>(three, four, 0, 2, 4, 6), v128.shuffle<f32>(three, four, 1, 3, 5, 7));
      const sums = f32x4.add(v128.shuffle<f32>(begins, ends, 0, 2, 4, 6), v128.shuffle<f32>(begins, ends, 1, 3, 5, 7));
      v128.store(row + x * bytes, sums);
    }
  }
}

/** What pixels of a line have a say in an output pixel with, in four parts that are still to be added. */
function productsAcross(line: usize, firsts: usize, weights: usize, taps: i32, x: i32): v128 {
  const from = line + load<i32>(firsts + x * bytes) * bytes;
  const own = weights + x * taps * bytes;
  let sum = f32x4.mul(v128.load(own), v128.load(from));
  for (let tap = lane; tap < taps; tap += lane) {
    sum = f32x4.add(sum, f32x4.mul(v128.load(own + tap * bytes), v128.load(from + tap * bytes)));
  }
  return sum;
}

/**
 * Holds a plane within its surroundings in another: never over the highest or under the lowest value within `radius` by
 * more than `share` of what lies between them; and where no more than `calm` lies between them, at its value there to half
 * a level.
 *
 * @param low room for a plane, as is `high`
 * @param line room for a row with `radius + 4` pixels more at each end
 */
export function limit(
  plane: usize,
  plain: usize,
  width: i32,
  height: i32,
  radius: i32,
  share: f32,
  calm: f32,
  line: usize,
  low: usize,
  high: usize,
): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y++) {
    padded(plain + y * stride, width, line, radius, radius + lane);
    for (let x = 0; x < width; x += lane) {
      const at = line + (x + radius) * bytes;
      let lowest = v128.load(at);
      let highest = lowest;
      for (let by = 1; by <= radius; by++) {
        const left = v128.load(at - by * bytes);
        const right = v128.load(at + by * bytes);
        lowest = f32x4.min(lowest, f32x4.min(left, right));
        highest = f32x4.max(highest, f32x4.max(left, right));
      }
      v128.store(low + y * stride + x * bytes, lowest);
      v128.store(high + y * stride + x * bytes, highest);
    }
  }
  const times = f32x4.splat(share);
  const calmest = f32x4.splat(calm);
  const leastMove = f32x4.splat(0.5);
  for (let y = 0; y < height; y++) {
    rowsAround(0, height, stride, y, radius, line);
    for (let x = 0; x < width; x += lane) {
      const column = x * bytes;
      let lowest = v128.load(low + y * stride + column);
      let highest = v128.load(high + y * stride + column);
      for (let by = 1; by <= radius; by++) {
        const pair = line + 2 * (by - 1) * bytes;
        const above = load<usize>(pair) + column;
        const below = load<usize>(pair, 4) + column;
        lowest = f32x4.min(lowest, f32x4.min(v128.load(low + above), v128.load(low + below)));
        highest = f32x4.max(highest, f32x4.max(v128.load(high + above), v128.load(high + below)));
      }
      const range = f32x4.sub(highest, lowest);
      const allowed = f32x4.mul(times, range);
      const at = plane + y * stride + column;
      const held = f32x4.max(f32x4.min(v128.load(at), f32x4.add(highest, allowed)), f32x4.sub(lowest, allowed));
      const own = v128.load(plain + y * stride + column);
      const move = f32x4.max(leastMove, f32x4.sub(range, calmest));
      v128.store(at, f32x4.max(f32x4.min(held, f32x4.add(own, move)), f32x4.sub(own, move)));
    }
  }
}
