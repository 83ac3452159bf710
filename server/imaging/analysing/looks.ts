import type { Rect } from '@inkwell/core/geometry';
import { type LookSize, lookSizes } from '@inkwell/core/proposing';
import sharp from 'sharp';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';

/** A picture as the detectors see it, the same for each of them but for its size. */
export interface Look {
  objects: LookPicture;
  faces: LookPicture;
}

export interface LookPicture {
  /** Red, green and blue; black beside the picture. */
  pixels: Pixels;
  /** Where in these pixels the picture lies. */
  part: Rect;
}

/** The detector of faces sees half as many pixels each way. */
const facesShare = 0.5;

/** A picture in all sizes in which detectors look at it. @param picture red, green and blue */
export async function looksAt(picture: Pixels): Promise<Look[]> {
  const [objects, faces] = [lookSizes(picture), lookSizes(picture, facesShare)];
  return Promise.all(
    objects.map(async (size, at) => ({
      objects: await looked(picture, size),
      faces: await looked(picture, faces[at] as LookSize),
    })),
  );
}

async function looked(picture: Pixels, { picture: part, padded }: LookSize): Promise<LookPicture> {
  const { left, top, width, height } = part;
  const pixels = fromPixels(picture)
    .resize(width, height, { fit: 'fill', kernel: sharp.kernel.linear })
    .extend({
      left,
      top,
      right: padded.width - left - width,
      bottom: padded.height - top - height,
      background: '#000',
    });
  return { pixels: await toPixels(pixels), part };
}
