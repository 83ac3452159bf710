import type { Plane } from '../../planes/index.ts';
import { softened, transposed } from '../softened.ts';
import { edgePoints } from './edgePoints.ts';
import { type StraightEdge, straightEdges } from './straightEdges.ts';

/** How far a picture leans, and by what that was seen. */
export interface Tilt {
  /** Clockwise, in degrees: turned back by so much the horizon lies level. */
  degrees: number;
  /** All straight edges that agree, in shares of the picture's longer side. */
  length: number;
  /** The same of the straight edges that agree on the next best angle: where they are as many, nothing is sure. */
  rivals: number;
}

/** Of nine pixels. */
const binomial = [35, 56, 28, 8, 1].map((weight) => weight / 256);
/** Edges that lie within so many degrees of each other agree. */
const agreeing = 0.7;
/** The edges of two sides of something are alike in length at least to this part. */
const sides = 0.7;
/** The tilt is told where this much agrees, and rivals at most this part of it. See bench/RESULTS.md for what comes of it. */
const told = { length: 0.6, rivals: 0.45 };

/**
 * The tilt of a picture by its horizon, or by what stands upright: long straight edges, found by a Hough transform (Duda and Hart
 * 1972) of edge points that vote only near the direction in which they point (O'Gorman and Clowes 1976), each then fitted to its
 * points by least squares. Null where no such edges agree.
 *
 * @param plane luminance, 0..255, about a thousand pixels wide: finer detail is grain
 */
export function tiltOf(plane: Plane): Tilt | null {
  const side = Math.max(plane.width, plane.height);
  const soft = softened(plane, binomial);
  const level = straightEdges(edgePoints(soft), soft, side);
  const turned = transposed(soft);
  // Along an upright edge the picture goes sideways the other way round.
  const upright = straightEdges(edgePoints(turned), turned, side).map((edge) => ({ ...edge, degrees: -edge.degrees }));
  const edges = [...level, ...upright];
  const groups = edges.map(({ degrees }) => groupAt(edges, degrees)).sort((one, other) => other.length - one.length);
  const [best] = groups;
  if (!best) return null;
  const rival = groups.find((other) => !isNear(other, best.degrees) && !isSideOfSomething(other, groups, best));
  const tilt = { degrees: best.degrees, length: best.length / side, rivals: (rival?.length ?? 0) / side };
  return tilt.length >= told.length && tilt.rivals <= told.rivals * tilt.length ? tilt : null;
}

const isNear = ({ degrees }: StraightEdge, angle: number) => Math.abs(degrees - angle) <= 2 * agreeing;

/** Whether edges that lean are one side of a sail or a roof: as many lean the other way. That says nothing of the picture. */
const isSideOfSomething = (one: StraightEdge, groups: readonly StraightEdge[], best: StraightEdge) =>
  !isNear(one, 0) &&
  !isNear(best, -one.degrees) &&
  groups.some((other) => isNear(other, -one.degrees) && other.length >= sides * one.length);

/** The edges that agree on an angle: their mean, and how long they are together, in pixels. */
function groupAt(edges: readonly StraightEdge[], degrees: number): StraightEdge {
  const alike = edges.filter((other) => Math.abs(other.degrees - degrees) <= agreeing);
  const sumOf = (value: (edge: StraightEdge) => number) => alike.reduce((sum, edge) => sum + value(edge), 0);
  // A fit is as much better as its edge is longer, squared and once more for its points.
  const weight = sumOf(({ length }) => length ** 3);
  return { degrees: sumOf((edge) => edge.degrees * edge.length ** 3) / weight, length: sumOf(({ length }) => length) };
}
