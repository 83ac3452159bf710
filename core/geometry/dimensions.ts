import type { Backing, Dimensions, Original, Place } from '../model/index.ts';
import { clamp, type Rect } from './rect.ts';
import type { Bounds } from './window.ts';

/** What geometry has to know of an original. */
export type Picture = Pick<Original, 'width' | 'height' | 'trim'>;

/** The part of an original that counts as the picture: its trim, or all of it. */
export function pictureBox({ width, height, trim }: Picture): Rect {
  return trim ?? { left: 0, top: 0, width, height };
}

/** Where the windows of a frame may lie: only a backing lets them reach past the picture. */
export function boundsOf(picture: Picture, backing: Backing | null): Bounds {
  return { box: pictureBox(picture), beyond: backing !== null };
}

/**
 * The exact pixels of the file that `place` wants. Where the place takes a range of heights, the height that shows
 * the whole picture at the place's width, kept within the range and below the most pixels. Of several others those that it wishes for:
 * `settledPlace` in `core/framing` chooses among them.
 *
 * @param wished dimensions of one's own, where the place takes several
 */
export function placeDimensions(
  place: Pick<Place, 'width' | 'height' | 'otherDimensions' | 'multipleOf' | 'mostPixels'>,
  picture: Picture,
  wished: Dimensions | null = null,
): Dimensions {
  const { width, height, otherDimensions, multipleOf = 1, mostPixels = Number.POSITIVE_INFINITY } = place;
  if (typeof height === 'number') return otherDimensions && wished ? wished : { width, height };
  const box = pictureBox(picture);
  const whole = wished?.height ?? (width * box.height) / box.width;
  const least = Math.ceil(height.min / multipleOf);
  const most = Math.floor(Math.min(height.max, mostPixels / width) / multipleOf);
  return { width, height: clamp(Math.round(whole / multipleOf), Math.min(least, most), most) * multipleOf };
}
