// How planes lie in memory. All numbers are 32-bit floats, row by row; pointers are byte offsets into the module's memory,
// laid out by its caller. Every row of a plane begins at a multiple of four pixels: what lies between its end and the next
// is never looked at.

export const lane: i32 = 4;
export const bytes: i32 = 4;
/** Of a 64-bit float. */
export const wide: i32 = 8;

export function clampTo(length: i32, at: i32): i32 {
  return max(0, min(length - 1, at));
}

/** Bytes from one row of a plane to the next. */
export function strideOf(width: i32): i32 {
  return ((width + lane - 1) & ~(lane - 1)) * bytes;
}

/** Copies a row into a line with its outermost pixels repeated before and after it. */
export function padded(row: usize, width: i32, line: usize, before: i32, after: i32): void {
  memory.copy(line + before * bytes, row, width * bytes);
  const first = load<f32>(row);
  const last = load<f32>(row + (width - 1) * bytes);
  for (let at = 0; at < before; at++) store<f32>(line + at * bytes, first);
  for (let at = 0; at < after; at++) store<f32>(line + (before + width + at) * bytes, last);
}
