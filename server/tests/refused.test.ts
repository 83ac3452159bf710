import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { OriginalSchema, originalLimits } from '@inkwell/core/model';
import sharp, { type Sharp } from 'sharp';
import { expect, test } from 'vitest';
import { blobs, originals } from '../store/schema/index.ts';
import { several } from '../testing/pictures/foreignFiles.ts';
import { chart, noise } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, services, settings, address } = await startProgram();

async function traces() {
  const files = await Promise.all(
    ['incoming', 'cache/working'].map((folder) => readdir(join(settings.INKWELL_DATA, folder))),
  );
  return [await services.db.select().from(originals), await services.db.select().from(blobs), ...files].map(
    (all) => all.length,
  );
}

async function expectRefused(data: Buffer, fileName: string, sentence: RegExp) {
  const before = await traces();
  const { status, body } = await client.upload(data, fileName);
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(500);
  expect(body).toMatchObject({ message: expect.stringMatching(sentence) });
  expect(await traces()).toEqual(before);
}

const cut = async (picture: Sharp, share: number) => {
  const whole = await picture.toBuffer();
  return whole.subarray(0, Math.floor(whole.length * share));
};

/** A PNG that says it is this large. */
async function claiming(width: number, height: number, depth = 8) {
  const png = Buffer.from(await chart(8, 8).png().toBuffer());
  png.writeUInt32BE(width, 16);
  png.writeUInt32BE(height, 20);
  png[24] = depth;
  png.writeUInt32BE(crc32(png.subarray(12, 29)), 29);
  return png;
}

function crc32(data: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of data) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit += 1) crc = (crc >>> 1) ^ (crc & 1 ? 0xedb88320 : 0);
  }
  return (crc ^ 0xffffffff) >>> 0;
}

test.each(['jpeg', 'png', 'webp', 'tiff', 'avif', 'gif'] as const)('a %s that is cut off', async (format) => {
  const picture = () => noise(220, 160).toFormat(format);
  for (const share of [0.55, 0.97])
    await expectRefused(await cut(picture(), share), `cut.${format}`, /cut off or damaged/);
});

test('what is no picture, whatever its name says', async () => {
  await expectRefused(Buffer.from('#!/bin/sh\necho kites\n'), 'kites.jpg', /not a picture, whatever its name says/);
  await expectRefused(Buffer.from('%PDF-1.7 kites'), 'kites.png', /not a picture/);
  await expectRefused(Buffer.alloc(0), 'empty.png', /empty/);
  await expectRefused(
    Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic\0\0\0\0mif1heic')]),
    'phone.heic',
    /HEIC file is cut off or damaged/,
  );
});

test('a moving picture that ends after some of its frames, and a JPEG without most of its pixels', async () => {
  for (const format of ['gif', 'webp'] as const) {
    const moving = await several(format, noise(120, 90), noise(120, 90).negate(), noise(120, 90).blur(3));
    for (const share of [0.5, 0.9])
      await expectRefused(
        moving.subarray(0, Math.floor(moving.length * share)),
        `half.${format}`,
        /cut off or damaged/,
      );
  }
  const bomb = Buffer.from(await chart(64, 64).jpeg().toBuffer());
  const start = bomb.indexOf(Buffer.from([0xff, 0xc0]));
  bomb.writeUInt16BE(20_000, start + 5);
  bomb.writeUInt16BE(20_000, start + 7);
  await expectRefused(bomb, 'claims.jpg', /cut off or damaged/);
});

test('a GIF whose canvas its pictures hardly touch, and drawings too large or too small to be drawn', async () => {
  const dot = Buffer.from(await chart(1, 1).gif().toBuffer());
  dot.writeUInt16LE(65_535, 6);
  dot.writeUInt16LE(65_535, 8);
  await expectRefused(dot, 'canvas.gif', /65535 × 65535 px large.*only 1 × 1 px/);
  const sized = (side: string) =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}"><rect width="9" height="9"/></svg>`,
    );
  await expectRefused(sized('1e9'), 'vast.svg', /megapixels|cannot be used/);
  await expectRefused(sized('0.0001'), 'tiny.svg', /cannot be used|damaged/);
});

test('a picture of one pixel by many is taken, and can be looked at', async () => {
  const { status, body } = await client.upload(await noise(1, 200_000).png().toBuffer(), 'thread.png');
  expect(status).toBe(201);
  const { id } = OriginalSchema.parse(body);
  const seen = await client.bytes(`/originals/${id}/preview?width=320`);
  expect(await sharp(seen).metadata()).toMatchObject({ width: 1, height: 12_000 });
});

