// How alike two planes are, four pixels at a time, and planes kept less finely.

import { bytes, clampTo, lane, strideOf, wide } from './rows';

/** Every two by two values become their mean; a last odd row or column is left out, unless there is no other. */
export function halve(plane: usize, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  const halfWidth = max(1, width >> 1);
  const halfHeight = max(1, height >> 1);
  const halfStride = strideOf(halfWidth);
  const below = height > 1 ? stride : 0;
  const quarter = f32x4.splat(0.25);
  for (let y = 0; y < halfHeight; y++) {
    const from = plane + y * 2 * stride;
    const row = to + y * halfStride;
    if (width === 1) {
      store<f32>(row, (2 * load<f32>(from) + 2 * load<f32>(from + below)) * <f32>0.25);
      continue;
    }
    for (let x = 0; x < halfWidth; x += lane) {
      const at = from + x * 2 * bytes;
      const first = v128.load(at);
      const second = v128.load(at, 16);
      const firstBelow = v128.load(at + below);
      const secondBelow = v128.load(at + below, 16);
      let sum = v128.shuffle<f32>(first, second, 0, 2, 4, 6);
      sum = f32x4.add(sum, v128.shuffle<f32>(first, second, 1, 3, 5, 7));
      sum = f32x4.add(sum, v128.shuffle<f32>(firstBelow, secondBelow, 0, 2, 4, 6));
      sum = f32x4.add(sum, v128.shuffle<f32>(firstBelow, secondBelow, 1, 3, 5, 7));
      v128.store(row + x * bytes, f32x4.mul(sum, quarter));
    }
  }
}

/**
 * The structural similarity of two planes at every pixel of some rows: how alike they are in contrast and structure, and
 * where `whole` is true, times how alike they are in light.
 *
 * @param half the right half of the weights of a pixel's surroundings, the middle first, `radius + 1` of them
 * @param first of the rows that are looked at, then every `step`th, `rows` of them
 * @param line room for five rows, each with `2 * radius + 8` pixels more
 */
