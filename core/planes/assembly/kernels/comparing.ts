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
      const sum = f32x4.add(f32x4.add(f32x4.add(evens(at), odds(at)), evens(at + below)), odds(at + below));
      v128.store(row + x * bytes, f32x4.mul(sum, quarter));
    }
  }
}

/** A pixel's surroundings reach so many pixels each way. */
const reach: i32 = 5;
/** A line that is parted into even and odd pixels begins so many values before its first pixel: half of an even number. */
const before: i32 = 3;
/** What a parted line holds beside the values of half a row. */
const beside: i32 = 12;

/**
 * The structural similarity of two planes at every second pixel of some rows: how alike they are in contrast and structure, and
 * where `whole` is true, times how alike they are in light. Surroundings are eleven pixels wide, so that every pixel has its say.
 *
 * @param half the right half of the weights of a pixel's surroundings, the middle first, six of them
 * @param first of the rows that are looked at, then every `step`th, `rows` of them
 * @param line room for eleven numbers, four rows, and eight rows of half the width with twelve values more
 * @param to a plane of half the width, rounded up, with `rows` rows
 */
export function ssimMap(
  a: usize,
  b: usize,
  width: i32,
  height: i32,
  half: usize,
  first: i32,
  step: i32,
  rows: i32,
  line: usize,
  whole: bool,
  to: usize,
): void {
  const stride = strideOf(width);
  const halfWidth = (width + 1) >> 1;
  const halfStride = strideOf(halfWidth);
  const sums = line + 12 * bytes;
  const parted = sums + 4 * stride;
  const length = halfStride + beside * bytes;
  // (0.01 · 255)² and (0.03 · 255)²: K1, K2 and L of Wang et al. 2004, which keep a quotient of two small numbers steady.
  const c1 = f32x4.splat(6.5025);
  const c2 = f32x4.splat(58.5225);
  const two = f32x4.splat(2);
  for (let index = 0; index < rows; index++) {
    const y = first + index * step;
    for (let by = -reach; by <= reach; by++) {
      store<i32>(line + (by + reach) * bytes, clampTo(height, y + by) * stride);
    }
    sumDown(a, b, width, half, line, sums);
    for (let sum = 0; sum < 4; sum++) part(sums + sum * stride, width, parted + 2 * sum * length, length);
    for (let x = 0; x < halfWidth; x += lane) {
      const at = parted + x * bytes;
      const meanA = sumAcross(at, length, half);
      const meanB = sumAcross(at + 2 * length, length, half);
      const meanSquares = sumAcross(at + 4 * length, length, half);
      const meanProduct = sumAcross(at + 6 * length, length, half);
      const squares = f32x4.add(f32x4.mul(meanA, meanA), f32x4.mul(meanB, meanB));
      const product = f32x4.mul(meanA, meanB);
      const spread = f32x4.sub(meanSquares, squares);
      const together = f32x4.sub(meanProduct, product);
      let alike = f32x4.div(f32x4.add(f32x4.mul(two, together), c2), f32x4.add(spread, c2));
      if (whole) {
        const light = f32x4.div(f32x4.add(f32x4.mul(two, product), c1), f32x4.add(squares, c1));
        alike = f32x4.mul(alike, light);
      }
      v128.store(to + index * halfStride + x * bytes, alike);
    }
  }
}

/**
 * The weighted sums down eleven rows, whose offsets lie at `offsets`: of the values of the one plane, of those of the other, of the
 * squares of both, and of their products, as four lines.
 */
