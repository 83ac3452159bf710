import type { Dimensions, MeasuredFile } from '@inkwell/core/model';
import sharp from 'sharp';
import { type Pixels, toPixels } from '../stages/pixels.ts';
import { type Edges, edgesOf } from './edges.ts';

interface Opened extends Dimensions {
  edges: Edges;
}

/** What was found of files that were decoded whole, as long as somebody holds their bytes: nothing is decoded twice to be measured again. */
const opened = new WeakMap<Buffer, Opened>();

/** What the bytes of a file look like once a program has opened them. @throws where they cannot be decoded whole */
export async function decoded(data: Buffer): Promise<Pixels> {
  const pixels = await toPixels(sharp(data, { limitInputPixels: false, failOn: 'warning' }).toColourspace('srgb'));
  opened.set(data, { width: pixels.width, height: pixels.height, edges: edgesOf(pixels) });
  return pixels;
}

/** The outermost pixels of a file as it is decoded. @throws where it cannot be decoded whole */
export const openedEdges = async (data: Buffer): Promise<Edges> =>
  opened.get(data)?.edges ?? edgesOf(await decoded(data));

/** Opens a finished file again, decodes it whole, and says what it is. @throws where it cannot be decoded */
export async function measureFile(data: Buffer): Promise<MeasuredFile> {
  const { format, compression } = await sharp(data).metadata();
  // What comes from outside may be larger than anything the program makes: sharp's own bound holds for it.
  const whole = () => sharp(data, { failOn: 'warning' }).raw().toBuffer({ resolveWithObject: true });
  const { width, height } = opened.get(data) ?? (await whole()).info;
  return {
    width,
    height,
    bytes: data.length,
    // AVIF is a HEIF file whose pictures are encoded as AV1.
    format: format === 'heif' && compression === 'av1' ? 'avif' : format,
  };
}
