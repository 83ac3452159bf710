import { fileDimensions, type Picture, placeDimensions, scaledBy, type UploadSettings } from '../geometry/index.ts';
import { type Dimensions, type FrameSettings, frameBounds, type Place, type SpecSheet } from '../model/index.ts';

/** What a network takes and does, as far as its sheet says. */
export type NetworkSays = Pick<SpecSheet, 'afterUpload' | 'otherSides'>;

/**
 * The widths in pixels at which a frame's file can be uploaded: its place's own, null; that at which its network just does not scale it; and
 * twice the pixels of either, from which it scales down. Only the first where it is cut, or other dimensions are not taken.
 */
export function uploadWidths(
  place: Place,
  picture: Picture,
  { grid, dimensions: wished }: Pick<FrameSettings, 'grid' | 'dimensions'>,
  { afterUpload, otherSides }: NetworkSays,
): (number | null)[] {
  if (grid || !afterUpload || !otherSides) return [null];
  const own = placeDimensions(place, picture, wished);
  const kept = afterUpload.longEdge / Math.max(own.width, own.height);
  const widths = [kept, Math.SQRT2, Math.SQRT2 * kept].flatMap((share) => {
    const dimensions = scaledBy(own, share);
    return isTaken(dimensions, otherSides) && dimensions.width !== own.width ? [dimensions.width] : [];
  });
  return [null, ...new Set(widths)];
}

const isTaken = ({ width, height }: Dimensions, { least, most }: NonNullable<NetworkSays['otherSides']>): boolean =>
  Math.min(width, height) >= least && Math.max(width, height) <= most && width * height <= frameBounds.pixels;

/** Why a network does not take a frame's file in the dimensions that are set for it, in words; null where it does. */
export function notUploaded(
  at: { place: Place; network: { name: string }; says: NetworkSays },
  picture: Picture,
  settings: UploadSettings,
): string | null {
  const { name } = at.network;
  const { otherSides } = at.says;
  if (settings.uploadWidth === null || settings.uploadWidth === at.place.width) return null;
  if (!otherSides) return `${name} takes only the dimensions of its places. Leave the width of the upload as it is.`;
  const { width, height } = fileDimensions(at.place, picture, settings);
  if (isTaken({ width, height }, otherSides)) return null;
  return (
    `This file would have ${width} × ${height} px. ${name} takes sides from ${otherSides.least} to ${otherSides.most} px, ` +
    `and at most ${frameBounds.pixels / 1e6} megapixels can be made. Choose another width.`
  );
}

/** Whether a network scales a file before it keeps it; null where that is not known. */
export const isRescaled = ({ width, height }: Dimensions, { afterUpload }: NetworkSays): boolean | null =>
  afterUpload ? Math.max(width, height) > afterUpload.longEdge : null;
