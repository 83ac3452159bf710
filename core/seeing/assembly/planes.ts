// AssemblyScript, compiled to WebAssembly: what is done to every pixel of a plane, four pixels at a time. All
// numbers are 32-bit floats, row by row; pointers are byte offsets into the module's memory, laid out by its caller. Every
// row of a plane begins at a multiple of four pixels: what lies between its end and the next is never looked at.

const lane: i32 = 4;
const bytes: i32 = 4;

function clampTo(length: i32, at: i32): i32 {
  return max(0, min(length - 1, at));
}

/** Bytes from one row of a plane to the next. */
function strideOf(width: i32): i32 {
  return ((width + lane - 1) & ~(lane - 1)) * bytes;
}

/** The luminance (ITU-R BT.709) of 8-bit pixels as they are encoded; of fewer than three channels, the first. */
export function luminance(from: usize, channels: i32, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y++) {
    let pixel = from + y * width * channels;
    const row = to + y * stride;
    for (let x = 0; x < width; x++) {
      const r = <f32>load<u8>(pixel);
      const light =
        channels < 3 ? r : <f32>0.2126 * r + <f32>0.7152 * load<u8>(pixel, 1) + <f32>0.0722 * load<u8>(pixel, 2);
      store<f32>(row + x * bytes, light);
      pixel += channels;
    }
  }
}

/** Copies a row into a line with its outermost pixels repeated before and after it. */
function padded(row: usize, width: i32, line: usize, before: i32, after: i32): void {
  memory.copy(line + before * bytes, row, width * bytes);
  const first = load<f32>(row);
  const last = load<f32>(row + (width - 1) * bytes);
  for (let at = 0; at < before; at++) store<f32>(line + at * bytes, first);
  for (let at = 0; at < after; at++) store<f32>(line + (before + width + at) * bytes, last);
}

/**
 * Unsharp masking: `strength` times the difference to a blurred copy is added, less the threshold.
 *
 * @param half the right half of the blur's weights, the middle first, `reach + 1` of them
 * @param line room for a row with `reach + 4` pixels more at each end
 * @param across room for a plane
 */
