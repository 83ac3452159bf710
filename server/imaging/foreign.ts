import type { Original } from '@inkwell/core/model';
import { damaged } from './damaged.ts';
import type { ForeignFormat, ForeignResult, ForeignTask } from './foreignTask.ts';
import { inThread } from './threads.ts';

const task = new URL('./foreignTask.ts', import.meta.url);

/** Whether libvips leaves a format to other decoders here: HEIC for the sake of its patents, the others for rarity. */
export const isForeign = (format: Original['format']): format is Exclude<ForeignFormat, 'animated png'> =>
  format === 'heic' || format === 'bmp' || format === 'jxl';

/**
 * Decodes a picture that libvips does not read and writes it to `to` as a PNG, with its colour profile.
 *
 * @throws Refusal where the file is cut off or damaged
 */
export async function convert(path: string, format: ForeignFormat, page: number, to: string): Promise<ForeignResult> {
  try {
    return await inThread<ForeignTask, ForeignResult>(task, { path, format, page, to });
  } catch (error) {
    throw damaged(format, error);
  }
}
