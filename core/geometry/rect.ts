import type { Dimensions } from '../model/index.ts';

export interface Point {
  x: number;
  y: number;
}

/** An upright rectangle; the right and bottom edges are `left + width` and `top + height`, exclusive. */
export interface Rect {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The common part of two rectangles; of zero width or height where they do not meet. */
export function intersection(a: Rect, b: Rect): Rect {
  const left = Math.max(a.left, b.left);
  const top = Math.max(a.top, b.top);
  return {
    left,
    top,
    width: Math.max(0, Math.min(a.left + a.width, b.left + b.width) - left),
    height: Math.max(0, Math.min(a.top + a.height, b.top + b.height) - top),
  };
}

export function area(rect: Dimensions): number {
  return rect.width * rect.height;
}

/** The smallest rectangle that holds both. */
export function union(a: Rect, b: Rect): Rect {
  const [left, top] = [Math.min(a.left, b.left), Math.min(a.top, b.top)];
  return {
    left,
    top,
    width: Math.max(a.left + a.width, b.left + b.width) - left,
    height: Math.max(a.top + a.height, b.top + b.height) - top,
  };
}

/** The same part of a picture that is `times` as large each way. */
export const scaledRect = ({ left, top, width, height }: Rect, times: Point): Rect => ({
  left: left * times.x,
  top: top * times.y,
  width: width * times.x,
  height: height * times.y,
});

/**
 * The whole pixels of a picture that hold all of a part of a smaller version of it: seen smaller, an edge may lie anywhere within
 * its pixel.
 */
export function coveringRect(part: Rect, smaller: Dimensions, picture: Dimensions): Rect {
  const times = { x: picture.width / smaller.width, y: picture.height / smaller.height };
  const { left, top, width, height } = scaledRect(part, times);
  const [from, down] = [Math.max(0, Math.floor(left)), Math.max(0, Math.floor(top))];
  return {
    left: from,
    top: down,
    width: Math.min(picture.width, Math.ceil(left + width)) - from,
    height: Math.min(picture.height, Math.ceil(top + height)) - down,
  };
}

/** How much of what two rectangles cover they share, 0..1: the area of their intersection over that of their union. */
export function sharedPart(a: Rect, b: Rect): number {
  const shared = area(intersection(a, b));
  return shared === 0 ? 0 : shared / (area(a) + area(b) - shared);
}

/** `value` kept between `low` and `high`; their middle where the two have crossed. */
export function clamp(value: number, low: number, high: number): number {
  if (low > high) return (low + high) / 2;
  return Math.min(high, Math.max(low, value));
}

/** The rectangle between two points. */
export function rectBetween(a: Point, b: Point): Rect {
  return {
    left: Math.min(a.x, b.x),
    top: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  };
}

/** The rectangle moved, and made smaller where it must be, so that it lies inside `whole`; never less than `least` a side. */
export function rectWithin(rect: Rect, whole: Dimensions, least: number): Rect {
  const width = clamp(rect.width, Math.min(least, whole.width), whole.width);
  const height = clamp(rect.height, Math.min(least, whole.height), whole.height);
  return {
    left: clamp(rect.left, 0, whole.width - width),
    top: clamp(rect.top, 0, whole.height - height),
    width,
    height,
  };
}
