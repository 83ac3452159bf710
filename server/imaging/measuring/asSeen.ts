import type { Dimensions } from '@inkwell/core/model';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';

/** A picture as it is seen on a page: on white where nothing of it is. */
export const opaque = (pixels: Pixels): Promise<Pixels> =>
  toPixels(fromPixels(pixels).flatten({ background: 'white' }).toColourspace('srgb'));

/** A picture scaled well to dimensions. */
export async function scaledTo(pixels: Pixels, { width, height }: Dimensions): Promise<Pixels> {
  if (pixels.width === width && pixels.height === height) return pixels;
  return toPixels(fromPixels(pixels).resize(width, height, { fit: 'fill', kernel: 'lanczos3' }));
}