function sumDown(a: usize, b: usize, width: i32, half: usize, offsets: usize, to: usize): void {
  const stride = strideOf(width);
  const middle = load<i32>(offsets + reach * bytes);
  const middleWeight = v128.load32_splat(half);
  for (let x = 0; x < width; x += lane) {
    const column = x * bytes;
    const valueA = v128.load(a + middle + column);
    const valueB = v128.load(b + middle + column);
    let sumA = f32x4.mul(middleWeight, valueA);
    let sumB = f32x4.mul(middleWeight, valueB);
    let products = f32x4.mul(sumA, valueB);
    let squares = f32x4.add(f32x4.mul(sumA, valueA), f32x4.mul(sumB, valueB));
    for (let by = 1; by <= reach; by++) {
      const above = load<i32>(offsets + (reach - by) * bytes) + column;
      const below = load<i32>(offsets + (reach + by) * bytes) + column;
      const weight = v128.load32_splat(half + by * bytes);
      const aboveA = v128.load(a + above);
      const aboveB = v128.load(b + above);
      const belowA = v128.load(a + below);
      const belowB = v128.load(b + below);
      sumA = f32x4.add(sumA, f32x4.mul(weight, f32x4.add(aboveA, belowA)));
      sumB = f32x4.add(sumB, f32x4.mul(weight, f32x4.add(aboveB, belowB)));
      const product = f32x4.add(f32x4.mul(aboveA, aboveB), f32x4.mul(belowA, belowB));
      products = f32x4.add(products, f32x4.mul(weight, product));
      const squaresA = f32x4.add(f32x4.mul(aboveA, aboveA), f32x4.mul(belowA, belowA));
      const squaresB = f32x4.add(f32x4.mul(aboveB, aboveB), f32x4.mul(belowB, belowB));
      squares = f32x4.add(squares, f32x4.mul(weight, f32x4.add(squaresA, squaresB)));
    }
    v128.store(to + column, sumA);
    v128.store(to + stride + column, sumB);
    v128.store(to + 2 * stride + column, squares);
    v128.store(to + 3 * stride + column, products);
  }
}

/** Lays the even values of a row in one line and the odd ones in another, `length` further on; the outermost go on outwards. */
function part(row: usize, width: i32, to: usize, length: usize): void {
  const even = to + before * bytes;
  for (let x = 0; x < width; x += 2 * lane) {
    const at = even + (x >> 1) * bytes;
    v128.store(at, evens(row + x * bytes));
    v128.store(at + length, odds(row + x * bytes));
  }
  const first = load<f32>(row);
  const last = load<f32>(row + (width - 1) * bytes);
  const afterEven = even + ((width + 1) >> 1) * bytes;
  const afterOdd = even + length + (width >> 1) * bytes;
  for (let index = 0; index < before; index++) {
    const at = index * bytes;
    store<f32>(to + at, first);
    store<f32>(to + length + at, first);
    store<f32>(afterEven + at, last);
    store<f32>(afterOdd + at, last);
  }
}

/** The weighted sums of four pixels' surroundings, each two pixels further on, along a line that is parted. */
function sumAcross(even: usize, length: usize, half: usize): v128 {
  const odd = even + length;
  let sum = f32x4.mul(v128.load32_splat(half), v128.load(even, 12));
  sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(half, 4), f32x4.add(v128.load(odd, 8), v128.load(odd, 12))));
  sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(half, 8), f32x4.add(v128.load(even, 8), v128.load(even, 16))));
  sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(half, 12), f32x4.add(v128.load(odd, 4), v128.load(odd, 16))));
  sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(half, 16), f32x4.add(v128.load(even, 4), v128.load(even, 20))));
  return f32x4.add(sum, f32x4.mul(v128.load32_splat(half, 20), f32x4.add(v128.load(odd), v128.load(odd, 20))));
}

/** Every two by two values all become their mean: what is left of a plane that is kept half as fine each way. */
export function coarsen(plane: usize, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y += 2) {
    const below = y + 1 < height ? stride : 0;
    for (let x = 0; x < width; x += lane) {
      const at = y * stride + x * bytes;
      let pair = v128.load(plane + at);
      // A last column without another beside it is its own neighbour.
      let under = v128.load(plane + at + below);
      if (x + lane > width && (width & 1) === 1) {
        pair = lastTwice(pair, width - x);
        under = lastTwice(under, width - x);
      }
      const sum = f32x4.add(pair, under);
      const mean = f32x4.mul(f32x4.add(sum, v128.shuffle<f32>(sum, sum, 1, 0, 3, 2)), f32x4.splat(0.25));
      v128.store(to + at, mean);
      v128.store(to + at + below, mean);
    }
  }
}

