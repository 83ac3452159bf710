import { dimensionsProblem } from '@inkwell/core/geometry';
import {
  formatLabel,
  formatLimit,
  formatWeight,
  type ImageFormat,
  limitFor,
  type NetworkRefusal,
  type Place,
} from '@inkwell/core/model';
import sharp from 'sharp';
import type { NetworkSheet } from './networkSheet.ts';

/** What an uploaded file is, as far as a network looks before it takes it. */
export interface UploadedFile {
  format: string;
  width: number;
  height: number;
  bytes: number;
  colourModel: string;
  hasAlpha: boolean;
  isAnimated: boolean;
}

export type Refusal = Pick<NetworkRefusal['error'], 'code' | 'allowed' | 'measured' | 'limitBytes' | 'mostFiles'>;

/** What a file is; null where it cannot be opened whole. */
export async function uploadedFile(data: Buffer): Promise<UploadedFile | null> {
  try {
    const { format, compression, width, height, space, hasAlpha, pages = 1 } = await sharp(data).metadata();
    await sharp(data, { failOn: 'warning' }).stats();
    return {
      format: format === 'heif' && compression === 'av1' ? 'avif' : format,
      width,
      height,
      bytes: data.length,
      colourModel: space,
      hasAlpha,
      isAnimated: pages > 1,
    };
  } catch {
    // Whatever a decoder says of it: the file is not whole, or no picture.
    return null;
  }
}

const sides = ({ width, height }: { width: number; height: number }) => `${width} × ${height} px`;

/** The first reason for which a network does not take a file at a place; null where it takes it. */
export function refusalOf(file: UploadedFile, place: Place, gate: NetworkSheet['gate']): Refusal | null {
  const formats: readonly string[] = place.formats;
  if (!formats.includes(file.format)) {
    const named = formatLabel[file.format as ImageFormat] ?? file.format;
    return { code: 'format', allowed: place.formats.map((one) => formatLabel[one]).join(', '), measured: named };
  }
  if (file.isAnimated) return { code: 'animated', allowed: 'one frame', measured: 'several' };
  const models: readonly string[] = gate.colourModels;
  if (!models.includes(file.colourModel)) {
    return { code: 'colour model', allowed: models.join(', '), measured: file.colourModel };
  }
  if (file.hasAlpha && !gate.alpha) return { code: 'alpha', allowed: 'opaque', measured: 'transparent parts' };
  const limit = limitFor(place, file.format as ImageFormat);
  return (
    refusedDimensions(file, place, gate) ??
    (file.bytes > limit.bytes
      ? {
          code: 'too heavy',
          allowed: formatLimit(limit),
          measured: formatWeight(file.bytes, limit.unit),
          limitBytes: limit.bytes,
        }
      : null)
  );
}

function refusedDimensions(file: UploadedFile, place: Place, gate: NetworkSheet['gate']): Refusal | null {
  // A place that takes several says itself which.
  if (place.otherDimensions && dimensionsProblem(place, file) === null) return null;
  const { least, most } =
    typeof place.height === 'number' ? { least: place.height, most: place.height } : heights(place.height);
  if (gate.dimensions === 'exact') {
    const fits = file.width === place.width && file.height >= least && file.height <= most;
    const high = least === most ? `${least}` : `${least} to ${most}`;
    return fits ? null : { code: 'dimensions', allowed: `${place.width} × ${high} px`, measured: sides(file) };
  }
  const { dimensions, ratioTolerance } = gate;
  if (Math.min(file.width, file.height) < dimensions.least || Math.max(file.width, file.height) > dimensions.most) {
    return {
      code: 'dimensions',
      allowed: `${dimensions.least} to ${dimensions.most} px a side`,
      measured: sides(file),
    };
  }
  if (ratioTolerance === null) return null;
  const ratio = file.width / file.height;
  const [low, high] = [place.width / most, place.width / least];
  if (ratio >= low * (1 - ratioTolerance) && ratio <= high * (1 + ratioTolerance)) return null;
  const named = low === high ? low.toFixed(3) : `${low.toFixed(3)} to ${high.toFixed(3)}`;
  return { code: 'ratio', allowed: `width to height ${named}`, measured: ratio.toFixed(3) };
}

const heights = ({ min, max }: { min: number; max: number }) => ({ least: min, most: max });
