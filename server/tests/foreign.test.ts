import { mkdtemp, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { describe, expect, inject, test } from 'vitest';
import { paletteColours } from '../imaging/encoding/encoders.ts';
import { foreignDimensions } from '../imaging/intake/foreign/foreignHeader.ts';
import { heicProfile } from '../imaging/intake/foreign/heicProfile.ts';
import { writeProfiledPng } from '../imaging/intake/foreign/profiledPng.ts';
import { animatedPng, bmp, heic, jxl } from '../testing/pictures/foreignFiles.ts';
import { chart } from '../testing/pictures/pictures.ts';

const folder = await mkdtemp(join(inject('dataFolder'), 'foreign-'));
async function file(name: string, data: Buffer): Promise<string> {
  const path = join(folder, name);
  await writeFile(path, data);
  return path;
}

describe('dimensions from the header alone', () => {
  test('are those of the picture, whatever its sides', async () => {
    for (const [width, height] of [
      [64, 64],
      [301, 203],
      [1600, 900],
      [37, 4001],
    ] as const) {
      const size = { width, height };
      expect(await foreignDimensions(await file('a.bmp', await bmp(chart(width, height))), 'bmp')).toEqual(size);
      expect(await foreignDimensions(await file('a.jxl', await jxl(chart(width, height))), 'jxl')).toEqual(size);
    }
    const png = await chart(301, 203).png().toBuffer();
    const found = await foreignDimensions(await file('a.heic', await heic(png)), 'heic');
    // An encoder may round the sides of what it stores up to whole blocks.
    expect(found?.width).toBeGreaterThanOrEqual(301);
    expect(found?.width).toBeLessThan(301 + 64);
  });

  test('of an animation are those of all its frames, one above the other', async () => {
    const moving = await animatedPng(chart(40, 30), chart(40, 30).negate(), chart(40, 30));
    expect(await foreignDimensions(await file('a.png', moving), 'animated png')).toEqual({ width: 40, height: 90 });
  });

  test('are not known of files that end too early', async () => {
    const cut = (data: Buffer, length: number) => data.subarray(0, length);
    expect(await foreignDimensions(await file('b.bmp', cut(await bmp(chart(9, 9)), 20)), 'bmp')).toBeNull();
    expect(await foreignDimensions(await file('b.jxl', cut(await jxl(chart(9, 9)), 3)), 'jxl')).toBeNull();
    expect(await foreignDimensions(await file('b.heic', Buffer.from('ftypheic')), 'heic')).toBeNull();
  });
});

test('a profile goes into a PNG and changes how it is meant, not its pixels', async () => {
  const { icc } = await sharp(await chart(60, 40).withIccProfile('p3').png().toBuffer()).metadata();
  if (!icc) throw new Error('no profile');
  const plain = await chart(60, 40).png().toBuffer();
  const path = join(folder, 'profiled.png');
  await writeProfiledPng(plain, icc, path);
  const written = await sharp(path).metadata();
  expect(written.icc?.equals(icc)).toBe(true);
  const pixels = await sharp(path).keepIccProfile().raw().toBuffer();
  expect(pixels.length).toBe(60 * 40 * 3);
  // Read as it is meant, red that is full in Display P3 lies outside of sRGB.
  const [, meant] = [plain, await sharp(path).toColourspace('srgb').raw().toBuffer()];
  expect(meant.equals(await sharp(plain).raw().toBuffer())).toBe(false);
});

test('a HEIC’s profile is found in its boxes, and a file without one has none', async () => {
  const profiled = await heic(await chart(60, 40).withIccProfile('p3').png().toBuffer());
  expect(heicProfile(profiled)?.toString('latin1', 36, 40)).toBe('acsp');
  expect(heicProfile(await heic(await chart(60, 40).png().toBuffer()))).toBeNull();
  expect(heicProfile(deflateSync(Buffer.alloc(3000, 7)))).toBeNull();
});

test('the colours of a palette are counted in the file', async () => {
  const four = sharp({ create: { width: 40, height: 40, channels: 3, background: '#c02020' } }).composite(
    ['#2040c0', '#208040', '#f0d060'].map((background, index) => ({
      input: { create: { width: 9, height: 9, channels: 3, background } },
      left: 10 * index,
      top: 5,
    })),
  );
  expect(paletteColours(await four.clone().png({ palette: true }).toBuffer())).toBe(4);
  expect(paletteColours(await four.clone().png().toBuffer())).toBeNull();
  expect(paletteColours(await four.clone().jpeg().toBuffer())).toBeNull();
});
