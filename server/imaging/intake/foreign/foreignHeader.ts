import { open } from 'node:fs/promises';
import type { Dimensions } from '@inkwell/core/model';
import { imageSize } from 'image-size';
import type { ForeignFormat } from './foreignDecoders.ts';

/** The headers that say how large a picture is lie within the first part of a file. */
const headBytes = 1_000_000;

/**
 * What a file's header says of its dimensions, so that a vast one is refused before it is decoded; of several pictures
 * the largest. Null where it does not say.
 */
export async function foreignDimensions(
  path: string,
  format: Exclude<ForeignFormat, 'float tiff'>,
): Promise<Dimensions | null> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(headBytes), 0, headBytes, 0);
    return readers[format](buffer.subarray(0, bytesRead));
  } catch (error) {
    // Reading past the end of a file that is cut off.
    if (error instanceof RangeError) return null;
    throw error;
  } finally {
    await file.close();
  }
}

const readers: Record<Exclude<ForeignFormat, 'float tiff'>, (head: Buffer) => Dimensions | null> = {
  bmp: known,
  jxl: known,
  // All frames are laid out to have one of them, and are counted as one tall picture.
  'animated png': (head) => {
    const control = head.indexOf('acTL');
    const frames = control < 0 ? 1 : head.readUInt32BE(control + 4);
    return sides(head.readUInt32BE(16), head.readUInt32BE(20) * Math.max(1, frames));
  },
  // The package takes a clean aperture for what is cut off.
  heic: largestExtent,
};

/** As a package reads it, which throws a plain error where a header is cut off or makes no sense. */
function known(head: Buffer): Dimensions | null {
  try {
    const { width, height } = imageSize(head);
    return sides(width, height);
  } catch {
    return null;
  }
}

const sides = (width: number, height: number): Dimensions | null =>
  width > 0 && height > 0 ? { width, height } : null;

/** The largest of the image spatial extents (ISO/IEC 23008-12, ispe): the whole picture, its tiles being smaller. */
function largestExtent(head: Buffer): Dimensions | null {
  let largest: Dimensions | null = null;
  for (let at = head.indexOf('ispe'); at >= 0; at = head.indexOf('ispe', at + 4)) {
    if (at + 16 > head.length) break;
    const found = sides(head.readUInt32BE(at + 8), head.readUInt32BE(at + 12));
    if (found && found.width * found.height > (largest ? largest.width * largest.height : 0)) largest = found;
  }
  return largest;
}
