import { clamp, type Point, type Rect } from '../../geometry/index.ts';
import type { Dimensions } from '../../model/index.ts';
import type { Part } from './part.ts';
import type { Margins } from './sourceMapping.ts';

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

/** How an image library takes the pixels of a part: cut from a level, pad, resample, cut again. All in whole pixels. */
export interface WholeSteps {
  /** Inside the level. */
  cut: Rect;
  /** Pixels of copied edge round it, before it is resampled. */
  pad: Margins;
  resampleTo: Dimensions;
  /** What of that is the part. */
  trim: Rect;
}

/** How the pixels of a part are computed where whole steps would miss: cut from a level, resample at any fraction. */
export interface ExactSteps {
  cut: Rect;
  /** Where the part begins, in pixels of the cut; it may lie outside, where the outermost pixels go on. */
  from: Point;
  /** Pixels of the level to one of the output, each way. */
  ratio: Point;
}

/** One of the two: an image library's whole steps where they meet the geometry, exact ones where they do not. */
export type Sampling = { level: number } & ({ whole: WholeSteps; exact: null } | { whole: null; exact: ExactSteps });

/**
 * The resampling kernel gets at least this many level pixels per output pixel. Levels are halved with a Lanczos kernel;
 * from 4/3 on, what comes out differs from a resampling of the original by less than a level of 255 (root of the mean
 * square, on photographs and drawings) and has the same energy at its edges within 3 %.
 */
const reserve = 4 / 3;

/** How far a pixel may lie from where geometry says, in output pixels: half of what is allowed in all. */
const tolerance = 0.05;
/** Level pixels round a part among which a cut is looked for. */
const lookedAround = 64;
/** Level pixels round a part that a kernel looks at when it enlarges. */
const kernelAround = 4;

/**
 * Chooses the level and the steps for a part. A library resamples whole pixels to whole pixels, and lays the middle of what it
 * reads on the middle of what it writes. Among cuts a little larger than the part there usually is one for which both the
 * part's beginning and its scale come out right; where there is none (when the picture is enlarged, or two level pixels make one
 * output pixel and the part begins between them), the part is resampled exactly.
 *
 * @param levelCount how many levels the working copy has, at least 1
 */
export function sampling({ original, source, within, output }: Part, levelCount: number): Sampling {
  const scale = Math.min(source.width / output.width, source.height / output.height);
  const level = clamp(Math.floor(Math.log2(Math.max(1, scale / reserve))), 0, levelCount - 1);
  const bounds = levelDimensions(original, level);
  // Where a side cannot be halved evenly a level's pixel is slightly more than 2^level pixels long.
  const [wide, high] = [bounds.width / original.width, bounds.height / original.height];
  const across: Side = {
    start: source.left * wide,
    length: source.width * wide,
    output: output.width,
    ...wholePixels(within.left * wide, within.width * wide, bounds.width),
  };
  const down: Side = {
    start: source.top * high,
    length: source.height * high,
    output: output.height,
    ...wholePixels(within.top * high, within.height * high, bounds.height),
  };
  const [x, y] = [wholeSteps(across), wholeSteps(down)];
  if (x && y) {
    const whole = {
      cut: { left: x.cut, top: y.cut, width: x.length, height: y.length },
      pad: { left: x.before, top: y.before, right: x.after, bottom: y.after },
      resampleTo: { width: x.to, height: y.to },
      trim: { left: x.skip, top: y.skip, ...output },
    };
    return { level, whole, exact: null };
  }
  const [columns, rows] = [around(across), around(down)];
  const exact = {
    cut: { left: columns.start, top: rows.start, width: columns.length, height: rows.length },
    from: { x: across.start - columns.start, y: down.start - rows.start },
    ratio: { x: across.length / output.width, y: down.length / output.height },
  };
  return { level, whole: null, exact };
}

/** One side of a part on a level: fractions of level pixels, and whole output pixels. */
interface Side {
  start: number;
  length: number;
  output: number;
  /** The level pixels that have a say: from one up to, not including, another. */
  low: number;
  high: number;
}

const wholePixels = (start: number, length: number, bound: number): Pick<Side, 'low' | 'high'> => {
  const low = clamp(Math.round(start), 0, bound - 1);
  return { low, high: clamp(Math.round(start + length), low + 1, bound) };
};

interface SideSteps {
  cut: number;
  length: number;
  before: number;
  after: number;
  to: number;
  skip: number;
}

/** Whole steps that meet a side within the tolerance; null where there are none, and where it is enlarged. */
function wholeSteps(side: Side): SideSteps | null {
  if (side.length < side.output * (1 - 1e-9)) return null;
  let best: SideSteps | null = null;
  let [bestMiss, bestPad] = [tolerance, Number.POSITIVE_INFINITY];
  for (let more = 0; more <= lookedAround; more += 1) {
    for (let further = 0; further <= lookedAround; further += 1) {
      const found = stepsFor(
        side,
        Math.floor(side.start + grain) - more,
        Math.ceil(side.start + side.length - grain) + further,
      );
      if (found.miss > tolerance) continue;
      const pad = found.steps.before + found.steps.after;
      // Padding costs a step more; nothing is better than a cut that needs none.
      if (pad < bestPad || (pad === bestPad && found.miss < bestMiss)) {
        best = found.steps;
        [bestMiss, bestPad] = [found.miss, pad];
      }
    }
    if (best && bestPad === 0 && bestMiss < tolerance / 2) break;
  }
  return best;
}

/** Arithmetic noise, in level pixels. */
const grain = 1e-6;

/** What comes of resampling the level pixels from `from` up to, not including, `to`; the miss is in output pixels. */
function stepsFor({ start, length, output, low, high }: Side, from: number, to: number) {
  const ratio = length / output;
  const resampled = Math.max(1, Math.round((to - from) / ratio));
  const step = (to - from) / resampled;
  const skip = Math.round((start - from) / step);
  const first = from + skip * step - start;
  const last = from + (skip + output) * step - (start + length);
  const [cut, end] = [clamp(from, low, high - 1), clamp(to, low + 1, high)];
  const steps = { cut, length: end - cut, before: cut - from, after: to - end, to: resampled, skip };
  return { steps, miss: Math.max(Math.abs(first), Math.abs(last)) / ratio };
}

/** The whole pixels of a level that have a say in a side. */
function around({ start, length, output, low, high }: Side) {
  const more = kernelAround * Math.max(1, length / output);
  const from = clamp(Math.floor(start - more), low, high - 1);
  return { start: from, length: clamp(Math.ceil(start + length + more), from + 1, high) - from };
}
