import sharp, { type Sharp } from 'sharp';

/** Uncompressed pixels, 8 bits a channel, row by row. */
export interface Pixels {
  data: Buffer;
  width: number;
  height: number;
  channels: 1 | 2 | 3 | 4;
}

export const fromPixels = ({ data, width, height, channels }: Pixels): Sharp =>
  sharp(data, { raw: { width, height, channels } });

export async function toPixels(picture: Sharp): Promise<Pixels> {
  const { data, info } = await picture.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels as Pixels['channels'] };
}

/** Of every eight bands of so many rows one is taken: whole blocks of every encoder, from all over the picture. */
const [bandRows, bandsApart] = [32, 8];

/** An eighth of a picture's rows, which stands for all of them; a small picture whole. */
export function sampled(pixels: Pixels): Pixels {
  const { data, width, height, channels } = pixels;
  const period = bandRows * bandsApart;
  if (height < period) return pixels;
  const row = width * channels;
  const first = (period - bandRows) / 2;
  const bands: Buffer[] = [];
  for (let top = first; top + bandRows <= height; top += period) {
    bands.push(data.subarray(top * row, (top + bandRows) * row));
  }
  return { ...pixels, data: Buffer.concat(bands), height: bands.length * bandRows };
}

/** The same pixels in memory that threads look at without copying it. */
export function shared(pixels: Pixels): Pixels {
  const data = Buffer.from(new SharedArrayBuffer(pixels.data.length));
  pixels.data.copy(data);
  return { ...pixels, data };
}
