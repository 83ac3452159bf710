import type { Rect } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import { tilesOf } from '@inkwell/core/proposing';
import sharp from 'sharp';
import { fromPixels, type Pixels } from '../stages/pixels.ts';
import { faceSide, objectSide } from './detectors.ts';

/** A square look at a picture, or at a part of it. */
export interface Look {
  /** The square, in pixels of the picture; that of the whole picture reaches past its shorter side. */
  square: Rect;
  isWhole: boolean;
  objects: Buffer;
  faces: Buffer;
}

const squareOf = ({ width, height }: Dimensions): Rect => {
  const side = Math.max(width, height);
  return { left: (width - side) / 2, top: (height - side) / 2, width: side, height: side };
};

/** The squares in which detectors look at a picture. @param picture red, green and blue */
export async function looksAt(picture: Pixels): Promise<Look[]> {
  const whole = { square: squareOf(picture), isWhole: true };
  const tiles = tilesOf(picture).map((square) => ({ square, isWhole: false }));
  return Promise.all(
    [whole, ...tiles].map(async (look) => ({
      ...look,
      objects: await squarePixels(picture, look, objectSide),
      faces: await squarePixels(picture, look, faceSide),
    })),
  );
}

function squarePixels(picture: Pixels, { square, isWhole }: Pick<Look, 'square' | 'isWhole'>, side: number) {
  const part = isWhole ? fromPixels(picture) : fromPixels(picture).extract(square);
  return part
    .resize(side, side, { fit: isWhole ? 'contain' : 'fill', background: '#000', kernel: sharp.kernel.linear })
    .raw()
    .toBuffer();
}
