import type { Original } from '@inkwell/core/model';
import { UserError } from '../../../userError.ts';

const takes = 'Inkwell Frame takes JPEG, PNG, WebP, TIFF, AVIF, HEIC, JPEG XL, BMP, GIF and SVG pictures.';

const startsWith = (head: Buffer, bytes: readonly number[], at = 0) =>
  bytes.every((byte, index) => head[at + index] === byte);
const ascii = (head: Buffer, from: number, to: number) => head.toString('latin1', from, to);

/** JPEG XL in a container begins with this box (ISO/IEC 18181-2). */
const jxlBox = [0, 0, 0, 0x0c, 0x4a, 0x58, 0x4c, 0x20, 0x0d, 0x0a, 0x87, 0x0a];

/** The brands of an ISO base media file, major one first; empty where it is none. */
function mediaBrands(head: Buffer): string[] {
  if (ascii(head, 4, 8) !== 'ftyp') return [];
  const end = Math.min(head.length, head.readUInt32BE(0));
  const brands = [ascii(head, 8, 12)];
  for (let at = 16; at + 4 <= end; at += 4) brands.push(ascii(head, at, at + 4));
  return brands;
}

/**
 * What a file is, by its first bytes and whatever its name says.
 *
 * @param head the first 4 KiB or the whole file, whichever is less
 * @throws UserError for what is not a picture of a kind that is taken
 */
export function sniff(head: Buffer): Original['format'] {
  if (head.length === 0) throw new UserError('The file is empty. Choose another, or save it again where it came from.');
  if (startsWith(head, [0xff, 0xd8, 0xff])) return 'jpeg';
  if (startsWith(head, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) return 'png';
  if (ascii(head, 0, 4) === 'GIF8') return 'gif';
  if (ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 12) === 'WEBP') return 'webp';
  if (['II*\0', 'MM\0*', 'II+\0', 'MM\0+'].includes(ascii(head, 0, 4))) return 'tiff';
  const brands = mediaBrands(head);
  if (brands[0] === 'avis') throw animated('AVIF');
  if (brands.includes('avif')) return 'avif';
  if (brands.some((brand) => ['heic', 'heix', 'hevc', 'mif1', 'msf1'].includes(brand))) {
    return 'heic';
  }
  if (startsWith(head, [0xff, 0x0a]) || startsWith(head, jxlBox)) return 'jxl';
  if (ascii(head, 0, 2) === 'BM' && head.length > 26) return 'bmp';
  const text = head
    .toString('utf8')
    .replace(/^\uFEFF/, '')
    .trimStart();
  if (text.startsWith('<') && /<svg[\s>]/i.test(text)) return 'svg';
  throw new UserError(`This is not a picture, whatever its name says. ${takes}`);
}

function animated(format: string): UserError {
  return new UserError(
    `This ${format} is animated, and its frames cannot be told apart here. Save the one frame you want as a still picture and choose that.`,
  );
}
