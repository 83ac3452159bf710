import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { encodedLight } from '@inkwell/core/finishing';
import decodeJxl, { init as startJxl } from '@jsquash/jxl/decode.js';
import { decode as decodeBmp } from 'bmp-ts';
import { type DecodedApng, decodeApng } from 'fast-png';
import decodeHeic from 'heic-decode';
import sharp from 'sharp';

import { heicProfile } from './heicProfile.ts';
import { writeProfiledPng } from './profiledPng.ts';

export type ForeignFormat = 'heic' | 'bmp' | 'jxl' | 'animated png' | 'float tiff';

/** Uncompressed pixels of one page, and the profile that they are meant in. */
interface Decoded {
  data: Uint8Array | Uint16Array;
  width: number;
  height: number;
  /** With alpha unless said otherwise. */
  channels?: 1 | 2 | 3 | 4;
  pages: number;
  profile: Buffer | null;
}

/** Decodes one page and writes it to `to` as a PNG. Returns how many pages the file has. */
export async function convertForeign(path: string, format: ForeignFormat, page: number, to: string): Promise<number> {
  const { data, width, height, channels = 4, pages, profile } = await decoders[format](path, page);
  const picture = sharp(data, { raw: { width, height, channels }, limitInputPixels: false });
  // What is opaque throughout is no transparent picture.
  const seen = channels === 4 && (await picture.stats()).isOpaque ? picture.removeAlpha() : picture;
  const png = (data instanceof Uint16Array ? seen.toColourspace(channels < 3 ? 'grey16' : 'rgb16') : seen).png({
    compressionLevel: 1,
  });
  if (profile) await writeProfiledPng(await png.toBuffer(), profile, to);
  else await png.toFile(to);
  return pages;
}

const decoders: Record<ForeignFormat, (path: string, page: number) => Promise<Decoded>> = {
  async heic(path, page) {
    const file = await readFile(path);
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
  async bmp(path) {
    // The library gives alpha, blue, green and red unless told otherwise.
    const { data, width, height } = decodeBmp(await readFile(path), { toRGBA: true });
    // Most programs write 32 bits a pixel with an alpha of 0 throughout and mean an opaque picture.
    if (data.every((value, at) => at % 4 !== 3 || value === 0))
      for (let at = 3; at < data.length; at += 4) data[at] = 255;
    return { data, width, height, pages: 1, profile: null };
  },
  async jxl(path) {
    await jxlStarted;
    const file = await readFile(path);
    // The decoder converts to sRGB itself.
    const { data, width, height } = await decodeJxl(new Uint8Array(file).buffer);
    return { data: octets(data), width, height, pages: 1, profile: null };
  },
  async 'animated png'(path, page) {
    const picture = decodeApng(await readFile(path), { checkCrc: true });
    const { width, height, frames, iccEmbeddedProfile } = picture;
    const frame = frames[page];
    if (!frame) throw new RangeError(`There is no frame ${page + 1} among ${frames.length}.`);
    const profile = iccEmbeddedProfile ? Buffer.from(iccEmbeddedProfile.profile) : null;
    return { data: withAlpha(picture, frame.data), width, height, pages: frames.length, profile };
  },
  // libvips reads floating point with a profile, and in grey, as something else than it is.
  async 'float tiff'(path, page) {
    const open = () => sharp(path, { limitInputPixels: false, ignoreIcc: true, page });
    const { icc, space, pages = 1 } = await open().metadata();
    const { data, info } = await open()
      .toColourspace(space === 'b-w' ? 'b-w' : 'scrgb')
      .raw({ depth: 'float' })
      .toBuffer({ resolveWithObject: true });
    const values = new Float32Array(data.buffer, data.byteOffset, data.length / Float32Array.BYTES_PER_ELEMENT);
    const channels = info.channels as 1 | 2 | 3 | 4;
    const isAlpha = (at: number) => channels % 2 === 0 && at % channels === channels - 1;
    const wholes = Uint16Array.from(values, (value, at) => {
      const within = Math.min(1, Math.max(0, value));
      // Without a profile, floating point is light: the samples of scRGB.
      return Math.round(65_535 * (icc || isAlpha(at) ? within : encodedLight(within)));
    });
    return { data: wholes, width: info.width, height: info.height, channels, pages, profile: icc ?? null };
  },
};

/** The pixels of a frame with 8 bits a channel, whatever it was stored with. */
function withAlpha(
  { width, height, channels, depth, palette, transparency }: DecodedApng,
  stored: DecodedApng['frames'][number]['data'],
): Uint8Array {
  const pixels = new Uint8Array(width * height * 4);
  const most = 2 ** depth - 1;
  for (let from = 0, to = 0; to < pixels.length; from += channels, to += 4) {
    const entry = palette?.[stored[from] as number];
    if (entry) {
      const [red = 0, green = 0, blue = 0, alpha = 255] = entry;
      pixels.set([red, green, blue, alpha], to);
      continue;
    }
    const value = (channel: number) => stored[from + channel] as number;
    const level = (channel: number) => Math.round((value(channel) * 255) / most);
    const colours = channels > 2 ? 3 : 1;
    // A colour that counts as nothing (tRNS of a PNG without alpha).
    const isClear = transparency?.every((clear, channel) => clear === value(channel));
    const alpha = channels % 2 === 0 ? level(channels - 1) : isClear ? 0 : 255;
    pixels.set([level(0), level(colours === 3 ? 1 : 0), level(colours === 3 ? 2 : 0), alpha], to);
  }
  return pixels;
}

/** The library's types leave this out. */
type HeicImages = Awaited<ReturnType<typeof decodeHeic.all>> & { dispose(): void };

const octets = ({ buffer, byteOffset, byteLength }: Uint8ClampedArray | Uint8Array) =>
  new Uint8Array(buffer as ArrayBuffer, byteOffset, byteLength);

/** The decoder's code lies beside it in its package; by itself it would ask a web server for it. */
const jxlStarted = readFile(createRequire(import.meta.url).resolve('@jsquash/jxl/codec/dec/jxl_dec.wasm')).then(
  (wasmBinary) => startJxl({ wasmBinary: new Uint8Array(wasmBinary).buffer }),
);
