import { dimensionsProblem, scaledBy, type TakenDimensions } from '@inkwell/core/geometry';
import type { AfterUpload, Dimensions, Place, Rendition } from '@inkwell/core/model';
import sharp, { type Sharp } from 'sharp';

/** A picture that a network has made, with what it is. */
export interface Made extends Rendition {
  data: Buffer;
}

/** What is left of an uploaded file: what is kept of it, and what is shown of that. */
export interface Processed {
  kept: Made;
  shown: (Made & { shownWidth: number })[];
}

/** How many pieces of a place stand side by side in one post, with gaps that are shares of a tile's width. */
export type Spread = Pick<Place, 'shownWidths' | 'group'>;

/** The width of one piece where its post is shown at a width: tiles of a block share it, all others have it for themselves. */
export function pieceWidth({ group }: Spread, shownWidth: number, columns: number): number {
  if (group?.kind !== 'block') return shownWidth;
  return Math.max(1, Math.round(shownWidth / (columns + (columns - 1) * group.gap)));
}

/** The part of a picture that has a place's ratio, from its middle; all of it where the place takes a range. In whole pixels. */
export function middleOf({ width, height }: Dimensions, place: TakenDimensions & Pick<Place, 'name'>) {
  const isTaken = place.otherDimensions !== undefined && dimensionsProblem(place, { width, height }) === null;
  if (isTaken || typeof place.height !== 'number') return { left: 0, top: 0, width, height };
  const ratio = place.width / place.height;
  // What differs by less than half a pixel has the ratio.
  if (Math.abs(width - height * ratio) < 0.5 || Math.abs(height - width / ratio) < 0.5)
    return { left: 0, top: 0, width, height };
  const across = Math.max(1, Math.min(width, Math.round(height * ratio)));
  const down = Math.max(1, Math.min(height, Math.round(width / ratio)));
  return { left: Math.floor((width - across) / 2), top: Math.floor((height - down) / 2), width: across, height: down };
}

/**
 * What a network makes of a file: stripped of everything but its pixels, cut to the place's ratio from the middle, scaled down to
 * the network's long edge and encoded again; then the smaller pictures for the widths at which the place is shown.
 *
 * @param columns pieces of the file's post side by side
 */
export async function processed(
  data: Buffer,
  place: TakenDimensions & Pick<Place, 'name' | 'shownWidths' | 'group'>,
  after: AfterUpload,
  columns = 1,
): Promise<Processed> {
  const opened = sharp(data, { ignoreIcc: after.colours === 'profile dropped' })
    .autoOrient()
    .toColourspace('srgb');
  const { data: pixels, info } = await opened
    .flatten({ background: 'white' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels as 1 | 3 };
  const middle = middleOf(info, place);
  const share = Math.min(1, after.longEdge / Math.max(middle.width, middle.height));
  const whole = sharp(pixels, { raw }).extract(middle);
  const kept = await encoded(shrunk(whole, middle, share, after), after);
  const shown = [];
  for (const shownWidth of place.shownWidths) {
    const width = pieceWidth(place, shownWidth, columns);
    const smaller = shrunk(sharp(kept.data), kept, Math.min(1, width / kept.width), after);
    shown.push({ shownWidth, ...(await encoded(smaller, after)) });
  }
  return { kept, shown };
}

function shrunk(picture: Sharp, dimensions: Dimensions, share: number, { kernel }: AfterUpload): Sharp {
  if (share === 1) return picture;
  const { width, height } = scaledBy(dimensions, share);
  return picture.resize(width, height, { fit: 'fill', kernel });
}

async function encoded(picture: Sharp, { format, quality, chroma }: AfterUpload): Promise<Made> {
  const { data, info } =
    format === 'webp'
      ? await picture.webp({ quality }).toBuffer({ resolveWithObject: true })
      : await picture.jpeg({ quality, chromaSubsampling: chroma }).toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, bytes: data.length, format };
}
