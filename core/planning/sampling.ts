import { clamp, type Rect } from '../geometry/index.ts';
import type { Dimensions } from '../model/index.ts';
import type { Part } from './part.ts';

/** A level is not halved any further once its longer side is below this. */
const smallestLevel = 512;

/** How many levels a working copy has: the stored pixels, halved until the longer side is below 512. */
export function levelCount(stored: Dimensions): number {
  const longer = Math.max(stored.width, stored.height);
  return 1 + Math.max(0, Math.floor(Math.log2(longer / smallestLevel)) + 1);
}

/**
 * A working copy keeps the original at full resolution (level 0) and halved again and again; level k shows the whole
 * picture in floor(width / 2^k) x floor(height / 2^k) pixels.
 */
export function levelDimensions(original: Dimensions, level: number): Dimensions {
  const share = 2 ** level;
  return {
    width: Math.max(1, Math.floor(original.width / share)),
    height: Math.max(1, Math.floor(original.height / share)),
  };
}

/** How the pixels of a part are taken from a working copy: cut from a level, resample, cut again where `trim` is set. */
export interface Sampling {
  level: number;
  cut: Rect;
  resampleTo: Dimensions;
  trim: Rect | null;
}

/**
 * The resampling kernel gets at least this many level pixels per output pixel. Levels are halved with a Lanczos kernel;
 * from 4/3 on, what comes out differs from a resampling of the original by less than a level of 255 (root of the mean
 * square, on photographs and drawings) and has the same energy at its edges within 3 %.
 */
const reserve = 4 / 3;

/**
 * Chooses the level and whole-pixel cuts for a part. When the picture is reduced, edges fall within half an output
 * pixel of where the window asks (three eighths, where a halved level is used): the cut is rounded on the level, then
 * resampled. When it is enlarged, whole pixels around the window are resampled first and the cut is made in output
 * pixels, which keeps the same bound.
 *
 * @param levelCount how many levels the working copy has, at least 1
 */
export function sampling({ original, source, output }: Part, levelCount: number): Sampling {
  const scale = Math.min(source.width / output.width, source.height / output.height);
  const level = clamp(Math.floor(Math.log2(Math.max(1, scale / reserve))), 0, levelCount - 1);
  const bounds = levelDimensions(original, level);

  if (scale >= 1) {
    // Where a side cannot be halved evenly a level's pixel is slightly more than 2^level pixels long.
    const [x, y] = [bounds.width / original.width, bounds.height / original.height];
    const across = spanOf(source.left * x, source.width * x, bounds.width, Math.round, Math.round);
    const down = spanOf(source.top * y, source.height * y, bounds.height, Math.round, Math.round);
    const cut = { left: across.start, top: down.start, width: across.length, height: down.length };
    return { level, cut, resampleTo: output, trim: null };
  }
  const across = spanOf(source.left, source.width, bounds.width, Math.floor, Math.ceil);
  const down = spanOf(source.top, source.height, bounds.height, Math.floor, Math.ceil);
  const growth = { x: output.width / source.width, y: output.height / source.height };
  const resampleTo = {
    width: Math.max(output.width, Math.round(across.length * growth.x)),
    height: Math.max(output.height, Math.round(down.length * growth.y)),
  };
  return {
    level,
    cut: { left: across.start, top: down.start, width: across.length, height: down.length },
    resampleTo,
    trim: {
      left: clamp(Math.round((source.left - across.start) * growth.x), 0, resampleTo.width - output.width),
      top: clamp(Math.round((source.top - down.start) * growth.y), 0, resampleTo.height - output.height),
      width: output.width,
      height: output.height,
    },
  };
}

type Rounding = (value: number) => number;

/** Whole pixels from `start` (rounded by `first`) to `start + length` (rounded by `last`), at least one, inside 0..bound. */
function spanOf(start: number, length: number, bound: number, first: Rounding, last: Rounding) {
  const from = clamp(first(start), 0, bound - 1);
  const to = clamp(last(start + length), from + 1, bound);
  return { start: from, length: to - from };
}
