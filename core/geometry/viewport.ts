import type { Dimensions } from '../model/index.ts';
import type { Point, Rect } from './rect.ts';

/** How an original lies on the screen: screen = offset + original * scale. */
export interface Viewport {
  /** Screen pixels per original pixel. */
  scale: number;
  offset: Point;
}

/** The viewport that shows the whole original, as large as `box` allows less `margin` screen pixels, in its middle. */
export function fitViewport(original: Dimensions, box: Dimensions, margin: number): Viewport {
  const room = { width: Math.max(1, box.width - 2 * margin), height: Math.max(1, box.height - 2 * margin) };
  const scale = Math.min(room.width / original.width, room.height / original.height);
  return {
    scale,
    offset: { x: (box.width - original.width * scale) / 2, y: (box.height - original.height * scale) / 2 },
  };
}

export function toScreen(view: Viewport, point: Point): Point {
  return { x: view.offset.x + point.x * view.scale, y: view.offset.y + point.y * view.scale };
}

export function toOriginal(view: Viewport, point: Point): Point {
  return { x: (point.x - view.offset.x) / view.scale, y: (point.y - view.offset.y) / view.scale };
}

export function rectToScreen(view: Viewport, rect: Rect): Rect {
  const corner = toScreen(view, { x: rect.left, y: rect.top });
  return { left: corner.x, top: corner.y, width: rect.width * view.scale, height: rect.height * view.scale };
}
