import type { Dimensions, Window } from '../model/index.ts';
import { clamp, type Point, type Rect } from './rect.ts';
import { frameAxes, frameToOriginal, halfExtent, heightOverWidth, normalTurn, originalToFrame } from './turned.ts';

/** Where a window may lie. */
export interface Bounds {
  /** The part of the original that counts as the picture, in original pixels: all of it, or its trim. */
  box: Rect;
  /** True where something else shows beyond the picture's edge, so that a window may reach past it. */
  beyond: boolean;
}

/** A window's shorter side is never less than this many original pixels (or the picture's own side, if that is less). */
const smallestSide = 16;
/** A window that may reach past the picture is at most this many times as wide as one that just shows all of it. */
const widest = 4;

/** The bounds of a window that has to stay inside a whole original. */
export function wholeOf({ width, height }: Dimensions): Bounds {
  return { box: { left: 0, top: 0, width, height }, beyond: false };
}

/** The widest span, in original pixels, with which a window so turned lies inside the box. */
export function insideSpan(box: Dimensions, output: Dimensions, turn = 0): number {
  const half = halfExtent(turn, output);
  return Math.min(box.width / (2 * half.x), box.height / (2 * half.y));
}

/** The narrowest span with which a window so turned shows all of the box. */
export function coveringSpan(box: Dimensions, output: Dimensions, turn = 0): number {
  const { across, down } = frameAxes({ turn, mirror: false });
  const width = Math.abs(across.x) * box.width + Math.abs(across.y) * box.height;
  const height = Math.abs(down.x) * box.width + Math.abs(down.y) * box.height;
  return Math.max(width, height / heightOverWidth(output));
}

/** The widest span that the bounds allow. */
export function largestSpan({ box, beyond }: Bounds, output: Dimensions, turn = 0): number {
  return beyond ? coveringSpan(box, output, turn) * widest : insideSpan(box, output, turn);
}

/** The narrowest span, in original pixels. */
export function smallestSpan({ box }: Bounds, output: Dimensions, turn = 0): number {
  const span = smallestSide * Math.max(1, 1 / heightOverWidth(output));
  return Math.min(span, insideSpan(box, output, turn));
}

/** How a window is turned and mirrored. */
export type Pose = Pick<Window, 'turn' | 'mirror'>;
export const upright: Pose = { turn: 0, mirror: false };

/** The largest window inside the picture, in its middle. */
export function largestWindow({ box }: Bounds, output: Dimensions, pose: Pose = upright): Window {
  return {
    centreX: box.left + box.width / 2,
    centreY: box.top + box.height / 2,
    span: insideSpan(box, output, pose.turn),
    turn: pose.turn,
    mirror: pose.mirror,
  };
}

/** The window that just shows the whole picture, in its middle; it reaches past the picture unless the ratios agree. */
export function wholeWindow(bounds: Bounds, output: Dimensions, pose: Pose = upright): Window {
  return { ...largestWindow(bounds, output, pose), span: coveringSpan(bounds.box, output, pose.turn) };
}

/**
 * The allowed window nearest to `window`: the span is kept where it can be, then the centre. Where the window may reach
 * past the picture, its centre still lies on it, so that something of the picture is always seen.
 */
export function clampWindow(window: Window, bounds: Bounds, output: Dimensions): Window {
  const { box, beyond } = bounds;
  const turn = normalTurn(window.turn);
  const span = clamp(window.span, smallestSpan(bounds, output, turn), largestSpan(bounds, output, turn));
  const half = beyond ? { x: 0, y: 0 } : halfExtent(turn, output);
  return {
    centreX: clamp(window.centreX, box.left + half.x * span, box.left + box.width - half.x * span),
    centreY: clamp(window.centreY, box.top + half.y * span, box.top + box.height - half.y * span),
    span,
    turn,
    mirror: window.mirror,
  };
}

/** True where every point of the window lies on the picture (to a thousandth of a pixel). */
export function isInside(window: Window, box: Rect, output: Dimensions): boolean {
  const half = halfExtent(window.turn, output);
  const slack = 1e-3;
  return (
    window.centreX - half.x * window.span >= box.left - slack &&
    window.centreX + half.x * window.span <= box.left + box.width + slack &&
    window.centreY - half.y * window.span >= box.top - slack &&
    window.centreY + half.y * window.span <= box.top + box.height + slack
  );
}

/** The window's rectangle as it would lie without its turn, in original pixels: turned about its middle it is the window. */
export function windowRect(window: Pick<Window, 'centreX' | 'centreY' | 'span'>, output: Dimensions): Rect {
  const height = window.span * heightOverWidth(output);
  return { left: window.centreX - window.span / 2, top: window.centreY - height / 2, width: window.span, height };
}

/** The upright rectangle on the original that just holds the window. */
export function windowBoundingBox(window: Window, output: Dimensions): Rect {
  const half = halfExtent(window.turn, output);
  return {
    left: window.centreX - half.x * window.span,
    top: window.centreY - half.y * window.span,
    width: 2 * half.x * window.span,
    height: 2 * half.y * window.span,
  };
}

/** The window whose rectangle (see `windowRect`) has the given left, top and width. */
export function windowAt(
  left: number,
  top: number,
  span: number,
  output: Dimensions,
  { turn, mirror }: Pose = upright,
): Window {
  return { centreX: left + span / 2, centreY: top + (span * heightOverWidth(output)) / 2, span, turn, mirror };
}

/** Output pixels per original pixel; above 1 the picture is enlarged. */
export function enlargement(window: Pick<Window, 'span'>, output: Dimensions): number {
  return output.width / window.span;
}

