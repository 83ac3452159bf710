import type { Rect } from '../geometry/index.ts';
import type { Dimensions } from '../model/index.ts';

/** The longer side of the picture in the first look, in pixels: a detector is trained on subjects of that size. */
const far = 512;
/** In the second look small subjects are so many times as large, */
const leastCloser = 1.5;
/** and so large that its shorter side has as many pixels, but no more than this many times, which a panorama would need. */
const mostCloser = 4;
/** The detector halves a picture five times. */
const cell = 32;

/** A size in which a detector looks at a whole picture. */
export interface LookSize {
  /** With a margin, so that the detector can halve it without remainder. */
  padded: Dimensions;
  /** Where the picture lies in it, in its middle. */
  picture: Rect;
}

/**
 * The sizes in which a detector looks at a picture: from afar, where large subjects are seen whole, and closer, where small ones are
 * large enough.
 *
 * @param share of the detector's usual size: 1, or 0.5 for one that sees half as many pixels
 */
export function lookSizes({ width, height }: Dimensions, share = 1): LookSize[] {
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  const closer = Math.min(mostCloser, Math.max(leastCloser, long / short));
  const sizeAt = (side: number) => {
    const sized = (length: number) => Math.max(1, Math.round((length * side * share) / long));
    return { width: sized(width), height: sized(height) };
  };
  const close = sizeAt(far * closer);
  return [
    // What takes in all of a square is surer of large subjects with the square that it was trained on.
    inMiddle(sizeAt(far), { width: far * share, height: far * share }),
    inMiddle(close, { width: wholeCells(close.width), height: wholeCells(close.height) }),
  ];
}

const wholeCells = (length: number) => Math.ceil(length / cell) * cell;

const inMiddle = (picture: Dimensions, padded: Dimensions): LookSize => ({
  padded,
  picture: {
    left: Math.floor((padded.width - picture.width) / 2),
    top: Math.floor((padded.height - picture.height) / 2),
    ...picture,
  },
});