/** Four values of which only the first or the first three are there, the last of those once more after it. */
function lastTwice(four: v128, there: i32): v128 {
  return there === 1
    ? f32x4.replace_lane(four, 1, f32x4.extract_lane(four, 0))
    : f32x4.replace_lane(four, 3, f32x4.extract_lane(four, 2));
}

/**
 * Looks at blocks of four by four values: where those of `a` lie no further apart than `range`, the block is calm, and the
 * mean square of its differences to `b` is noted. What is left over at the right and below is not looked at.
 *
 * @param line room for three rows, with twelve values more
 * @param toMoved a plane with one value for each block, 0 where it is not calm; so is `toCalm`, 1 where it is
 */
export function calmBlocks(
  a: usize,
  b: usize,
  width: i32,
  height: i32,
  range: f32,
  line: usize,
  toMoved: usize,
  toCalm: usize,
): void {
  const stride = strideOf(width);
  const columns = width / lane;
  const across = strideOf(columns);
  const lows = line;
  const highs = lows + stride;
  const sums = highs + stride;
  const farthest = f32x4.splat(range);
  const sixteenth = f32x4.splat(<f32>0.0625);
  for (let row = 0; row < height / lane; row++) {
    const from = row * lane * stride;
    for (let x = 0; x < width; x += lane) {
      let at = from + x * bytes;
      let low = v128.load(a + at);
      let high = low;
      let sum = f32x4.splat(0);
      for (let y = 0; y < lane; y++) {
        const value = v128.load(a + at);
        low = f32x4.pmin(low, value);
        high = f32x4.pmax(high, value);
        const difference = f32x4.sub(value, v128.load(b + at));
        sum = f32x4.add(sum, f32x4.mul(difference, difference));
        at += stride;
      }
      v128.store(lows + x * bytes, low);
      v128.store(highs + x * bytes, high);
      v128.store(sums + x * bytes, sum);
    }
    for (let column = 0; column < columns; column += lane) {
      const at = column * lane * bytes;
      const isCalm = f32x4.le(f32x4.sub(mostOfFour(highs + at), leastOfFour(lows + at)), farthest);
      const to = row * across + column * bytes;
      v128.store(toMoved + to, v128.and(isCalm, f32x4.mul(sumOfFour(sums + at), sixteenth)));
      v128.store(toCalm + to, v128.and(isCalm, f32x4.splat(1)));
    }
  }
}

/** The least of each four values of sixteen. */
function leastOfFour(at: usize): v128 {
  const one = f32x4.pmin(evens(at), odds(at));
  const next = f32x4.pmin(evens(at + 32), odds(at + 32));
  return f32x4.pmin(v128.shuffle<f32>(one, next, 0, 2, 4, 6), v128.shuffle<f32>(one, next, 1, 3, 5, 7));
}

function mostOfFour(at: usize): v128 {
  const one = f32x4.pmax(evens(at), odds(at));
  const next = f32x4.pmax(evens(at + 32), odds(at + 32));
  return f32x4.pmax(v128.shuffle<f32>(one, next, 0, 2, 4, 6), v128.shuffle<f32>(one, next, 1, 3, 5, 7));
}

function sumOfFour(at: usize): v128 {
  const one = f32x4.add(evens(at), odds(at));
  const next = f32x4.add(evens(at + 32), odds(at + 32));
  return f32x4.add(v128.shuffle<f32>(one, next, 0, 2, 4, 6), v128.shuffle<f32>(one, next, 1, 3, 5, 7));
}

/** Those of eight values at even places. */
function evens(at: usize): v128 {
  return v128.shuffle<f32>(v128.load(at), v128.load(at, 16), 0, 2, 4, 6);
}

function odds(at: usize): v128 {
  return v128.shuffle<f32>(v128.load(at), v128.load(at, 16), 1, 3, 5, 7);
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
