import type { Plane } from '../../planes/index.ts';
import { type EdgePoint, mostDegrees, strayDegrees } from './edgePoints.ts';

/** Angles are looked for in steps of this, and found more exactly afterwards. */
const stepDegrees = 0.25;
/** Pixels from a straight edge that still belong to it. */
const near = 1.5;
/** An edge that is shorter than this share of the longer side could lean for any reason. */
const leastLength = 0.18;
/** Grain interrupts an edge for no more than this share of the longer side; its pieces are at least as long as that. */
const mostGap = 0.015;
const leastPiece = 0.03;
/** Of the way from its first piece to its last, as much is there at least: windows, sails and trees stand between. */
const leastCover = 0.4;
/** Of the points of an edge as many agree on one line of the grid at least: an edge that leans between two angles has fewer. */
const votesShare = 0.5;
/** So many edges of each kind say enough. */
const mostEdges = 16;

/** A long straight edge that is nearly level. */
export interface StraightEdge {
  /** Clockwise from level. */
  degrees: number;
  /** In pixels. */
  length: number;
}

/** The long straight edges that nearly level points lie on, the longest first. */
export function straightEdges(points: readonly EdgePoint[], { width, height }: Plane, side: number): StraightEdge[] {
  const angles = Array.from({ length: (2 * mostDegrees) / stepDegrees + 1 }, (_, index) => {
    return Math.tan(((index * stepDegrees - mostDegrees) * Math.PI) / 180);
  });
  const margin = Math.ceil((Math.tan((mostDegrees * Math.PI) / 180) * width) / 2) + 2;
  const rows = height + 2 * margin;
  const votes = new Int32Array(angles.length * rows);
  const cast = ({ x, y, degrees }: EdgePoint, vote: number) => {
    const first = Math.max(0, Math.ceil((degrees - strayDegrees + mostDegrees) / stepDegrees));
    const last = Math.min(angles.length - 1, Math.floor((degrees + strayDegrees + mostDegrees) / stepDegrees));
    for (let angle = first; angle <= last; angle += 1) {
      const row = Math.round(y - (x - width / 2) * (angles[angle] as number)) + margin;
      if (row >= 0 && row < rows) votes[angle * rows + row] = (votes[angle * rows + row] as number) + vote;
    }
  };
  for (const point of points) cast(point, 1);
  const left = new Set(points);
  const edges: StraightEdge[] = [];
  for (let found = 0; found < mostEdges; found += 1) {
    let [best, most] = [-1, leastLength * side * votesShare];
    for (let at = 1; at < votes.length; at += 1) {
      const sum = (votes[at] as number) + (votes[at - 1] as number);
      if (sum > most) [best, most] = [at, sum];
    }
    if (best < 0) break;
    const slope = angles[Math.floor(best / rows)] as number;
    const start = (best % rows) - 0.5 - margin;
    const on = [...left].filter(({ x, y }) => Math.abs(y - start - (x - width / 2) * slope) <= near + 0.5);
    for (const point of on) {
      left.delete(point);
      cast(point, -1);
    }
    const edge = edgeThrough(on, side);
    if (edge) edges.push(edge);
  }
  return edges;
}

/** The pieces of an edge among points that lie on a line, fitted by least squares; null where there is too little of it. */
function edgeThrough(points: readonly EdgePoint[], side: number): StraightEdge | null {
  const pieces = piecesOf(points, mostGap * side).filter((piece) => acrossOf(piece) >= leastPiece * side);
  const kept = pieces.flat();
  const length = pieces.reduce((sum, piece) => sum + acrossOf(piece), 0);
  if (length < leastLength * side || length < leastCover * acrossOf(kept)) return null;
  const middle = (value: (point: EdgePoint) => number) => kept.reduce((sum, one) => sum + value(one), 0) / kept.length;
  const [x, y] = [middle((one) => one.x), middle((one) => one.y)];
  const slope = middle((one) => (one.x - x) * (one.y - y)) / middle((one) => (one.x - x) ** 2);
  return { degrees: (Math.atan(slope) * 180) / Math.PI, length: length * Math.hypot(1, slope) };
}

/** From the first of some points to the last, which come from left to right. */
const acrossOf = (points: readonly EdgePoint[]) => (points.at(-1)?.x ?? 0) - (points[0]?.x ?? 0);

/** Points from left to right, parted where there is a gap between two. */
function piecesOf(points: readonly EdgePoint[], gap: number): EdgePoint[][] {
  const pieces: EdgePoint[][] = [];
  for (const point of [...points].sort((a, b) => a.x - b.x)) {
    const piece = pieces.at(-1);
    const last = piece?.at(-1);
    if (piece && last && point.x - last.x <= gap) piece.push(point);
    else pieces.push([point]);
  }
  return pieces;
}
