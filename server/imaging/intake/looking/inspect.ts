import { open, readFile, stat, writeFile } from 'node:fs/promises';
import { type Original, originalLimits } from '@inkwell/core/model';
import { type Orientation, OrientationSchema } from '@inkwell/core/planning';
import sharp, { type Metadata } from 'sharp';
import { UserError } from '../../../userError.ts';
import type { ColourHeader } from '../colourManaged.ts';
import { convert, isForeign } from '../foreign/foreign.ts';
import { foreignDimensions } from '../foreign/foreignHeader.ts';
import { checkComplete } from './complete.ts';
import { damaged } from './damaged.ts';
import { sniff } from './sniff.ts';
import { plainSvg } from './svgReach.ts';

/** What the header of a picture says. Nothing is decoded for it. */
export interface Inspected {
  format: Original['format'];
  /** Which page or frame of the file this is about, from 0, and how many there are. */
  page: number;
  pages: number;
  /** The file that libvips reads it from: the given one, or beside it what another decoder has made of it. */
  readable: string;
  /** Whether `readable` was written here, and holds the one page. */
  converted: boolean;
  /** As it will be seen: after the orientation tag, and for SVG at the resolution it is drawn at. */
  width: number;
  height: number;
  hasAlpha: boolean;
  /** The orientation tag, 1 where there is none. */
  orientation: Orientation;
  /** Dots per inch at which an SVG is drawn; undefined for pixels. */
  density?: number;
  /** What says how the colours of `readable` are to be read. */
  colours: ColourHeader;
}

/** An SVG is drawn this large along its long edge, or at its own size if that is larger. */
const svgLongEdge = 4000;
const largestSvgBytes = 20_000_000;
/** The resolution at which one SVG unit is one pixel. */
const svgUnitDensity = 72;

const millions = (value: number) => Math.round(value / 1e6).toLocaleString('en');

/**
 * Reads the header of a file and says what it is.
 *
 * @param page of a file that holds several pictures
 * @throws UserError in plain words for everything that cannot be taken and can be seen from the header
 */
export async function inspect(path: string, page = 0): Promise<Inspected> {
  const format = await formatOf(path);
  await checkComplete(path, format);
  const foreign = isForeign(format) ? format : format === 'png' && (await pngIsAnimated(path)) ? 'animated png' : null;
  if (foreign) checkForeign(foreign, await foreignDimensions(path, foreign));
  const floats = !foreign && format === 'tiff' && isFloat(await readHeader(path, format, page)) ? 'float tiff' : null;
  if (floats) checkForeign(floats, await readHeader(path, format, page), mostFloatPixels);
  const beside = format === 'svg' ? `${path}.svg` : foreign || floats ? `${path}.png` : null;
  const readable = beside ?? path;
  if (format === 'svg') await writeFile(readable, plainSvg(await svgText(path)));
  const other = foreign ?? floats;
  const pagesConverted = other ? await convert(path, other, page, readable) : null;
  const meta = await readHeader(readable, format, beside ? 0 : page);
  const pages = pagesConverted ?? (await pagesOf(path, format, meta));
  const upright = { width: meta.autoOrient.width, height: meta.autoOrient.height };
  const { depth, space, hasProfile } = meta;
  const inspected: Inspected = {
    format,
    page,
    pages,
    readable,
    converted: beside !== null,
    ...upright,
    hasAlpha: meta.hasAlpha,
    orientation: OrientationSchema.catch(1).parse(meta.orientation),
    colours: { depth, space, hasProfile },
  };
  if (format === 'svg') {
    const growth = Math.max(1, svgLongEdge / Math.max(upright.width, upright.height));
    inspected.density = svgUnitDensity * growth;
    checkDensity(inspected.density, upright);
    const drawn = await readHeader(readable, format, 0, inspected.density);
    Object.assign(inspected, { width: drawn.width, height: drawn.height, hasAlpha: true });
  }
  checkLimits(inspected, meta);
  return inspected;
}

/** What a file is, by its first bytes. @throws UserError for what is not a picture of a kind that is taken */
export const formatOf = async (path: string): Promise<Original['format']> => sniff(await headOf(path));

async function headOf(path: string): Promise<Buffer> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(4096), 0, 4096, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** How many pictures a file holds that a person can choose from; the smaller copies in a TIFF do not count. */
async function pagesOf(path: string, format: string, meta: Metadata): Promise<number> {
  const pages = meta.pages ?? 1;
  if (pages === 1) return 1;
  return format === 'tiff' && (await isPyramid(path, meta, pages)) ? 1 : pages;
}

async function readHeader(path: string, format: string, page: number, density?: number): Promise<Metadata> {
  try {
    const options = { limitInputPixels: false, page, ...(density ? { density } : {}) };
    return await sharp(await openable(path, format), options).metadata();
  } catch (error) {
    throw damaged(format, error);
  }
}

