import type { Chroma, ImageFormat } from '@inkwell/core/model';
import type { EncodingPlan } from '@inkwell/core/planning';
import type { Sharp } from 'sharp';
import { fromPixels, type Pixels } from './pixels.ts';
import { withMetadata } from './writtenMetadata.ts';

/** All that decides about the bytes of a file beside its pixels and its quality. */
export interface EncoderSettings {
  format: ImageFormat;
  colours: EncodingPlan['colours'];
  /** Only of JPEG and AVIF; WebP always keeps colour half as fine. */
  chroma: Chroma;
  metadata: Pick<EncodingPlan, 'profile' | 'words' | 'origin'>;
}

/** The qualities of an encoder, and what a search over them has to know. */
export interface Ladder {
  /** Ascending, at least one. */
  qualities: readonly number[];
  /** How far it strays from "more quality, more bytes", as a share: measured on pictures of all kinds. */
  tolerance: number;
  /** The same in bytes, which counts where files are small. */
  slack: number;
  /** What one full encoding usually weighs of a sketch. */
  correction: number;
  /** Bytes of a quick encoding. */
  sketch(pixels: Pixels, quality: number): Promise<number>;
}

/** One way to turn pixels into bytes. */
export interface Encoder {
  /** With full effort and metadata: the finished file. The quality is null where there is no ladder. */
  encode(pixels: Pixels, quality: number | null): Promise<Buffer>;
  /** Null where there are no qualities: nothing is lost. */
  ladder: Ladder | null;
}

/** No file is encoded below this quality: nothing of the picture would be left. */
const lowestQuality = 5;
const upTo = (highest: number, step = 1) =>
  Array.from({ length: Math.floor((highest - lowestQuality) / step) + 1 }, (_, at) => lowestQuality + at * step);

/**
 * AVIF has 64 quantisers, and the qualities of 0 to 100 are spread over them (libheif, heif_encoder_aom): of those that
 * lead to the same one only the highest is worth trying.
 */
const avifQuantiser = (quality: number) => Math.floor(((100 - quality) * 63 + 50) / 100);
const avifQualities = upTo(100).filter((quality) => avifQuantiser(quality) !== avifQuantiser(quality + 1));
/** More effort takes five times as long for a hundredth to a tenth of the bytes. */
const avifEffort = 2;
const webpEffort = 5;
/** A palette's quality says how far colours may be off, so that simpler pictures get along with fewer. */
const paletteStep = 5;
/** More effort takes half as long again for a fiftieth of the bytes, and not always less. */
const paletteEffort = 5;

const size = async (picture: Sharp) => (await picture.toBuffer()).length;

/** The encoder for some settings; its qualities reach up to `highest`. */
export function encoderOf({ format, colours, chroma, metadata }: EncoderSettings, highest: number): Encoder {
  const file = (picture: Sharp) => withMetadata(picture, metadata).toBuffer();
  const chromaSubsampling = chroma;
  if (format === 'jpeg') {
    return {
      encode: (pixels, quality) =>
        file(fromPixels(pixels).jpeg({ quality: quality ?? highest, mozjpeg: true, chromaSubsampling })),
      ladder: {
        qualities: upTo(highest),
        tolerance: 0.002,
        slack: 8,
        correction: 0.83,
        // With the same quantisation table as the full encoding, or the two would not keep step over the qualities.
        sketch: (pixels, quality) =>
          size(fromPixels(pixels).jpeg({ quality, quantisationTable: 3, chromaSubsampling })),
      },
    };
  }
  if (format === 'webp') {
    return {
      encode: (pixels, quality) => file(fromPixels(pixels).webp({ quality: quality ?? highest, effort: webpEffort })),
      ladder: {
        qualities: upTo(highest),
        tolerance: 0.01,
        slack: 40,
        correction: 0.85,
        sketch: (pixels, quality) => size(fromPixels(pixels).webp({ quality, effort: 0 })),
      },
    };
  }
  if (format === 'avif') {
    return {
      encode: (pixels, quality) =>
        file(fromPixels(pixels).avif({ quality: quality ?? highest, effort: avifEffort, chromaSubsampling })),
      ladder: {
        qualities: avifQualities.filter((quality) => quality <= highest),
        tolerance: 0.005,
        slack: 48,
        correction: 0.92,
        sketch: (pixels, quality) => size(fromPixels(pixels).avif({ quality, effort: 0, chromaSubsampling })),
      },
    };
  }
  if (colours === 'full') {
    return {
      encode: (pixels) => file(fromPixels(pixels).png({ compressionLevel: 9, adaptiveFiltering: true })),
      ladder: null,
    };
  }
  const palette = { palette: true, dither: colours === 'palette' ? 0 : 1 };
  return {
    encode: (pixels, quality) =>
      file(
        fromPixels(pixels).png({ ...palette, quality: quality ?? highest, effort: paletteEffort, compressionLevel: 9 }),
      ),
    ladder: {
      qualities: upTo(highest, paletteStep),
      tolerance: 0.12,
      slack: 0,
      correction: 0.75,
      sketch: (pixels, quality) =>
        size(fromPixels(pixels).png({ ...palette, quality, effort: 1, compressionLevel: 1 })),
    },
  };
}

/** How many colours the palette of a PNG has; null where it has none, and of other files. */
export function paletteColours(data: Buffer): number | null {
  if (data.readUInt32BE(0) !== 0x89504e47) return null;
  for (let at = 8; at + 8 <= data.length; at += 12 + data.readUInt32BE(at)) {
    const kind = data.toString('latin1', at + 4, at + 8);
    if (kind === 'PLTE') return data.readUInt32BE(at) / 3;
    if (kind === 'IDAT') return null;
  }
  return null;
}
