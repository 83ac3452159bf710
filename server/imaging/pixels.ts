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
