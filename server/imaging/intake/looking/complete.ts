import { type FileHandle, open } from 'node:fs/promises';
import type { Original } from '@inkwell/core/model';
import { UserError } from '../../../userError.ts';
import { damaged } from './damaged.ts';

/**
 * Makes sure that a file whose decoder is content with a part of it goes on to its end, and holds as much as it says.
 *
 * @throws UserError where it does not
 */
export async function checkComplete(path: string, format: Original['format']): Promise<void> {
  if (format !== 'gif' && format !== 'webp') return;
  const file = await open(path);
  try {
    if (format === 'gif') await checkGif(file);
    else await checkWebp(file);
  } finally {
    await file.close();
  }
}

/** A RIFF file says its own length (RFC 9649, 2.4). */
async function checkWebp(file: FileHandle): Promise<void> {
  const header = await bytes(file, 4, 4);
  if (header.readUInt32LE(0) + 8 > (await file.stat()).size) throw damaged('webp', new Error('It ends too early.'));
}

const [extension, imageDescriptor, trailer] = [0x21, 0x2c, 0x3b];

/** Goes through the blocks of a GIF (GIF89a, 18 to 27), which has to end with its trailer. */
async function checkGif(file: FileHandle): Promise<void> {
  const screen = await bytes(file, 0, 13);
  const canvas = { width: screen.readUInt16LE(6), height: screen.readUInt16LE(8) };
  const covered = { width: 0, height: 0 };
  let at = 13 + tableBytes(screen.readUInt8(10));
  for (;;) {
    const kind = (await bytes(file, at, 1)).readUInt8(0);
    if (kind === trailer) break;
    if (kind === imageDescriptor) {
      const image = await bytes(file, at, 10);
      covered.width = Math.max(covered.width, image.readUInt16LE(1) + image.readUInt16LE(5));
      covered.height = Math.max(covered.height, image.readUInt16LE(3) + image.readUInt16LE(7));
      at = await afterBlocks(file, at + 10 + tableBytes(image.readUInt8(9)) + 1);
    } else if (kind === extension) at = await afterBlocks(file, at + 2);
    else throw damaged('gif', new Error(`There is no block ${kind}.`));
  }
  checkCanvas(canvas, covered);
}

/** A canvas is a little larger than its pictures at most; decoders disagree about what one means that is not. */
function checkCanvas(canvas: { width: number; height: number }, covered: { width: number; height: number }): void {
  const isFilled = canvas.width * canvas.height <= 16 * covered.width * covered.height;
  if (isFilled) return;
  throw new UserError(
    `This GIF says that it is ${canvas.width} × ${canvas.height} px large, and its pictures take only ` +
      `${covered.width} × ${covered.height} px of that. Save it again where it was made.`,
  );
}

/** Bytes of a colour table, by the flags that announce it. */
const tableBytes = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0);

/** Where data blocks that begin at `at` have ended: an empty one comes last. */
async function afterBlocks(file: FileHandle, at: number): Promise<number> {
  for (let next = at; ; ) {
    const length = (await bytes(file, next, 1)).readUInt8(0);
    next += 1 + length;
    if (length === 0) return next;
  }
}

async function bytes(file: FileHandle, at: number, length: number): Promise<Buffer> {
  const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, at);
  if (bytesRead < length) throw damaged('gif', new Error('It ends too early.'));
  return buffer;
}
