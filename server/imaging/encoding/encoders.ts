import type { Chroma, ImageFormat } from '@inkwell/core/model';
import type { EncodingPlan } from '@inkwell/core/planning';
import type { Sharp } from 'sharp';
import { fromPixels, type Pixels } from '../stages/pixels.ts';
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
  /**
   * The same in bytes for each pixel of a square with as many pixels as the picture: what the blocks of a picture add by chance
   * grows as the root of their number.
   */
  slack: number;
  /** Rough bytes of the whole, by encoding a part of it quickly. */
  sketch(picture: Parted, quality: number): Promise<number>;
  /** About what a full encoding of the whole weighs, by its part; null where that says no more than a sketch. */
  estimate: ((picture: Parted, quality: number) => Promise<number>) | null;
}

/** A picture, and the rows of it that stand for all of them. */
export interface Parted {
  whole: Pixels;
  part: Pixels;
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

/** How one format is written at a quality, with full effort and quickly. */
interface Recipe extends Pick<Ladder, 'qualities' | 'tolerance' | 'slack'> {
  full: (picture: Sharp, quality: number) => Sharp;
  /** Null where nothing quicker comes out alike. */
  quick: ((picture: Sharp, quality: number) => Sharp) | null;
  /** About what a full encoding weighs of a quick one. */
  usual: number;
  /** Bytes that a full encoding has in tables more than a quick one, however large the picture is: measured as `tolerance` is. */
  tables: number;
}

/** Null where a format has no qualities. */
function recipeOf({ format, colours, chroma }: EncoderSettings, highest: number): Recipe | null {
  const chromaSubsampling = chroma;
  if (format === 'jpeg') {
    return {
      qualities: upTo(highest),
      tolerance: 0.002,
      slack: 0.1,
      full: (picture, quality) => picture.jpeg({ quality, mozjpeg: true, chromaSubsampling }),
      // With the same quantisation table as the full encoding, or the two would not keep step over the qualities.
      quick: (picture, quality) => picture.jpeg({ quality, quantisationTable: 3, chromaSubsampling }),
      usual: 0.8,
      tables: 170,
    };
  }
  if (format === 'webp') {
    return {
      qualities: upTo(highest),
      tolerance: 0.002,
      slack: 0.5,
      full: (picture, quality) => picture.webp({ quality, effort: webpEffort }),
      // Less effort is quicker still, and leads the search to the wrong qualities.
      quick: (picture, quality) => picture.webp({ quality, effort: 2 }),
      usual: 0.9,
      tables: 100,
    };
  }
  if (format === 'avif') {
    return {
      qualities: avifQualities.filter((quality) => quality <= highest),
      tolerance: 0.002,
      slack: 0.6,
      full: (picture, quality) => picture.avif({ quality, effort: avifEffort, chromaSubsampling }),
      quick: (picture, quality) => picture.avif({ quality, effort: 0, chromaSubsampling }),
      usual: 0.8,
      tables: 100,
    };
  }
  if (colours === 'full') return null;
  const palette = { palette: true, dither: colours === 'palette' ? 0 : 1 };
  return {
    qualities: upTo(highest, paletteStep),
    tolerance: 0.12,
    slack: 0,
    full: (picture, quality) => picture.png({ ...palette, quality, effort: paletteEffort, compressionLevel: 9 }),
    quick: null,
    usual: 1,
    tables: 0,
  };
}

const weigh = async (picture: Sharp) => (await picture.toBuffer()).length;

/** What the whole weighs of its part, as far as their rows tell. */
const ofRows = ({ whole, part }: Parted) => whole.height / part.height;

/** What the whole weighs of its part is told by quick encodings of both. */
async function estimateOf(
  { full, tables }: Recipe,
  quick: NonNullable<Recipe['quick']>,
  { whole, part }: Parted,
  quality: number,
): Promise<number> {
  const [own, ofWhole, ofPart] = await Promise.all([
    weigh(full(fromPixels(part), quality)),
    weigh(quick(fromPixels(whole), quality)),
    weigh(quick(fromPixels(part), quality)),
  ]);
  return tables + ((own - tables) * ofWhole) / ofPart;
}

/** The encoder for some settings; its qualities reach up to `highest`. */
export function encoderOf(settings: EncoderSettings, highest: number): Encoder {
  const recipe = recipeOf(settings, highest);
  const finished = (picture: Sharp) => withMetadata(picture, settings.metadata).toBuffer();
  if (!recipe) {
    const encode = (pixels: Pixels) =>
      finished(fromPixels(pixels).png({ compressionLevel: 9, adaptiveFiltering: true }));
    return { encode, ladder: null };
  }
  const { full, quick, usual, tables: _, ...ladder } = recipe;
  return {
    encode: (pixels, quality) => finished(full(fromPixels(pixels), quality ?? highest)),
    ladder: {
      ...ladder,
      sketch: async (picture, quality) =>
        usual * (await weigh((quick ?? full)(fromPixels(picture.part), quality))) * ofRows(picture),
      estimate: quick && ((picture, quality) => estimateOf(recipe, quick, picture, quality)),
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