test('what a file says of itself is cleaned, and nobody is asked about it', async () => {
  const said = await chart(90, 60)
    .withExif({ IFD0: { Artist: 'Mara@Kites', Copyright: 'Dune @Works' } })
    .jpeg()
    .toBuffer();
  const dirty = Buffer.from(said.toString('latin1').replaceAll('@', '\0'), 'latin1');
  const { status, body } = await client.upload(dirty, 'from a phone.jpg');
  expect(status).toBe(201);
  const { words, fileName } = OriginalSchema.parse(body);
  expect(JSON.stringify({ words, fileName })).not.toContain('\\u0000');
  expect(words.credit).toContain('Mara');
});

test('an animation whose frames cannot be told apart', async () => {
  const sequence = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypavis\0\0\0\0avisavif')]);
  await expectRefused(sequence, 'moving.avif', /AVIF is animated/);
});

test('more pixels than are taken, found from the header alone', async () => {
  await expectRefused(await claiming(30_000, 20_000), 'vast.png', /600 megapixels.*at most 400/);
});

test('more memory than opening may take, found from the header alone', async () => {
  const jpeg = Buffer.from(await chart(64, 64).jpeg({ progressive: true, chromaSubsampling: '4:4:4' }).toBuffer());
  const start = jpeg.indexOf(Buffer.from([0xff, 0xc2]));
  jpeg.writeUInt16BE(19_000, start + 5);
  jpeg.writeUInt16BE(19_000, start + 7);
  await expectRefused(jpeg, 'progressive.jpg', /memory at once.*baseline JPEG/);
});

test('a file over the weight limit, as soon as it passes it', async () => {
  const boundary = 'kites';
  let sent = 0;
  async function* heavy() {
    yield Buffer.from(
      `--${boundary}\r\nContent-Disposition: form-data; name="file"; filename="heavy.jpg"\r\nContent-Type: image/jpeg\r\n\r\n`,
    );
    const piece = Buffer.alloc(1 << 20, 0xff);
    for (; sent < originalLimits.bytes + 3e6; sent += piece.length) yield piece;
    yield Buffer.from(`\r\n--${boundary}--\r\n`);
  }
  const before = await traces();
  const response = await fetch(`${address}/api/v1/originals`, {
    method: 'POST',
    headers: { 'Content-Type': `multipart/form-data; boundary=${boundary}` },
    body: Readable.toWeb(Readable.from(heavy())),
    // Node's own option for a body that is a stream.
    ...{ duplex: 'half' },
  });
  expect(response.status).toBe(413);
  expect(await response.json()).toMatchObject({ message: expect.stringContaining('more than 300 MB') });
  expect(await traces()).toEqual(before);
});

const svg = (inside: string) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="90" height="60">${inside}</svg>`,
  );

test.each([
  ['a picture elsewhere', '<image href="http://kites.example/a.png" width="9" height="9"/>'],
  ['a file beside it', '<image xlink:href="../../secret.png" width="9" height="9"/>'],
  ['a drawing inside a drawing', '<image href="data:image/svg+xml;base64,PHN2Zy8+"/>'],
  ['a style sheet', '<style>@import "kites.css";</style>'],
  ['a font', '<style>@font-face{src:u\\72l(//kites.example/f.woff)}</style>'],
  ['a filter elsewhere', '<rect width="9" height="9" filter="url(other.svg#f)"/>'],
  ['a script', '<script>1</script>'],
  ['a handler', '<rect onclick="1"/>'],
  ['a page inside it', '<foreignObject/>'],
])('an SVG that reaches for %s', async (_, inside) => {
  await expectRefused(svg(inside), 'reaching.svg', /reaches for something outside itself/);
});

test('an SVG with entities, and one that is cut off', async () => {
  const entity =
    '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/hostname">]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>';
  await expectRefused(Buffer.from(entity), 'entity.svg', /outside itself/);
  await expectRefused(svg('<g>').subarray(0, 130), 'cut.svg', /damaged or cut off/);
});

test('an SVG that points to its own parts is taken', async () => {
  const own = svg(
    '<defs><linearGradient id="g"><stop stop-color="#fff"/></linearGradient></defs><rect width="90" height="60" fill="url(#g)"/><use href="#g"/>',
  );
  expect((await client.upload(own, 'own.svg')).status).toBe(201);
});