export function sharpen(
  plane: usize,
  width: i32,
  height: i32,
  half: usize,
  reach: i32,
  strength: f32,
  threshold: f32,
  line: usize,
  across: usize,
  to: usize,
): void {
  const stride = strideOf(width);
  const middle = f32x4.splat(load<f32>(half));
  for (let y = 0; y < height; y++) {
    padded(plane + y * stride, width, line, reach, reach + lane);
    const row = across + y * stride;
    for (let x = 0; x < width; x += lane) {
      const at = line + (x + reach) * bytes;
      let sum = f32x4.mul(middle, v128.load(at));
      for (let by = 1; by <= reach; by++) {
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
    for (let x = 0; x < width; x += lane) {
      const column = x * bytes;
      let sum = f32x4.mul(middle, v128.load(row + column));
      for (let by = 1; by <= reach; by++) {
        const weight = f32x4.splat(load<f32>(half + by * bytes));
        const above = v128.load(across + clampTo(height, y - by) * stride + column);
        const below = v128.load(across + clampTo(height, y + by) * stride + column);
        sum = f32x4.add(sum, f32x4.mul(weight, f32x4.add(above, below)));
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
 * @param downFirst of each output row its first source row; `downTaps` weights to each in `downWeights`; across alike
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
    for (let x = 0; x < width; x += lane) {
      const column = x * bytes;
      let sum = f32x4.splat(0);
      for (let tap = 0; tap < downTaps; tap++) {
        const weight = v128.load32_splat(weights + tap * bytes);
        const pixels = v128.load(plane + clampTo(height, first + tap) * stride + column);
        sum = f32x4.add(sum, f32x4.mul(weight, pixels));
      }
      v128.store(line + (before + x) * bytes, sum);
    }
    const begin = load<f32>(line + before * bytes);
    const end = load<f32>(line + (before + width - 1) * bytes);
    for (let at = 0; at < before; at++) store<f32>(line + at * bytes, begin);
    for (let at = 0; at < after; at++) store<f32>(line + (before + width + at) * bytes, end);
    const row = to + y * strideOf(outWidth);
    for (let x = 0; x < outWidth; x++) {
      const from = line + (load<i32>(acrossFirst + x * bytes) + before) * bytes;
      const own = acrossWeights + x * acrossTaps * bytes;
      let sum: f32 = 0;
      for (let tap = 0; tap < acrossTaps; tap++) {
        sum += load<f32>(own + tap * bytes) * load<f32>(from + tap * bytes);
      }
      store<f32>(row + x * bytes, sum);
    }
  }
}

/**
 * Holds a plane within its surroundings in another: never over the highest or under the lowest value within `reach` by
 * more than `share` of what lies between them.
 *
 * @param low room for a plane, as is `high`
 * @param line room for a row with `reach + 4` pixels more at each end
 */
export function limit(
  plane: usize,
  plain: usize,
  width: i32,
  height: i32,
  reach: i32,
  share: f32,
  line: usize,
  low: usize,
  high: usize,
): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y++) {
    padded(plain + y * stride, width, line, reach, reach + lane);
    for (let x = 0; x < width; x += lane) {
      const at = line + (x + reach) * bytes;
      let lowest = v128.load(at);
      let highest = lowest;
      for (let by = 1; by <= reach; by++) {
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
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x += lane) {
      const column = x * bytes;
      let lowest = v128.load(low + y * stride + column);
      let highest = v128.load(high + y * stride + column);
      for (let by = 1; by <= reach; by++) {
        const above = clampTo(height, y - by) * stride + column;
        const below = clampTo(height, y + by) * stride + column;
        lowest = f32x4.min(lowest, f32x4.min(v128.load(low + above), v128.load(low + below)));
        highest = f32x4.max(highest, f32x4.max(v128.load(high + above), v128.load(high + below)));
      }
      const allowed = f32x4.mul(times, f32x4.sub(highest, lowest));
      const at = plane + y * stride + column;
      const held = f32x4.max(f32x4.min(v128.load(at), f32x4.add(highest, allowed)), f32x4.sub(lowest, allowed));
      v128.store(at, held);
    }
  }
}

/** The colour differences (ITU-R BT.709, blue and red) of 8-bit pixels as they are encoded, round 128. */
export function colourDifferences(
  from: usize,
  channels: i32,
  width: i32,
  height: i32,
  toBlue: usize,
  toRed: usize,
): void {
  const stride = strideOf(width);
  for (let y = 0; y < height; y++) {
    let pixel = from + y * width * channels;
    const row = y * stride;
    for (let x = 0; x < width; x++) {
      const r = <f32>load<u8>(pixel);
      const b = <f32>load<u8>(pixel, 2);
      const light = <f32>0.2126 * r + <f32>0.7152 * load<u8>(pixel, 1) + <f32>0.0722 * b;
      store<f32>(toBlue + row + x * bytes, <f32>128 + (b - light) / <f32>1.8556);
      store<f32>(toRed + row + x * bytes, <f32>128 + (r - light) / <f32>1.5748);
      pixel += channels;
    }
  }
}

/** Every two by two values become their mean; a last odd row or column is left out, unless there is no other. */
export function halve(plane: usize, width: i32, height: i32, to: usize): void {
  const stride = strideOf(width);
  const halfWidth = max(1, width >> 1);
  const halfHeight = max(1, height >> 1);
  const right = width > 1 ? bytes : 0;
  const below = height > 1 ? stride : 0;
  for (let y = 0; y < halfHeight; y++) {
    const row = to + y * strideOf(halfWidth);
    for (let x = 0; x < halfWidth; x++) {
      const at = plane + y * 2 * stride + x * 2 * bytes;
      const sum = load<f32>(at) + load<f32>(at + right) + load<f32>(at + below) + load<f32>(at + below + right);
      store<f32>(row + x * bytes, sum * <f32>0.25);
    }
  }
}

/**
 * The two parts of structural similarity of two planes, at every pixel of some rows: how alike they are in light, and in
 * contrast and structure.
 *
 * @param half the right half of the weights of a pixel's surroundings, the middle first, `reach + 1` of them
 * @param first of the rows that are looked at, then every `step`th, `rows` of them
 * @param line room for five rows, each with `2 * reach + 8` pixels more
 */
export function likeness(
  a: usize,
  b: usize,
  width: i32,
  height: i32,
  half: usize,
  reach: i32,
  first: i32,
  step: i32,
  rows: i32,
  line: usize,
  toLight: usize,
  toStructure: usize,
): void {
  const stride = strideOf(width);
  const length = stride + (2 * reach + 2 * lane) * bytes;
  const start = line + reach * bytes;
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
      for (let by = -reach; by <= reach; by++) {
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
      const to = start + column;
      v128.store(to, sumA);
      v128.store(to + length, sumB);
      v128.store(to + 2 * length, sumAA);
      v128.store(to + 3 * length, sumBB);
      v128.store(to + 4 * length, sumAB);
    }
    for (let sum = 0; sum < 5; sum++) {
      const own = line + sum * length;
      const begin = load<f32>(own + reach * bytes);
      const end = load<f32>(own + (reach + width - 1) * bytes);
      for (let at = 0; at < reach; at++) store<f32>(own + at * bytes, begin);
      for (let at = 0; at < reach + lane; at++) store<f32>(own + (reach + width + at) * bytes, end);
    }
    for (let x = 0; x < width; x += lane) {
      let meanA = f32x4.splat(0);
      let meanB = meanA;
      let meanAA = meanA;
      let meanBB = meanA;
      let meanAB = meanA;
      for (let by = -reach; by <= reach; by++) {
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
      const to = index * stride + x * bytes;
      v128.store(
        toLight + to,
        f32x4.div(f32x4.add(f32x4.mul(two, product), c1), f32x4.add(f32x4.add(squareA, squareB), c1)),
      );
      v128.store(toStructure + to, f32x4.div(f32x4.add(f32x4.mul(two, together), c2), f32x4.add(spread, c2)));
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
 * @param toMoved one value for each block, row by row, 0 where it is not calm; so is `toCalm`, 1 where it is
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
      const to = (row * columns + column) * bytes;
      store<f32>(toMoved + to, isCalm ? moved / <f32>16 : <f32>0);
      store<f32>(toCalm + to, isCalm ? <f32>1 : <f32>0);
    }
  }
}
