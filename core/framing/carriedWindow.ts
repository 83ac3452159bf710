import { type Bounds, clampWindow } from '../geometry/index.ts';
import type { Dimensions, Window } from '../model/index.ts';

/**
 * A window that a hand has set, at a place that has other dimensions now: about the same point and as tight as it was. Where the new ratio
 * is another one, it shows as large an area of the picture; where the picture does not reach so far, the nearest to that.
 *
 * @param before what the window filled, in pixels of the file
 * @param after what it has to fill
 */
export function carriedWindow(window: Window, before: Dimensions, after: Dimensions, bounds: Bounds): Window {
  const wider = (after.width * before.height) / (after.height * before.width);
  return clampWindow({ ...window, span: window.span * Math.sqrt(wider) }, bounds, after);
}