export function ssimMap(
  a: usize,
  b: usize,
  width: i32,
  height: i32,
  half: usize,
  radius: i32,
  first: i32,
  step: i32,
  rows: i32,
  line: usize,
  whole: bool,
  to: usize,
): void {
  const stride = strideOf(width);
  const length = stride + (2 * radius + 2 * lane) * bytes;
  const start = line + radius * bytes;
  // (0.01 · 255)² and (0.03 · 255)²: K1, K2 and L of Wang et al. 2004, which keep a quotient of two small numbers steady.
  const c1 = f32x4.splat(6.5025);
  const c2 = f32x4.splat(58.5225);
  const two = f32x4.splat(2);
  for (let index = 0; index < rows; index++) {
    const y = first + index * step;
    for (let x = 0; x < width; x += lane) {
      const column = x * bytes;
      let sumA = f32x4.splat(0);
      let sumB = sumA;
      let sumAA = sumA;
      let sumBB = sumA;
      let sumAB = sumA;
      for (let by = -radius; by <= radius; by++) {
        const weight = v128.load32_splat(half + (by < 0 ? -by : by) * bytes);
        const at = clampTo(height, y + by) * stride + column;
        const valueA = v128.load(a + at);
        const valueB = v128.load(b + at);
        const weightedA = f32x4.mul(weight, valueA);
        const weightedB = f32x4.mul(weight, valueB);
        sumA = f32x4.add(sumA, weightedA);
        sumB = f32x4.add(sumB, weightedB);
        sumAA = f32x4.add(sumAA, f32x4.mul(weightedA, valueA));
        sumBB = f32x4.add(sumBB, f32x4.mul(weightedB, valueB));
        sumAB = f32x4.add(sumAB, f32x4.mul(weightedA, valueB));
      }
      const sums = start + column;
      v128.store(sums, sumA);
      v128.store(sums + length, sumB);
      v128.store(sums + 2 * length, sumAA);
      v128.store(sums + 3 * length, sumBB);
      v128.store(sums + 4 * length, sumAB);
    }
    for (let sum = 0; sum < 5; sum++) {
      const own = line + sum * length;
      const begin = load<f32>(own + radius * bytes);
      const end = load<f32>(own + (radius + width - 1) * bytes);
      for (let at = 0; at < radius; at++) store<f32>(own + at * bytes, begin);
      for (let at = 0; at < radius + lane; at++) store<f32>(own + (radius + width + at) * bytes, end);
    }
    for (let x = 0; x < width; x += lane) {
      let meanA = f32x4.splat(0);
      let meanB = meanA;
      let meanAA = meanA;
      let meanBB = meanA;
      let meanAB = meanA;
      for (let by = -radius; by <= radius; by++) {
        const weight = v128.load32_splat(half + (by < 0 ? -by : by) * bytes);
        const at = start + (x + by) * bytes;
        meanA = f32x4.add(meanA, f32x4.mul(weight, v128.load(at)));
        meanB = f32x4.add(meanB, f32x4.mul(weight, v128.load(at + length)));
        meanAA = f32x4.add(meanAA, f32x4.mul(weight, v128.load(at + 2 * length)));
        meanBB = f32x4.add(meanBB, f32x4.mul(weight, v128.load(at + 3 * length)));
        meanAB = f32x4.add(meanAB, f32x4.mul(weight, v128.load(at + 4 * length)));
      }
      const squareA = f32x4.mul(meanA, meanA);
      const squareB = f32x4.mul(meanB, meanB);
      const product = f32x4.mul(meanA, meanB);
      const spread = f32x4.add(f32x4.sub(meanAA, squareA), f32x4.sub(meanBB, squareB));
      const together = f32x4.sub(meanAB, product);
      let alike = f32x4.div(f32x4.add(f32x4.mul(two, together), c2), f32x4.add(spread, c2));
      if (whole) {
        const light = f32x4.div(f32x4.add(f32x4.mul(two, product), c1), f32x4.add(f32x4.add(squareA, squareB), c1));
        alike = f32x4.mul(alike, light);
      }
      v128.store(to + index * stride + x * bytes, alike);
    }
  }
}

/** Every two by two values all become their mean: what is left of a plane that is kept half as fine each way. */
export function coarsen(plane: usize, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y += 2) {
    const below = y + 1 < height ? stride : 0;
    for (let x = 0; x < width; x += 2) {
      const right = x + 1 < width ? bytes : 0;
      const at = y * stride + x * bytes;
      const from = plane + at;
      const sum = load<f32>(from) + load<f32>(from + right) + load<f32>(from + below) + load<f32>(from + below + right);
      const mean = sum * <f32>0.25;
      store<f32>(to + at, mean);
      store<f32>(to + at + right, mean);
      store<f32>(to + at + below, mean);
      store<f32>(to + at + below + right, mean);
    }
  }
}

/**
 * Looks at blocks of four by four values: where those of `a` lie no further apart than `range`, the block is calm, and the
 * mean square of its differences to `b` is noted. What is left over at the right and below is not looked at.
 *
 * @param toMoved a plane with one value for each block, 0 where it is not calm; so is `toCalm`, 1 where it is
 */
