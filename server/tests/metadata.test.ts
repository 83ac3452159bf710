import { type ImageFormat, keepNothing, type MetadataPolicy } from '@inkwell/core/model';
import exifr from 'exifr';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { chart } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';
import { unzip } from '../testing/unzip.ts';

const { client } = await startProgram();

/** A picture as a camera and a careful photographer leave it. */
const photo = () =>
  chart(1500, 1000)
    .withExif({
      IFD0: { Artist: 'Wren Tolley', Copyright: '2026 Saltmarsh Kites', Make: 'Marram', Model: 'Dune 4' },
      IFD2: { BodySerialNumber: 'MD4-0099', LensSerialNumber: 'L-77' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '53/1 30/1 36/1', GPSLongitudeRef: 'W', GPSLongitude: '2/1 15/1 0/1' },
    })
    .jpeg({ quality: 95 })
    .toBuffer();

/** EXIF is a TIFF, in some formats after a word of its own. */
const tiffIn = (exif: Buffer) => exif.subarray(exif.toString('latin1', 0, 4) === 'Exif' ? 6 : 0);

test('words, place and camera are read, and go into files only as far as a person asks for it', async () => {
  const original = await client.original(await photo(), 'tagged.jpg');
  expect(original).toMatchObject({
    words: { credit: 'Wren Tolley', copyright: '2026 Saltmarsh Kites', altText: '' },
    origin: { device: { make: 'Marram', model: 'Dune 4', serial: 'MD4-0099', lensSerial: 'L-77' } },
  });
  expect(original.origin.position?.latitude).toBeCloseTo(53.51, 3);
  expect(original.origin.position?.longitude).toBeCloseTo(-2.25, 3);
  const words = { ...original.words, altText: 'A box kite, “Number 7”, over the dunes & the sea' };
  expect(
    await client.ask('PATCH', `/originals/${original.id}/settings`, { version: 1, change: { words } }),
  ).toMatchObject({
    status: 200,
  });
  const project = await client.project('Tagged', [original], ['quillpost/preview-card', 'quillpost/header']);
  const formats: Record<string, ImageFormat> = { 'quillpost/preview-card': 'jpeg', 'quillpost/header': 'webp' };
  for (const frame of project.frames) {
    const change = { format: formats[frame.placeId] };
    await client.ask('PATCH', `/frames/${frame.id}`, { version: frame.version, change });
  }

  let version = 1;
  const delivered = async (keeping: Partial<MetadataPolicy>) => {
    const change = { keeping: { ...keepNothing, ...keeping } };
    const saved = await client.ask('PATCH', `/projects/${project.id}/settings`, { version, change });
    expect(saved.status).toBe(200);
    version += 1;
    const measured = await client.measured(project.id);
    const { id } = await client.deliver(project.id);
    const archive = await unzip(await client.bytes(`/deliveries/${id}/archive`));
    const files = [...archive].filter(([name]) => /\.(jpg|webp)$/.test(name)).map(([, data]) => data);
    expect(files).toHaveLength(2);
    const read = await Promise.all(
      files.map(async (data) => {
        const { exif, xmp, icc } = await sharp(data).metadata();
        const tags = exif ? ((await exifr.parse(tiffIn(exif), { gps: true, exif: true })) ?? {}) : {};
        return { tags, xmp: xmp?.toString('utf8') ?? '', hasProfile: icc !== undefined };
      }),
    );
    return { read, files, cost: measured.map(({ weight }) => weight?.metadataBytes ?? 0) };
  };

  const bare = await delivered({});
  expect(bare.cost).toEqual([0, 0]);
  expect(bare.read).toEqual([
    { tags: {}, xmp: '', hasProfile: false },
    { tags: {}, xmp: '', hasProfile: false },
  ]);

  const credited = await delivered({ words: true, profile: true });
  for (const [index, { tags, xmp, hasProfile }] of credited.read.entries()) {
    expect(tags).toMatchObject({ Artist: 'Wren Tolley', Copyright: '2026 Saltmarsh Kites' });
    expect(Object.keys(tags).filter((tag) => /GPS|latitude|Serial|Make|Model/.test(tag))).toEqual([]);
    expect(xmp).toContain('Iptc4xmpCore:AltTextAccessibility');
    expect(xmp).toContain('“Number 7”, over the dunes &#38; the sea');
    expect(hasProfile).toBe(true);
    // The pixels are the same, so that what is more of the file is what was measured for it.
    const more = (credited.files[index]?.length ?? 0) - (bare.files[index]?.length ?? 0);
    expect(credited.cost).toContain(more);
  }

  const { read } = await delivered({ position: true, device: true });
  for (const { tags, xmp } of read) {
    expect(xmp).toBe('');
    expect(tags).toMatchObject({ Make: 'Marram', SerialNumber: 'MD4-0099' });
    expect(tags.latitude).toBeCloseTo(53.51, 3);
    expect(tags.longitude).toBeCloseTo(-2.25, 3);
  }
});
