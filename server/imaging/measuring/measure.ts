import type { MeasuredFile } from '@inkwell/core/model';
import sharp from 'sharp';

/** Opens a finished file again, decodes it whole, and says what it is. @throws where it cannot be decoded */
export async function measureFile(data: Buffer): Promise<MeasuredFile> {
  const { format, compression } = await sharp(data).metadata();
  const { info } = await sharp(data, { failOn: 'warning' }).raw().toBuffer({ resolveWithObject: true });
  return {
    width: info.width,
    height: info.height,
    bytes: data.length,
    // AVIF is a HEIF file whose pictures are encoded as AV1.
    format: format === 'heif' && compression === 'av1' ? 'avif' : format,
  };
}