export function calmBlocks(
  a: usize,
  b: usize,
  width: i32,
  height: i32,
  range: f32,
  toMoved: usize,
  toCalm: usize,
): void {
  const stride = strideOf(width);
  const columns = width / lane;
  for (let row = 0; row < height / lane; row++) {
    for (let column = 0; column < columns; column++) {
      let at = (row * stride + column * bytes) * lane;
      let low = v128.load(a + at);
      let high = low;
      let sum = f32x4.splat(0);
      for (let y = 0; y < lane; y++) {
        const value = v128.load(a + at);
        low = f32x4.min(low, value);
        high = f32x4.max(high, value);
        const difference = f32x4.sub(value, v128.load(b + at));
        sum = f32x4.add(sum, f32x4.mul(difference, difference));
        at += stride;
      }
      const lowest = min(
        min(f32x4.extract_lane(low, 0), f32x4.extract_lane(low, 1)),
        min(f32x4.extract_lane(low, 2), f32x4.extract_lane(low, 3)),
      );
      const highest = max(
        max(f32x4.extract_lane(high, 0), f32x4.extract_lane(high, 1)),
        max(f32x4.extract_lane(high, 2), f32x4.extract_lane(high, 3)),
      );
      const isCalm = highest - lowest <= range;
      const moved =
        f32x4.extract_lane(sum, 0) +
        f32x4.extract_lane(sum, 1) +
        f32x4.extract_lane(sum, 2) +
        f32x4.extract_lane(sum, 3);
      const to = row * strideOf(columns) + column * bytes;
      store<f32>(toMoved + to, isCalm ? moved / <f32>16 : <f32>0);
      store<f32>(toCalm + to, isCalm ? <f32>1 : <f32>0);
    }
  }
}

/**
 * The largest error of any block of eight by eight values, looked at in steps of four: the root of the mean square of its
 * differences, less by what the block's own texture hides (divided by one and its standard deviation over `masking`). What is
 * left over at the right and below is not looked at.
 *
 * @param cells room for three planes with one value for every four by four values
 */
export function blockError(a: usize, b: usize, width: i32, height: i32, masking: f32, cells: usize): f32 {
  const stride = strideOf(width);
  const columns = width / lane;
  const rows = height / lane;
  const across = strideOf(columns);
  const plane = across * rows;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      let at = (row * stride + column * bytes) * lane;
      let values = f32x4.splat(0);
      let squares = values;
      let differences = values;
      for (let y = 0; y < lane; y++) {
        const value = v128.load(a + at);
        const difference = f32x4.sub(value, v128.load(b + at));
        values = f32x4.add(values, value);
        squares = f32x4.add(squares, f32x4.mul(value, value));
        differences = f32x4.add(differences, f32x4.mul(difference, difference));
        at += stride;
      }
      const to = cells + row * across + column * bytes;
      store<f32>(to, sumOf(values));
      store<f32>(to + plane, sumOf(squares));
      store<f32>(to + 2 * plane, sumOf(differences));
    }
  }
  let largest: f32 = 0;
  for (let row = 0; row + 1 < rows; row++) {
    for (let column = 0; column + 1 < columns; column++) {
      const cell = cells + row * across + column * bytes;
      const mean = fourCells(cell, across) / <f32>64;
      const variance = fourCells(cell + plane, across) / <f32>64 - mean * mean;
      const moved = fourCells(cell + 2 * plane, across) / <f32>64;
      const error = sqrt(moved) / (<f32>1 + sqrt(max(<f32>0, variance)) / masking);
      largest = max(largest, error);
    }
  }
  return largest;
}

function sumOf(values: v128): f32 {
  return (
    f32x4.extract_lane(values, 0) +
    f32x4.extract_lane(values, 1) +
    f32x4.extract_lane(values, 2) +
    f32x4.extract_lane(values, 3)
  );
}

/** The sum of a cell, of the next, and of the two below them. */
function fourCells(cell: usize, across: usize): f32 {
  return load<f32>(cell) + load<f32>(cell + bytes) + load<f32>(cell + across) + load<f32>(cell + across + bytes);
}

/**
 * A summed-area table (Crow 1984) of some rows of values: at each place the sum of all values above and left of it, as 64-bit
 * floats, with a first row and a first column of nothing.
 */
export function sumUp(values: usize, width: i32, rows: i32, to: usize): void {
  const stride = strideOf(width);
  const across = (width + 1) * wide;
  memory.fill(to, 0, across);
  for (let y = 0; y < rows; y++) {
    const from = values + y * stride;
    const above = to + y * across;
    const row = above + across;
    store<f64>(row, 0);
    let sum: f64 = 0;
    for (let x = 0; x < width; x++) {
      sum += <f64>load<f32>(from + x * bytes);
      const at = (x + 1) * wide;
      store<f64>(row + at, load<f64>(above + at) + sum);
    }
  }
}
