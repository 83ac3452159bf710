import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import decodeJxl, { init as startJxl } from '@jsquash/jxl/decode.js';
import { decode as decodeBmp } from 'bmp-ts';
import decodeHeic from 'heic-decode';
import sharp from 'sharp';
import UPNG from 'upng-js';
import { heicProfile } from './heicProfile.ts';
import { writeProfiledPng } from './profiledPng.ts';

export type ForeignFormat = 'heic' | 'bmp' | 'jxl' | 'animated png';

export interface ForeignTask {
  path: string;
  format: ForeignFormat;
  /** From 0. */
  page: number;
  /** Where the PNG goes. */
  to: string;
}
export interface ForeignResult {
  /** How many pictures the file holds. */
  pages: number;
}

/** Uncompressed pixels of one page, always with alpha, and the profile that they are meant in. */
interface Decoded {
  data: Uint8Array;
  width: number;
  height: number;
  pages: number;
  profile: Buffer | null;
}

/** Runs in a thread of its own: these decoders are WebAssembly or plain arithmetic, and a phone's picture takes seconds. */
export default async function foreignTask({ path, format, page, to }: ForeignTask): Promise<ForeignResult> {
  const { data, width, height, pages, profile } = await decoders[format](await readFile(path), page);
  const picture = sharp(data, { raw: { width, height, channels: 4 }, limitInputPixels: false });
  // What is opaque throughout is no transparent picture.
  const { isOpaque } = await picture.stats();
  const png = (isOpaque ? picture.removeAlpha() : picture).png({ compressionLevel: 1 });
  if (profile) await writeProfiledPng(await png.toBuffer(), profile, to);
  else await png.toFile(to);
  return { pages };
}

const decoders: Record<ForeignFormat, (file: Buffer, page: number) => Promise<Decoded>> = {
  async heic(file, page) {
    const images = (await decodeHeic.all({ buffer: file })) as HeicImages;
    try {
      const image = images[page];
      if (!image) throw new RangeError(`There is no picture ${page + 1} among ${images.length}.`);
      const { data, width, height } = await image.decode();
      return { data: octets(data), width, height, pages: images.length, profile: heicProfile(file) };
    } finally {
      images.dispose();
    }
  },
  async bmp(file) {
    // The library gives alpha, blue, green and red unless told otherwise.
    const { data, width, height } = decodeBmp(file, { toRGBA: true });
    // Most programs write 32 bits a pixel with an alpha of 0 throughout and mean an opaque picture.
    if (data.every((value, at) => at % 4 !== 3 || value === 0))
      for (let at = 3; at < data.length; at += 4) data[at] = 255;
    return { data, width, height, pages: 1, profile: null };
  },
  async jxl(file) {
    await jxlStarted;
    // The decoder converts to sRGB itself.
    const { data, width, height } = await decodeJxl(new Uint8Array(file).buffer);
    return { data: octets(data), width, height, pages: 1, profile: null };
  },
  async 'animated png'(file, page) {
    const image = UPNG.decode(new Uint8Array(file).buffer);
    const frames = UPNG.toRGBA8(image);
    const frame = frames[page];
    if (!frame) throw new RangeError(`There is no frame ${page + 1} among ${frames.length}.`);
    return {
      data: new Uint8Array(frame),
      width: image.width,
      height: image.height,
      pages: frames.length,
      profile: null,
    };
  },
};

/** The library's types leave this out. */
type HeicImages = Awaited<ReturnType<typeof decodeHeic.all>> & { dispose(): void };

const octets = ({ buffer, byteOffset, byteLength }: Uint8ClampedArray | Uint8Array) =>
  new Uint8Array(buffer as ArrayBuffer, byteOffset, byteLength);

/** The decoder's code lies beside it in its package; by itself it would ask a web server for it. */
const jxlStarted = readFile(createRequire(import.meta.url).resolve('@jsquash/jxl/codec/dec/jxl_dec.wasm')).then(
  (wasmBinary) => startJxl({ wasmBinary: new Uint8Array(wasmBinary).buffer }),
);
