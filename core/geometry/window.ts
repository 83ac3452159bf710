import type { Dimensions, Window } from '../model/index.ts';
import { clamp, type Point, type Rect } from './rect.ts';

/** A window's shorter side is never less than this many original pixels (or the original's own side, if that is less). */
const smallestSide = 16;

/** Height of a window over its width. */
const rise = (output: Dimensions) => output.height / output.width;

/** The widest span, in original pixels, that keeps a window of `output`'s ratio inside the original. */
export function largestSpan(original: Dimensions, output: Dimensions): number {
  return Math.min(original.width, original.height / rise(output));
}

/** The narrowest span, in original pixels. */
export function smallestSpan(original: Dimensions, output: Dimensions): number {
  const span = smallestSide * Math.max(1, 1 / rise(output));
  return Math.min(span, largestSpan(original, output));
}

/** The largest window inside the original, in its middle. */
export function largestWindow(original: Dimensions, output: Dimensions): Window {
  return { centreX: original.width / 2, centreY: original.height / 2, span: largestSpan(original, output) };
}

/** The window nearest to `window` that lies inside the original: the span is kept where it can be, then the centre. */
export function clampWindow(window: Window, original: Dimensions, output: Dimensions): Window {
  const span = clamp(window.span, smallestSpan(original, output), largestSpan(original, output));
  const halfHeight = (span * rise(output)) / 2;
  return {
    span,
    centreX: clamp(window.centreX, span / 2, original.width - span / 2),
    centreY: clamp(window.centreY, halfHeight, original.height - halfHeight),
  };
}

/** The part of the original that a window shows, in original pixels. */
export function windowRect(window: Window, output: Dimensions): Rect {
  const height = window.span * rise(output);
  return { left: window.centreX - window.span / 2, top: window.centreY - height / 2, width: window.span, height };
}

/** The window whose rectangle has the given left, top and width. */
export function windowAt(left: number, top: number, span: number, output: Dimensions): Window {
  return { centreX: left + span / 2, centreY: top + (span * rise(output)) / 2, span };
}

/** Output pixels per original pixel; above 1 the picture is enlarged. */
export function enlargement(window: Window, output: Dimensions): number {
  return output.width / window.span;
}

/** The window moved by whole or part output pixels: one to the right shows what lies one output pixel further right. */
export function nudge(window: Window, by: Point, original: Dimensions, output: Dimensions): Window {
  const scale = window.span / output.width;
  const moved = { ...window, centreX: window.centreX + by.x * scale, centreY: window.centreY + by.y * scale };
  return clampWindow(moved, original, output);
}

/**
 * The window tightened (`factor` below 1) or loosened (above 1) so that `anchor`, a point on the original, stays where
 * it is in the frame as long as the original's edges allow it.
 */
export function zoomAbout(
  window: Window,
  factor: number,
  anchor: Point,
  original: Dimensions,
  output: Dimensions,
): Window {
  const span = clamp(window.span * factor, smallestSpan(original, output), largestSpan(original, output));
  const done = span / window.span;
  const zoomed = {
    span,
    centreX: anchor.x + (window.centreX - anchor.x) * done,
    centreY: anchor.y + (window.centreY - anchor.y) * done,
  };
  return clampWindow(zoomed, original, output);
}

export type Corner = 'top left' | 'top right' | 'bottom left' | 'bottom right';

/** The point diagonally across from `corner`: it stands still while that corner is dragged. */
export function oppositeCorner(rect: Rect, corner: Corner): Point {
  return {
    x: corner.endsWith('left') ? rect.left + rect.width : rect.left,
    y: corner.startsWith('top') ? rect.top + rect.height : rect.top,
  };
}

/**
 * The window after one of its corners was dragged towards `to`, ratio locked: the opposite corner stands still, and
 * the span is the larger of what the horizontal and the vertical distance ask for, as far as the original reaches.
 */
export function dragCorner(
  window: Window,
  corner: Corner,
  to: Point,
  original: Dimensions,
  output: Dimensions,
): Window {
  const fixed = oppositeCorner(windowRect(window, output), corner);
  const leftwards = corner.endsWith('left');
  const upwards = corner.startsWith('top');
  const wanted = Math.max(
    leftwards ? fixed.x - to.x : to.x - fixed.x,
    (upwards ? fixed.y - to.y : to.y - fixed.y) / rise(output),
  );
  const room = Math.min(
    leftwards ? fixed.x : original.width - fixed.x,
    (upwards ? fixed.y : original.height - fixed.y) / rise(output),
  );
  const span = clamp(wanted, Math.min(room, smallestSpan(original, output)), room);
  const height = span * rise(output);
  return clampWindow(
    windowAt(leftwards ? fixed.x - span : fixed.x, upwards ? fixed.y - height : fixed.y, span, output),
    original,
    output,
  );
}
