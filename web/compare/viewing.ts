import type { Point, Rect } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';

/** The point of the file in the middle of a view: held so that no more of the surround is seen than has to be. */
export function clampedCentre(centre: Point, view: Dimensions, scale: number, file: Dimensions): Point {
  const along = (at: number, seen: number, length: number) =>
    seen >= length ? length / 2 : Math.min(length - seen / 2, Math.max(seen / 2, at));
  return {
    x: along(centre.x, view.width / scale, file.width),
    y: along(centre.y, view.height / scale, file.height),
  };
}

/** What is finished at once in the browser has at most so many pixels each way. */
const longest = { width: 1600, height: 1600 };

/** The part of a frame's picture that a view shows, in whole pixels of the picture inside of its border. */
export function visiblePart(
  centre: Point,
  view: Dimensions,
  scale: number,
  { margins, pixels }: { margins: { left: number; top: number }; pixels: Dimensions },
): Rect {
  const along = (middle: number, seen: number, length: number, most: number) => {
    const wanted = Math.min(seen, most);
    const start = Math.max(0, Math.floor(middle - wanted / 2));
    const end = Math.min(length, Math.ceil(middle + wanted / 2));
    return { start, length: Math.max(0, end - start) };
  };
  const across = along(centre.x - margins.left, view.width / scale, pixels.width, longest.width);
  const down = along(centre.y - margins.top, view.height / scale, pixels.height, longest.height);
  return { left: across.start, top: down.start, width: across.length, height: down.length };
}
