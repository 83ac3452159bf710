import { createHash } from 'node:crypto';
import { request } from 'node:http';
import { OriginalSchema } from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { chart, difference } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, address } = await startProgram();
const drawing = Buffer.from(
  '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" fill="#c00"/></svg>',
);

test.each([
  ['jpeg', chart(301, 203).jpeg()],
  ['png', chart(301, 203).png()],
  ['webp', chart(301, 203).webp()],
  ['tiff', chart(301, 203).tiff()],
  ['avif', chart(301, 203).avif()],
  ['gif', chart(301, 203).gif()],
])('a %s comes in with its dimensions and goes out bit for bit', async (format, picture) => {
  const bytes = await picture.toBuffer();
  const original = await client.original(bytes, `A picture.${format}`);
  expect(original).toMatchObject({ name: 'A picture', format, width: 301, height: 203, bytes: bytes.length });
  const back = await client.bytes(`/originals/${original.id}/file`);
  expect(createHash('sha256').update(back).digest('hex')).toBe(original.sha256);
  expect(back.equals(bytes)).toBe(true);
});

test('the same file sent many times at once comes in as often as it was sent', async () => {
  const bytes = await chart(222, 111).png().toBuffer();
  const sent = Array.from({ length: 8 }, (_, index) => client.original(bytes, `Same ${index}.png`));
  const kept = await Promise.all(sent);
  expect(new Set(kept.map((original) => original.id)).size).toBe(8);
  expect(new Set(kept.map((original) => original.sha256)).size).toBe(1);
  const [first] = kept;
  expect(await sharp(await client.bytes(`/originals/${first?.id}/preview?width=60`)).metadata()).toMatchObject({
    width: 60,
    height: 30,
  });
});

test('an SVG is drawn large, with transparency, at its own proportions', async () => {
  const original = await client.original(drawing, 'drawing.svg');
  expect(original).toMatchObject({ format: 'svg', width: 4000, hasAlpha: true });
  expect(original.height).toBeCloseTo(2667, -1);
});

test.each([1, 2, 3, 4, 5, 6, 7, 8])(
  'a picture with orientation tag %i stands upright in everything made from it',
  async (orientation) => {
    const upright = chart(603, 401);
    // Of the eight ways in which a camera can store it, the one that this tag puts right.
    const forms = [false, true].flatMap((flop) => [0, 90, 180, 270].map((degrees) => ({ flop, degrees })));
    const meant = await upright.clone().resize(120).png().toBuffer();
    for (const { flop, degrees } of forms) {
      const stored = await sharp(await upright.clone().flop(flop).png().toBuffer())
        .rotate(degrees)
        .withMetadata({ orientation })
        .jpeg({ quality: 95 })
        .toBuffer();
      const seen = await sharp(await sharp(stored).autoOrient().png().toBuffer())
        .resize(120)
        .png()
        .toBuffer();
      if ((await difference(seen, meant)) > 3) continue;
      const original = await client.original(stored, 'phone.jpg');
      expect(original).toMatchObject({ width: 603, height: 401 });
      expect(await difference(await client.bytes(`/originals/${original.id}/preview?width=120`), meant)).toBeLessThan(
        3,
      );
      return;
    }
    throw new Error('No stored form stands upright under this tag.');
  },
);

test('a wide-gamut profile is applied: colours come out as they were meant', async () => {
  const meant = await sharp({ create: { width: 64, height: 64, channels: 3, background: '#b0643c' } })
    .png()
    .toBuffer();
  const tagged = await sharp(meant).withIccProfile('p3').png().toBuffer();
  expect(await difference(await sharp(tagged, { ignoreIcc: true }).png().toBuffer(), meant)).toBeGreaterThan(4);
  const original = await client.original(tagged, 'p3.png');
  expect(await difference(await client.bytes(`/originals/${original.id}/preview?width=64`), meant)).toBeLessThan(2.5);
});

test('originals are renamed, duplicated over the same bytes, deleted and taken back', async () => {
  const original = await client.original(await chart(40, 30).png().toBuffer(), 'one.png');
  expect((await client.ask('PATCH', `/originals/${original.id}`, { name: '  ' })).body).toMatchObject({
    message: expect.stringContaining('at least one character'),
  });
  expect((await client.ask('PATCH', `/originals/${original.id}`, { name: 'Renamed' })).body).toMatchObject({
    name: 'Renamed',
  });
  const copy = OriginalSchema.parse((await client.ask('POST', `/originals/${original.id}/duplicate`)).body);
  expect(copy).toMatchObject({ name: 'Renamed copy', sha256: original.sha256 });
  const listed = async () =>
    OriginalSchema.array()
      .parse((await client.ask('GET', '/originals')).body)
      .map((one) => one.id);
  expect((await client.ask('DELETE', `/originals/${original.id}`)).status).toBe(204);
  expect(await listed()).not.toContain(original.id);
  expect((await client.ask('POST', `/originals/${original.id}/restore`)).status).toBe(204);
  expect(await listed()).toEqual(expect.arrayContaining([original.id, copy.id]));
});

test.each([
  ['a foreign host', { host: 'kites.example' }],
  ['a page of another site', { origin: 'http://kites.example' }],
])('%s gets nothing', async (_, headers) => {
  const status = await new Promise<number | undefined>((resolve, reject) => {
    request(`${address}/api/v1/projects`, { headers }, (response) => {
      response.resume();
      resolve(response.statusCode);
    })
      .on('error', reject)
      .end();
  });
  expect(status).toBe(403);
});
