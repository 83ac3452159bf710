import type { Origin, Words } from '@inkwell/core/model';
import { OriginSchema, WordsSchema } from '@inkwell/core/model';
import exifr from 'exifr';
import sharp from 'sharp';
import { z } from 'zod';
import { storable } from '../../../database/storable.ts';

/** XMP keeps a text in several languages, in an order, or as it is; of all of them the first counts. */
const TextSchema: z.ZodType<string> = z.lazy(() =>
  z.union([
    z.string(),
    z.number().transform(String),
    z.array(TextSchema).transform((texts) => texts[0] ?? ''),
    z.object({ value: TextSchema }).transform(({ value }) => value),
  ]),
);
const text = TextSchema.catch('').transform((value) => storable(value).trim());

/** What is read of a file's EXIF, IPTC and XMP; everything else in them is left alone. */
const ReadSchema = z.object({
  Artist: text,
  creator: text,
  Byline: text,
  Copyright: text,
  rights: text,
  CopyrightNotice: text,
  AltTextAccessibility: text,
  ImageDescription: text,
  Caption: text,
  description: text,
  Make: text,
  Model: text,
  BodySerialNumber: text,
  SerialNumber: text,
  LensSerialNumber: text,
  latitude: z.number().nullable().catch(null),
  longitude: z.number().nullable().catch(null),
});

export interface ReadMetadata {
  words: Words;
  origin: Origin;
}

export const noMetadata: ReadMetadata = {
  words: { credit: '', copyright: '', altText: '' },
  origin: { position: null, device: null },
};

/** What the reader of tags is given: the file, or of a WebP, which it does not know, the EXIF that lies in it. */
async function withTags(path: string): Promise<string | Buffer> {
  const { format, exif } = await sharp(path, { limitInputPixels: false })
    .metadata()
    .catch(() => nothing);
  if (format !== 'webp' || !exif) return path;
  // EXIF is a TIFF, in some files after a word of its own.
  return exif.subarray(exif.toString('latin1', 0, 4) === 'Exif' ? 6 : 0);
}
const nothing = { format: undefined, exif: undefined };

/**
 * The words that go with a picture, and where and with what it was taken, as its file says. Metadata that cannot be read
 * is taken for none: a picture is not refused for it.
 */
export async function readMetadata(path: string): Promise<ReadMetadata> {
  const options = { tiff: true, exif: true, gps: true, xmp: true, iptc: true, mergeOutput: true };
  const raw: unknown = await exifr.parse(await withTags(path), options).catch(() => null);
  if (typeof raw !== 'object' || raw === null) return noMetadata;
  const read = ReadSchema.parse(
    Object.fromEntries(Object.keys(ReadSchema.shape).map((key) => [key, Reflect.get(raw, key)])),
  );
  const firstOf = (most: number, ...texts: string[]) =>
    (texts.find((one) => one !== '') ?? '').slice(0, most).replace(/[\uD800-\uDBFF]$/, '');
  const device = {
    make: read.Make,
    model: read.Model,
    serial: firstOf(100, read.BodySerialNumber, read.SerialNumber),
    lensSerial: read.LensSerialNumber,
  };
  const words = WordsSchema.safeParse({
    credit: firstOf(300, read.creator, read.Artist, read.Byline),
    copyright: firstOf(300, read.rights, read.Copyright, read.CopyrightNotice),
    altText: firstOf(2000, read.AltTextAccessibility, read.description, read.ImageDescription, read.Caption),
  });
  const origin = OriginSchema.safeParse({
    position:
      read.latitude === null || read.longitude === null ? null : { latitude: read.latitude, longitude: read.longitude },
    device: Object.values(device).some((one) => one !== '') ? device : null,
  });
  return {
    words: words.success ? words.data : noMetadata.words,
    origin: origin.success ? origin.data : noMetadata.origin,
  };
}
