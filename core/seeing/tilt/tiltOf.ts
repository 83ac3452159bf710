import type { Plane } from '../../planes/index.ts';
import { edgePoints } from './edgePoints.ts';
import { softened, transposed } from './softened.ts';
import { straightEdges } from './straightEdges.ts';

/** How far a picture leans, and by what that was seen. */
export interface Tilt {
  /** Clockwise, in degrees: turned back by so much the horizon lies level. */
  degrees: number;
  /** All straight edges that agree, in shares of the picture's longer side. */
  length: number;
  /** How much of all nearly level and nearly upright straight edges agrees, 0..1. */
  agreement: number;
}

/** Edges that lie within so many degrees of each other agree. */
const agreeing = 0.7;
/** The tilt is told where this much agrees. Found on made horizons, fronts and textures: see bench/RESULTS.md. */
const told = { length: 0.5, agreement: 0.7 };

/**
 * The tilt of a picture by its horizon, or by what stands upright: long straight edges, found by a Hough transform (Duda and Hart
 * 1972) of edge points that vote only near the direction in which they point (O'Gorman and Clowes 1976), each then fitted to its
 * points by least squares. Null where no such edges agree.
 *
 * @param plane luminance, 0..255, about a thousand pixels wide: finer detail is grain
 */
export function tiltOf(plane: Plane): Tilt | null {
  const side = Math.max(plane.width, plane.height);
  const soft = softened(plane);
  const level = straightEdges(edgePoints(soft), soft, side);
  const turned = transposed(soft);
  // Along an upright edge the picture goes sideways the other way round.
  const upright = straightEdges(edgePoints(turned), turned, side).map((edge) => ({ ...edge, degrees: -edge.degrees }));
  const edges = [...level, ...upright];
  const all = edges.reduce((sum, { length }) => sum + length, 0);
  let best: Tilt | null = null;
  for (const { degrees } of edges) {
    const alike = edges.filter((other) => Math.abs(other.degrees - degrees) <= agreeing);
    const length = alike.reduce((sum, edge) => sum + edge.length, 0);
    if (best && length / side <= best.length) continue;
    // A fit is as much better as its edge is longer, squared and once more for its points.
    const weight = alike.reduce((sum, edge) => sum + edge.length ** 3, 0);
    const mean = alike.reduce((sum, edge) => sum + edge.degrees * edge.length ** 3, 0) / weight;
    best = { degrees: mean, length: length / side, agreement: length / all };
  }
  return best && best.length >= told.length && best.agreement >= told.agreement ? best : null;
}