/** The window moved by whole or part output pixels: one to the right shows what lies one output pixel further right. */
export function nudge(window: Window, by: Point, bounds: Bounds, output: Dimensions): Window {
  const at = frameToOriginal(window, output, { x: output.width / 2 + by.x, y: output.height / 2 + by.y });
  return clampWindow({ ...window, centreX: at.x, centreY: at.y }, bounds, output);
}

/**
 * The window tightened (`factor` below 1) or loosened (above 1) so that `anchor`, a point on the original, stays where
 * it is in the frame as long as the picture's edges allow it.
 */
export function zoomAbout(window: Window, factor: number, anchor: Point, bounds: Bounds, output: Dimensions): Window {
  const span = clamp(
    window.span * factor,
    smallestSpan(bounds, output, window.turn),
    largestSpan(bounds, output, window.turn),
  );
  const done = span / window.span;
  const zoomed = {
    ...window,
    span,
    centreX: anchor.x + (window.centreX - anchor.x) * done,
    centreY: anchor.y + (window.centreY - anchor.y) * done,
  };
  return clampWindow(zoomed, bounds, output);
}

/** The window with the picture turned to `turn` degrees about the window's middle, tightened as far as its edges ask for. */
export function turnTo(window: Window, turn: number, bounds: Bounds, output: Dimensions): Window {
  return clampWindow({ ...window, turn: normalTurn(turn) }, bounds, output);
}

/**
 * The window with the picture turned further, rounded to tenths of a degree. Turned by a quarter it begins anew as large
 * as it can be: on the other side of the picture the same span is often a sliver.
 */
export function turnBy(window: Window, by: number, bounds: Bounds, output: Dimensions): Window {
  const turn = normalTurn(Math.round((window.turn + by) * 10) / 10);
  const span = Math.abs(by) === 90 ? insideSpan(bounds.box, output, turn) : window.span;
  return turnTo({ ...window, span }, turn, bounds, output);
}

/**
 * The turn that makes a line drawn on the original level, or plumb where it is nearer to that: at most 45 degrees away
 * from a quarter turn, rounded to tenths of a degree.
 *
 * @param from, to the ends of the line, in original pixels
 * @param quarter the quarter turn that is kept, in degrees
 */
export function levellingTurn(from: Point, to: Point, quarter: number): number {
  const slope = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const tilt = slope - Math.round(slope / 90) * 90;
  return normalTurn(quarter - Math.round(tilt * 10) / 10);
}

export type Corner = 'top left' | 'top right' | 'bottom left' | 'bottom right';

/** Which way a corner lies from the middle of the frame, -1 or 1 each way. */
const side = (corner: Corner): Point => ({
  x: corner.endsWith('left') ? -1 : 1,
  y: corner.startsWith('top') ? -1 : 1,
});

/** Where a corner of the frame lies on the original. */
export function cornerOnOriginal(window: Window, corner: Corner, output: Dimensions): Point {
  const towards = side(corner);
  return frameToOriginal(window, output, {
    x: towards.x < 0 ? 0 : output.width,
    y: towards.y < 0 ? 0 : output.height,
  });
}

const across: Record<Corner, Corner> = {
  'top left': 'bottom right',
  'top right': 'bottom left',
  'bottom left': 'top right',
  'bottom right': 'top left',
};

/** The corner diagonally across: it stands still while `corner` is dragged. */
export const oppositeCorner = (corner: Corner): Corner => across[corner];

/**
 * The window after one of its corners was dragged towards `to`, ratio locked: the opposite corner stands still, and
 * the span is the larger of what the two distances along the frame's axes ask for, as far as the bounds reach.
 */
export function dragCorner(window: Window, corner: Corner, to: Point, bounds: Bounds, output: Dimensions): Window {
  const towards = side(corner);
  const fixed = cornerOnOriginal(window, oppositeCorner(corner), output);
  const pointer = originalToFrame(window, output, to);
  const still = originalToFrame(window, output, fixed);
  const scale = window.span / output.width;
  const wanted =
    Math.max((pointer.x - still.x) * towards.x, ((pointer.y - still.y) * towards.y) / heightOverWidth(output)) * scale;

  // With the fixed corner still, the middle moves by `step` for each pixel of span, and the window reaches `half` around it.
  const axes = frameAxes(window);
  const step = {
    x: (axes.across.x * towards.x + axes.down.x * towards.y * heightOverWidth(output)) / 2,
    y: (axes.across.y * towards.x + axes.down.y * towards.y * heightOverWidth(output)) / 2,
  };
  const half = bounds.beyond ? { x: 0, y: 0 } : halfExtent(window.turn, output);
  const { box } = bounds;
  const room = Math.min(
    largestSpan(bounds, output, window.turn),
    spanUntil(box.left + box.width - fixed.x, step.x + half.x),
    spanUntil(fixed.x - box.left, half.x - step.x),
    spanUntil(box.top + box.height - fixed.y, step.y + half.y),
    spanUntil(fixed.y - box.top, half.y - step.y),
  );
  const least = Math.min(room, smallestSpan(bounds, output, window.turn));
  const span = clamp(wanted, least, room);
  const grown = { ...window, span, centreX: fixed.x + step.x * span, centreY: fixed.y + step.y * span };
  return clampWindow(grown, bounds, output);
}

/** The span at which something that grows by `growth` for each pixel of span has used up `distance`. */
function spanUntil(distance: number, growth: number): number {
  return growth > 1e-9 ? Math.max(0, distance) / growth : Number.POSITIVE_INFINITY;
}
