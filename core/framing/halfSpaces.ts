import { type Bounds, frameAxes, halfExtent, heightOverWidth, type Point, type Pose } from '../geometry/index.ts';
import type { Dimensions, Mark } from '../model/index.ts';
import type { HalfSpace } from './linearProgram.ts';

/**
 * What is asked of a window, as half-spaces over its centre and span (x, y, span): for a given place and turn every
 * demand is linear in them, because everything in the frame grows with the span.
 */

/** How the frame lies on the original, and its proportions. */
export interface FramePose {
  output: Dimensions;
  across: Point;
  down: Point;
  turn: number;
}

export function framePoseOf(output: Dimensions, pose: Pose): FramePose {
  return { output, turn: pose.turn, ...frameAxes(pose) };
}

/** A side of a convex part of the frame: the points with `normal` · q <= `limit`, q from the middle in units of the span. */
export interface Side {
  normal: Point;
  limit: number;
}

/** A side as it faces on the original. Its `normal` is shared by the limits of all marks, so that they can be compared. */
export interface FacingSide {
  direction: Point;
  normal: readonly number[];
}

/** Sides of the frame as they face on the original. */
export function facing(sides: readonly Side[], { across, down }: FramePose): FacingSide[] {
  return sides.map(({ normal, limit }) => {
    const direction = {
      x: across.x * normal.x + down.x * normal.y,
      y: across.y * normal.x + down.y * normal.y,
    };
    return { direction, normal: [-direction.x, -direction.y, -limit] };
  });
}

/** How far a mark reaches in a direction on the original: the greatest `direction` · p over its points p. */
export function support(mark: Mark, direction: Point): number {
  const middle = { x: mark.left + mark.width / 2, y: mark.top + mark.height / 2 };
  const [x, y] = [(direction.x * mark.width) / 2, (direction.y * mark.height) / 2];
  const half = mark.shape === 'ellipse' ? Math.hypot(x, y) : Math.abs(x) + Math.abs(y);
  return direction.x * middle.x + direction.y * middle.y + half;
}

/** The window lies on the picture. */
export function insidePicture({ box }: Bounds, { output, turn }: FramePose): HalfSpace[] {
  const half = halfExtent(turn, output);
  return [
    { normal: [-1, 0, half.x], limit: -box.left },
    { normal: [1, 0, half.x], limit: box.left + box.width },
    { normal: [0, -1, half.y], limit: -box.top },
    { normal: [0, 1, half.y], limit: box.top + box.height },
  ];
}

/** The mark lies within the given sides. */
export function withinSides(mark: Mark, sides: readonly FacingSide[]): HalfSpace[] {
  return sides.map(({ direction, normal }) => ({ normal, limit: -support(mark, direction) }));
}

/**
 * The four sides beyond which a mark lies beside a rectangle of the frame: left of it, right of it, above it, below it.
 *
 * @param area in output pixels
 */
export function besideSides(
  area: { left: number; top: number; width: number; height: number },
  { width, height }: Dimensions,
): Side[] {
  return [
    { normal: { x: 1, y: 0 }, limit: (area.left - width / 2) / width },
    { normal: { x: -1, y: 0 }, limit: (width / 2 - area.left - area.width) / width },
    { normal: { x: 0, y: 1 }, limit: (area.top - height / 2) / width },
    { normal: { x: 0, y: -1 }, limit: (height / 2 - area.top - area.height) / width },
  ];
}

/** The sides of a rectangle of the frame, given in output pixels. */
export function rectangleSides(
  { left, top, width, height }: { left: number; top: number; width: number; height: number },
  output: Dimensions,
): Side[] {
  return [
    { normal: { x: -1, y: 0 }, limit: (output.width / 2 - left) / output.width },
    { normal: { x: 1, y: 0 }, limit: (left + width - output.width / 2) / output.width },
    { normal: { x: 0, y: -1 }, limit: (output.height / 2 - top) / output.width },
    { normal: { x: 0, y: 1 }, limit: (top + height - output.height / 2) / output.width },
  ];
}

/** Corners of the polygon that stands for a circle: it lies inside and loses half a percent of the radius. */
const circleSides = 32;

/**
 * Sides of a polygon just inside the circle (or, in a frame that is not square, the ellipse) that a round frame shows.
 *
 * @param inset how far the circle lies inside of the frame's edges, in output pixels
 */
export function roundSides(output: Dimensions, inset: Point): Side[] {
  const half = { x: 0.5 - inset.x / output.width, y: heightOverWidth(output) / 2 - inset.y / output.width };
  return Array.from({ length: circleSides }, (_, at) => {
    const angle = (2 * Math.PI * at) / circleSides;
    const normal = { x: Math.cos(angle), y: Math.sin(angle) };
    const radius = Math.hypot(normal.x * half.x, normal.y * half.y);
    return { normal, limit: radius * Math.cos(Math.PI / circleSides) };
  });
}

/**
 * Sides that cut the corners of a frame whose corners are rounded.
 *
 * @param radius of the rounding, in output pixels
 * @param inset how far the rounded shape lies inside of the frame's edges, in output pixels
 */
export function roundedSides(output: Dimensions, radius: number, inset: Point): Side[] {
  return [-1, 1].flatMap((x) =>
    [-1, 1].flatMap((y) =>
      [22.5, 45, 67.5].map((degrees) => {
        const normal = { x: x * Math.cos((degrees * Math.PI) / 180), y: y * Math.sin((degrees * Math.PI) / 180) };
        const middle = {
          x: 0.5 - (inset.x + radius) / output.width,
          y: heightOverWidth(output) / 2 - (inset.y + radius) / output.width,
        };
        const inner = Math.cos((11.25 * Math.PI) / 180);
        return {
          normal,
          limit: Math.abs(normal.x) * middle.x + Math.abs(normal.y) * middle.y + (radius / output.width) * inner,
        };
      }),
    ),
  );
}
