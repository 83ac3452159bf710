import type { Point } from '../geometry/index.ts';

/** A convex polygon as its corners in order; empty where there is nothing left of it. */
export type Polygon = readonly Point[];

/** The part of a polygon where `x` * x + `y` * y <= limit (Sutherland and Hodgman, 1974). */
export function clipPolygon(polygon: Polygon, x: number, y: number, limit: number): Polygon {
  // Most limits are far away from what is left: nothing is to be cut.
  if (polygon.every((corner) => x * corner.x + y * corner.y <= limit)) return polygon;
  const over = ({ x: px, y: py }: Point) => x * px + y * py - limit;
  return polygon.flatMap((corner, at) => {
    const next = polygon[(at + 1) % polygon.length] ?? corner;
    const [here, there] = [over(corner), over(next)];
    const kept = here <= 0 ? [corner] : [];
    if (here <= 0 === there <= 0) return kept;
    const share = here / (here - there);
    return [...kept, { x: corner.x + (next.x - corner.x) * share, y: corner.y + (next.y - corner.y) * share }];
  });
}

/** The point of a polygon that is nearest to `to`; null for an empty polygon. */
export function nearestPoint(polygon: Polygon, to: Point): Point | null {
  if (polygon.length > 2 && isWithin(polygon, to)) return to;
  let found: Point | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const [at, from] of polygon.entries()) {
    const edge = {
      x: (polygon[(at + 1) % polygon.length] ?? from).x - from.x,
      y: (polygon[(at + 1) % polygon.length] ?? from).y - from.y,
    };
    const length = edge.x ** 2 + edge.y ** 2;
    const along = length === 0 ? 0 : ((to.x - from.x) * edge.x + (to.y - from.y) * edge.y) / length;
    const share = Math.min(1, Math.max(0, along));
    const point = { x: from.x + share * edge.x, y: from.y + share * edge.y };
    const distance = (point.x - to.x) ** 2 + (point.y - to.y) ** 2;
    if (distance < least) [found, least] = [point, distance];
  }
  return found;
}

/** True where the point lies on the same side of every edge. */
function isWithin(polygon: Polygon, { x, y }: Point): boolean {
  let sign = 0;
  for (const [at, a] of polygon.entries()) {
    const b = polygon[(at + 1) % polygon.length] ?? a;
    const turn = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
    if (turn === 0) continue;
    if (sign !== 0 && Math.sign(turn) !== sign) return false;
    sign = Math.sign(turn);
  }
  return true;
}
