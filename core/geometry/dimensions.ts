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
 * the whole picture at the place's width, kept within the range.
 *
 * @param wished a height of one's own, where the place takes a range
 */
export function placeDimensions(
  place: Pick<Place, 'width' | 'height'>,
  picture: Picture,
  wished: number | null = null,
): Dimensions {
  if (typeof place.height === 'number') return { width: place.width, height: place.height };
  const box = pictureBox(picture);
  const whole = wished ?? Math.round((place.width * box.height) / box.width);
  return { width: place.width, height: clamp(whole, place.height.min, place.height.max) };
}
