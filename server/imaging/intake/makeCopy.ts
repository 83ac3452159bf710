import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Dimensions } from '@inkwell/core/model';
import { levelCount, levelDimensions } from '@inkwell/core/planning';
import sharp from 'sharp';
import { diskFull, isDiskFull } from '../../diskFull.ts';
import { descriptionFile, levelFile, type WorkingCopy } from '../copies/workingCopy.ts';
import { colourManaged } from './colourManaged.ts';
import { damaged } from './looking/damaged.ts';
import { type Inspected, openable } from './looking/inspect.ts';

/** Pictures of more pixels than this are not read back whole from their own level 0. */
const mappedPixels = 100_000_000;

/** Warnings of a JPEG decoder that mean that pixels are missing; others, such as stray bytes, are harmless and common. */
const missingPixels = /premature end|bad huffman|inconsistent progression|restart marker/i;

/**
 * Decodes a picture whole, row by row, into the folder `to`. This is also what proves that a picture is complete. The
 * pixels stay in the order in which they are stored: turning hundreds of megapixels would take memory for all of
 * them, while turning what is rendered takes next to nothing.
 *
 * A level is halved from the one before with the kernel that rendering uses. Averaging two by two pixels would be
 * quicker and costs sharpness: a picture rendered from such a level shows a tenth less energy at its edges.
 *
 * @throws UserError where the picture ends too early or is damaged
 */
export async function makeWorkingCopy(inspected: Inspected, to: string): Promise<WorkingCopy> {
  await mkdir(to, { recursive: true });
  const { readable, converted, page, density, colours, format } = inspected;
  const open = async (failOn: 'warning' | 'error') =>
    colourManaged(
      await openable(readable, format),
      // What another decoder has written holds the one page.
      { limitInputPixels: false, failOn, page: converted ? 0 : page, ...(density ? { density } : {}) },
      colours,
    );
  const [first, failOn] = [join(to, levelFile(0)), format === 'jpeg' ? 'warning' : 'error'] as const;
  const stored: Dimensions = await (await open(failOn))
    .toFile(first)
    .catch(async (error: Error) => {
      if (failOn === 'error' || missingPixels.test(error.message)) throw error;
      return (await open('error')).toFile(first);
    })
    .catch(async (error: Error) => {
      throw (await isDiskFull(error, to)) ? diskFull() : damaged(format, error);
    });
  const levels = levelCount(stored);
  for (let level = 1; level < levels; level += 1) {
    const { width, height } = levelDimensions(stored, level);
    // What is read of a mapped file counts as the program's memory: a vast picture is rather decoded once more.
    const again = level === 1 && stored.width * stored.height > mappedPixels;
    const before = again ? await open('error') : sharp(join(to, levelFile(level - 1)), { limitInputPixels: false });
    await before
      .resize(width, height, { fit: 'fill', kernel: 'lanczos3', fastShrinkOnLoad: false })
      .toFile(join(to, levelFile(level)));
  }
  const description = { levels, orientation: inspected.orientation };
  await writeFile(join(to, descriptionFile), JSON.stringify(description));
  return { path: to, ...description };
}