/** An SVG is handed over in memory: from there nothing leads to any file, whatever it asks for. */
export const openable = async (path: string, format: string): Promise<string | Buffer> =>
  format === 'svg' ? readFile(path) : path;

/** The text of an SVG. @throws UserError where it is too large, or not in UTF-8 */
async function svgText(path: string): Promise<string> {
  const { size } = await stat(path);
  if (size > largestSvgBytes) {
    throw new UserError(
      `This SVG weighs ${millions(size)} MB; at most ${millions(largestSvgBytes)} MB is taken. Save it as PNG.`,
    );
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(await readFile(path));
  } catch (error) {
    throw Object.assign(new UserError('This SVG is not written in UTF-8. Save it again in UTF-8, or as PNG.'), {
      cause: error,
    });
  }
}

/** Floating point, which libvips takes for something else than it is. */
const isFloat = ({ depth }: Metadata) => depth === 'float' || depth === 'double';

/** The drawing library takes no finer resolution. */
const finestDensity = 100_000;

function checkDensity(density: number, { width, height }: { width: number; height: number }): void {
  if (density <= finestDensity) return;
  throw new UserError(
    `The width and height of this SVG cannot be used: it would be drawn ${width} × ${height} units large. Give it sides of 1 to 20,000.`,
  );
}

/** True where an animation control chunk comes before the pixels (PNG specification, third edition, acTL). */
async function pngIsAnimated(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const header = Buffer.alloc(8);
    for (let at = 8; ; ) {
      const { bytesRead } = await file.read(header, 0, 8, at);
      const kind = header.toString('latin1', 4, 8);
      if (bytesRead < 8 || kind === 'IDAT' || kind === 'IEND') return false;
      if (kind === 'acTL') return true;
      at += 12 + header.readUInt32BE(0);
    }
  } finally {
    await file.close();
  }
}

/** A TIFF may keep smaller copies of its one picture as further pages, each half as large as the one before. */
async function isPyramid(path: string, first: Metadata, pages: number): Promise<boolean> {
  let above = first;
  for (let page = 1; page < pages; page += 1) {
    const meta = await sharp(path, { page, limitInputPixels: false }).metadata();
    if (Math.abs(meta.width - above.width / 2) > 1 || Math.abs(meta.height - above.height / 2) > 1) return false;
    above = meta;
  }
  return true;
}

/** Bytes that the decoder has to hold at once, by how the format is built; 0 where it decodes row by row. */
function decodingBytes(inspected: Inspected, meta: Metadata): number {
  const pixels = inspected.width * inspected.height;
  const channels = meta.channels ?? 4;
  if (inspected.format === 'jpeg' && meta.isProgressive) {
    // Two bytes a coefficient; halved chroma leaves half as many coefficients again as there are pixels.
    return pixels * 2 * (meta.chromaSubsampling === '4:2:0' ? 1.5 : channels);
  }
  if (inspected.format === 'png' && meta.isProgressive) return pixels * channels * (meta.depth === 'ushort' ? 2 : 1);
  if (inspected.format === 'webp' || inspected.format === 'gif') return pixels * 4;
  if (inspected.format === 'avif') return pixels * (channels + 3) * (meta.depth === 'ushort' ? 2 : 1);
  if (inspected.format === 'svg') return pixels * 4;
  return 0;
}

/** Other decoders hold a picture whole, several times: so many pixels fit into memory. */
const mostForeignPixels = 120_000_000;

/** Floating point takes four times as much as other pixels. */
const mostFloatPixels = 60_000_000;

function checkForeign(
  format: string,
  dimensions: { width: number; height: number } | null,
  most = mostForeignPixels,
): void {
  if (!dimensions) throw damaged(format, new Error('Its header says no dimensions.'));
  const { width, height } = dimensions;
  if (width * height <= most) return;
  throw new UserError(
    `This ${format.toUpperCase()} has ${millions(width * height)} megapixels (${width} × ${height}); at most ` +
      `${millions(most)} megapixels of this format are taken. Save it as JPEG, PNG or TIFF.`,
    413,
  );
}

function checkLimits(inspected: Inspected, meta: Metadata): void {
  const { width, height } = inspected;
  if (width * height > originalLimits.pixels) {
    throw new UserError(
      `This picture has ${millions(width * height)} megapixels (${width} × ${height}); at most ` +
        `${millions(originalLimits.pixels)} megapixels are taken. Scale it down and choose that copy.`,
      413,
    );
  }
  const needed = decodingBytes(inspected, meta);
  if (needed > originalLimits.decodingBytes) {
    throw new UserError(
      `Opening this ${inspected.format.toUpperCase()} would take ${millions(needed)} MB of memory at once; at most ` +
        `${millions(originalLimits.decodingBytes)} MB is allowed. Save it as a baseline JPEG or a PNG without interlacing.`,
      413,
    );
  }
}
