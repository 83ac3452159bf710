import { OriginalSchema } from '@inkwell/core/model';
import sharp, { type Sharp } from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { animatedPng, bmp, heic, jxl, several } from '../testing/pictures/foreignFiles.ts';
import { chart, difference } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client } = await startProgram();

const [width, height] = [412, 278];
/** Colours that print can show as well. */
const muted = () => chart(width, height).linear(0.4, 90);
const grey = () => chart(width, height).greyscale();
const png = (picture: Sharp) => picture.png().toBuffer();

/** What came in, as the bench shows it. */
async function shown(id: string): Promise<Buffer> {
  return sharp(await client.bytes(`/originals/${id}/preview?width=${width}`))
    .png()
    .toBuffer();
}

// Name, format, file, what it shows, and by how many levels it may differ in the mean: print has other colours than screens.
test.each<[string, string, () => Promise<Buffer>, () => Sharp, number]>([
  ['a HEIC as phones write it', 'heic', async () => heic(await png(muted())), muted, 2],
  [
    'a HEIC in Display P3',
    'heic',
    async () => heic(await chart(width, height).withIccProfile('p3').png().toBuffer()),
    () => chart(width, height),
    2.5,
  ],
  ['a BMP', 'bmp', () => bmp(chart(width, height)), () => chart(width, height), 2],
  ['a JPEG XL', 'jxl', () => jxl(chart(width, height)), () => chart(width, height), 2.5],
  ['16 bits a channel', 'png', () => muted().toColourspace('rgb16').png().toBuffer(), muted, 2],
  [
    'a TIFF of 16 bits with a profile',
    'tiff',
    () => muted().toColourspace('rgb16').withIccProfile('p3').tiff().toBuffer(),
    muted,
    2,
  ],
  [
    'a CMYK TIFF with its profile',
    'tiff',
    () => muted().toColourspace('cmyk').withIccProfile('cmyk').tiff().toBuffer(),
    muted,
    7,
  ],
  [
    'a CMYK JPEG with its profile',
    'jpeg',
    () => muted().toColourspace('cmyk').withIccProfile('cmyk').jpeg({ quality: 98 }).toBuffer(),
    muted,
    7,
  ],
  [
    'a Display P3 JPEG',
    'jpeg',
    () => chart(width, height).withIccProfile('p3').jpeg({ quality: 98 }).toBuffer(),
    () => chart(width, height),
    2.5,
  ],
  ['a grey PNG', 'png', () => grey().toColourspace('b-w').png().toBuffer(), grey, 2],
  ['a grey PNG of 16 bits', 'png', () => grey().toColourspace('grey16').png().toBuffer(), grey, 2],
])('%s comes in with its colours', async (_, format, file, meant, most) => {
  const original = await client.original(await file(), `picture.${format}`);
  expect(original).toMatchObject({ format, width, height, hasAlpha: false, pages: 1 });
  expect(await difference(await shown(original.id), await png(meant().toColourspace('srgb')))).toBeLessThan(most);
});

test('a panorama of 30,000 pixels comes in whole', async () => {
  const original = await client.original(await chart(30_000, 160).jpeg().toBuffer(), 'all round.jpg');
  expect(original).toMatchObject({ width: 30_000, height: 160 });
});

const red = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#c02020' } });
const blue = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#2040c0' } });
const green = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#208040' } });

test.each<[string, string, () => Promise<Buffer>]>([
  ['a TIFF of three pages', 'tiff', () => several('tiff', red(), blue(), green())],
  ['an animated GIF', 'gif', () => several('gif', red(), blue(), green())],
  ['an animated WebP', 'webp', () => several('webp', red(), blue(), green())],
  ['an animated PNG', 'png', () => animatedPng(red(), blue(), green())],
  ['a HEIC of three pictures', 'heic', async () => heic(await png(red()), await png(blue()), await png(green()))],
])('of %s the first is taken, and any other can be', async (_, format, file) => {
  const first = await client.original(await file(), `many.${format}`);
  expect(first).toMatchObject({ format, page: 0, pages: 3, width: 60, height: 40 });
  const seen = async (path: string) => {
    const { dominant } = await sharp(await client.bytes(path)).stats();
    return (['r', 'b', 'g'] as const).reduce((most, channel) => (dominant[channel] > dominant[most] ? channel : most));
  };
  const pages = await Promise.all([0, 1, 2].map((page) => seen(`/originals/${first.id}/pages/${page}/preview`)));
  expect(pages).toEqual(['r', 'b', 'g']);
  const { body, status } = await client.ask('POST', `/originals/${first.id}/pages`, { pages: [1, 2] });
  expect(status).toBe(201);
  const taken = z.array(OriginalSchema).parse(body);
  expect(taken.map(({ page, sha256 }) => [page, sha256])).toEqual([
    [1, first.sha256],
    [2, first.sha256],
  ]);
  expect(await Promise.all([first, ...taken].map(({ id }) => seen(`/originals/${id}/preview?width=60`)))).toEqual([
    'r',
    'b',
    'g',
  ]);
  expect(await client.ask('POST', `/originals/${first.id}/pages`, { pages: [3] })).toMatchObject({
    status: 404,
    body: { message: expect.stringContaining('has 3 pages or frames') },
  });
});

test('an alpha channel that is opaque throughout is no transparency; one clear pixel is', async () => {
  const opaque = await client.original(await png(chart(300, 200).ensureAlpha()), 'opaque.png');
  expect(opaque.hasAlpha).toBe(false);
  const pixels = await chart(2400, 1600).ensureAlpha().raw().toBuffer();
  pixels[(900 * 2400 + 1700) * 4 + 3] = 0;
  const one = await sharp(pixels, { raw: { width: 2400, height: 1600, channels: 4 } })
    .png()
    .toBuffer();
  expect((await client.original(one, 'holed.png')).hasAlpha).toBe(true);
});
