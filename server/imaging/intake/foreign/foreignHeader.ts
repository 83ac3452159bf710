import { open } from 'node:fs/promises';
import type { Dimensions } from '@inkwell/core/model';
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
  // Width and height follow the size of the header; a negative height means that the top row comes first.
  bmp: (head) => sides(head.readInt32LE(18), Math.abs(head.readInt32LE(22))),
  // All frames are laid out to have one of them, and are counted as one tall picture.
  'animated png': (head) => {
    const control = head.indexOf('acTL');
    const frames = control < 0 ? 1 : head.readUInt32BE(control + 4);
    return sides(head.readUInt32BE(16), head.readUInt32BE(20) * Math.max(1, frames));
  },
  heic: largestExtent,
  jxl: (head) => jxlDimensions(codestream(head)),
};

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

/** The codestream of a JPEG XL file: the file itself, or what lies in its first codestream box. */
function codestream(head: Buffer): Buffer {
  if (head.readUInt16BE(0) === 0xff0a) return head;
  const whole = head.indexOf('jxlc');
  if (whole >= 0) return head.subarray(whole + 4);
  const part = head.indexOf('jxlp');
  return part >= 0 ? head.subarray(part + 8) : Buffer.alloc(0);
}

/** Width over height, where a codestream gives only one of them (ISO/IEC 18181-1, SizeHeader). */
const ratios = [null, 1, 12 / 10, 4 / 3, 3 / 2, 16 / 9, 5 / 4, 2] as const;

function jxlDimensions(stream: Buffer): Dimensions | null {
  if (stream.length < 12 || stream.readUInt16BE(0) !== 0xff0a) return null;
  let bit = 16;
  // Bits come from the least significant end of each byte.
  const read = (count: number) => {
    let value = 0;
    for (let at = 0; at < count; at += 1, bit += 1) value += (((stream[bit >> 3] ?? 0) >> (bit & 7)) & 1) * 2 ** at;
    return value;
  };
  const small = read(1) === 1;
  const side = () => (small ? (read(5) + 1) * 8 : read([9, 13, 18, 30][read(2)] ?? 9) + 1);
  const height = side();
  const ratio = ratios[read(3)];
  return sides(ratio ? Math.floor(height * ratio) : side(), height);
}
