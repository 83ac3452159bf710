import type { Original } from '@inkwell/core/model';
import { damaged } from '../looking/damaged.ts';
import { convertForeign, type ForeignFormat } from './foreignDecoders.ts';

/** Whether libvips leaves a format to other decoders here: HEIC for the sake of its patents, the others for rarity. */
export const isForeign = (
  format: Original['format'],
): format is Exclude<ForeignFormat, 'animated png' | 'float tiff'> =>
  format === 'heic' || format === 'bmp' || format === 'jxl';

/**
 * Decodes a picture that libvips does not read and writes it to `to` as a PNG, with its colour profile.
 *
 * @returns how many pictures the file holds
 * @throws UserError where the file is cut off or damaged
 */
export async function convert(path: string, format: ForeignFormat, page: number, to: string): Promise<number> {
  try {
    return await convertForeign(path, format, page, to);
  } catch (error) {
    throw damaged(format, error);
  }
}
