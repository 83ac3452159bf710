import sharp from 'sharp';

/** A file in small, to look at: as WebP, at most as wide as it is. */
export const smallerPicture = (data: Buffer, width: number): Promise<Buffer> =>
  sharp(data).resize({ width, withoutEnlargement: true }).webp({ quality: 85 }).toBuffer();
