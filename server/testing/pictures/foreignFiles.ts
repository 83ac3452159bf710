import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { crc32 } from 'node:zlib';
import encodeJxl, { init as startJxl } from '@jsquash/jxl/encode.js';
import sharp, { type Sharp } from 'sharp';

const run = promisify(execFile);
const raw = (picture: Sharp, alpha: boolean) =>
  (alpha ? picture.ensureAlpha() : picture.removeAlpha()).raw().toBuffer({ resolveWithObject: true });

/** Encodes PNGs, whose profiles are kept, by Debian's libheif-examples. */
async function heifEnc(options: readonly string[], pictures: readonly Buffer[]): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-heic-'));
  try {
    const files = await Promise.all(
      pictures.map(async (png, index) => {
        const file = join(folder, `${index}.png`);
        await writeFile(file, png);
        return file;
      }),
    );
    const to = join(folder, 'picture.heic');
    await run('heif-enc', ['-p', 'chroma=444', ...options, '-o', to, ...files]);
    return await readFile(to);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Pictures in one HEIC file, as a phone writes it. */
export const heic = (...pictures: Buffer[]): Promise<Buffer> => heifEnc(['-q', '95'], pictures);

/** A picture with 10 bits a channel. @param png of 16 bits */
export const tenBits = (format: 'heic' | 'avif', png: Buffer): Promise<Buffer> =>
  format === 'heic'
    ? heifEnc(['-q', '98', '-b', '10'], [png])
    : sharp(png, { ignoreIcc: true })
        .toColourspace('rgb16')
        .keepIccProfile()
        .avif({ bitdepth: 10, quality: 98, chromaSubsampling: '4:4:4' })
        .toBuffer();

/** A Windows bitmap of 24 bits a pixel, bottom row first, as most programs write it. */
export async function bmp(picture: Sharp): Promise<Buffer> {
  const { data, info } = await raw(picture, false);
  const row = Math.ceil((info.width * 3) / 4) * 4;
  const file = Buffer.alloc(54 + row * info.height);
  file.write('BM', 0, 'latin1');
  file.writeUInt32LE(file.length, 2);
  file.writeUInt32LE(54, 10);
  file.writeUInt32LE(40, 14);
  file.writeInt32LE(info.width, 18);
  file.writeInt32LE(info.height, 22);
  file.writeUInt16LE(1, 26);
  file.writeUInt16LE(24, 28);
  for (let y = 0; y < info.height; y += 1) {
    for (let x = 0; x < info.width; x += 1) {
      const from = ((info.height - 1 - y) * info.width + x) * 3;
      for (let channel = 0; channel < 3; channel += 1)
        file[54 + y * row + x * 3 + 2 - channel] = data[from + channel] as number;
    }
  }
  return file;
}

const jxlStarted = readFile(createRequire(import.meta.url).resolve('@jsquash/jxl/codec/enc/jxl_enc.wasm')).then(
  (wasmBinary) => startJxl({ wasmBinary: new Uint8Array(wasmBinary).buffer }),
);

/** @param quality 100 loses nothing */
export async function jxl(picture: Sharp, quality = 95): Promise<Buffer> {
  await jxlStarted;
  const { data, info } = await raw(picture, true);
  const pixels = { data: new Uint8ClampedArray(data), width: info.width, height: info.height, colorSpace: 'srgb' };
  return Buffer.from(await encodeJxl(pixels as never, { quality, lossless: quality === 100 }));
}

/** Pictures of the same dimensions as an animated PNG (PNG specification, third edition, 11.3.6). */
export async function animatedPng(...pictures: Sharp[]): Promise<Buffer> {
  const stills = await Promise.all(pictures.map((picture) => picture.ensureAlpha().png().toBuffer()));
  const [first = Buffer.alloc(0)] = stills;
  let sequence = 0;
  const next = () => {
    sequence += 1;
    return sequence - 1;
  };
  const frames = stills.flatMap((still, index) => {
    const [control, pixels] = [Buffer.alloc(26), chunksOf(still, 'IDAT')];
    control.writeUInt32BE(next(), 0);
    first.copy(control, 4, 16, 24);
    control.writeUInt16BE(1, 20);
    control.writeUInt16BE(10, 22);
    const data = pixels.map((part) => {
      if (index === 0) return chunk('IDAT', part);
      const number = Buffer.alloc(4);
      number.writeUInt32BE(next(), 0);
      return chunk('fdAT', Buffer.concat([number, part]));
    });
    return [chunk('fcTL', control), ...data];
  });
  const animation = Buffer.alloc(8);
  animation.writeUInt32BE(stills.length, 0);
  const header = first.subarray(0, 33);
  return Buffer.concat([header, chunk('acTL', animation), ...frames, chunk('IEND', Buffer.alloc(0))]);
}

function chunk(kind: string, data: Buffer): Buffer {
  const named = Buffer.concat([Buffer.from(kind, 'latin1'), data]);
  const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length, 0);
  check.writeUInt32BE(crc32(named), 0);
  return Buffer.concat([length, named, check]);
}

/** What the chunks of one kind hold. */
function chunksOf(png: Buffer, kind: string): Buffer[] {
  const found: Buffer[] = [];
  for (let at = 8; at + 8 <= png.length; at += 12 + png.readUInt32BE(at)) {
    if (png.toString('latin1', at + 4, at + 8) === kind)
      found.push(png.subarray(at + 8, at + 8 + png.readUInt32BE(at)));
  }
  return found;
}

/** Pictures as the pages of a TIFF or the frames of a GIF or WebP. */
export async function several(format: 'tiff' | 'gif' | 'webp', ...pictures: Sharp[]): Promise<Buffer> {
  const frames = await Promise.all(pictures.map((picture) => picture.png().toBuffer()));
  const joined = sharp(frames, { join: { animated: true } });
  return format === 'webp' ? joined.webp({ quality: 95 }).toBuffer() : joined.toFormat(format).toBuffer();
}
