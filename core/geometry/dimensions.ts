import type { Dimensions, Place } from '../model/index.ts';
import { clamp } from './rect.ts';

/**
 * The exact pixels of the file that `place` wants. Where the place takes a range of heights, the height that shows
 * the whole of `original` at the place's width, kept within the range.
 */
export function placeDimensions(place: Pick<Place, 'width' | 'height'>, original: Dimensions): Dimensions {
  if (typeof place.height === 'number') return { width: place.width, height: place.height };
  const whole = Math.round((place.width * original.height) / original.width);
  return { width: place.width, height: clamp(whole, place.height.min, place.height.max) };
}
