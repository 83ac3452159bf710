import { readFile } from 'node:fs/promises';
import { buffer } from 'node:stream/consumers';
import type { Download } from '@playwright/test';
import sharp, { type Sharp } from 'sharp';
import yauzl from 'yauzl';

/** All files of a downloaded archive by name. */
export async function filesOf(download: Download): Promise<Map<string, Buffer>> {
  const zip = await yauzl.fromBufferPromise(await readFile(await download.path()));
  const files = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry())
    files.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
  return files;
}

/** A picture of odd dimensions whose colours tell where one is, with fine texture. */
export function chart(width: number, height: number): Sharp {
  const data = Buffer.alloc(width * height * 3);
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 3) {
      data[at] = (255 * x) / width;
      data[at + 1] = (255 * y) / height;
      data[at + 2] = 128 + 90 * Math.sin(x / 19) * Math.cos(y / 13);
    }
  }
  return sharp(data, { raw: { width, height, channels: 3 } });
}

/** Mean absolute difference in levels of 255. */
export async function difference(a: Buffer, b: Buffer): Promise<number> {
  const [left, right] = [await sharp(a).removeAlpha().raw().toBuffer(), await sharp(b).removeAlpha().raw().toBuffer()];
  if (left.length !== right.length) return Number.POSITIVE_INFINITY;
  return left.reduce((sum, value, at) => sum + Math.abs(value - (right[at] ?? 0)), 0) / left.length;
}
