import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import encodeJxl, { init as startJxl } from '@jsquash/jxl/encode.js';
import sharp, { type Sharp } from 'sharp';
import UPNG from 'upng-js';

const run = promisify(execFile);
const raw = (picture: Sharp, alpha: boolean) =>
  (alpha ? picture.ensureAlpha() : picture.removeAlpha()).raw().toBuffer({ resolveWithObject: true });

/** Pictures in one HEIC file, as a phone writes it: by Debian's libheif-examples. Profiles of the PNGs are kept. */
export async function heic(...pictures: Buffer[]): Promise<Buffer> {
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
    await run('heif-enc', ['-q', '95', '-p', 'chroma=444', '-o', to, ...files]);
    return await readFile(to);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

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

export async function jxl(picture: Sharp): Promise<Buffer> {
  await jxlStarted;
  const { data, info } = await raw(picture, true);
  const pixels = { data: new Uint8ClampedArray(data), width: info.width, height: info.height, colorSpace: 'srgb' };
  return Buffer.from(await encodeJxl(pixels as never, { quality: 95 }));
}

/** Pictures of the same dimensions as an animated PNG. */
export async function animatedPng(...pictures: Sharp[]): Promise<Buffer> {
  const frames = await Promise.all(pictures.map((picture) => raw(picture, true)));
  const { width, height } = frames[0]?.info ?? { width: 1, height: 1 };
  const pixels = frames.map(({ data }) => new Uint8Array(data).buffer as ArrayBuffer);
  return Buffer.from(UPNG.encode(pixels, width, height, 0, [100, 100]));
}

/** Pictures as the pages of a TIFF or the frames of a GIF or WebP. */
export async function several(format: 'tiff' | 'gif' | 'webp', ...pictures: Sharp[]): Promise<Buffer> {
  const frames = await Promise.all(pictures.map((picture) => picture.png().toBuffer()));
  const joined = sharp(frames, { join: { animated: true } });
  return format === 'webp' ? joined.webp({ quality: 95 }).toBuffer() : joined.toFormat(format).toBuffer();
}
