import type { Plane } from '../../planes/index.ts';

/** A picture leans by no more than this; what leans more is meant to. */
export const mostDegrees = 9;
/** A piece of an edge may point away from the edge by so much: grain turns it. */
export const strayDegrees = 4;
/** An edge changes by so many levels from one row to the next but one, and by so many times what grain does. */
const leastStep = 3;
const overGrain = 4;

/** A point of a nearly level edge, to a fraction of a row, and where the edge leads there. */
export interface EdgePoint {
  x: number;
  y: number;
  degrees: number;
}

/** The points at which a plane changes most downwards, wherever that stands out from its grain. */
export function edgePoints({ data, width, height }: Plane): EdgePoint[] {
  const down = new Float32Array(data.length);
  for (let at = width; at < data.length - width; at += 1) {
    down[at] = (data[at + width] as number) - (data[at - width] as number);
  }
  // Every seventh pixel says enough of the grain.
  const some = Math.ceil(down.length / 7);
  const grain = Float32Array.from({ length: some }, (_, at) => Math.abs(down[7 * at] as number)).sort();
  const least = Math.max(leastStep, overGrain * (grain[grain.length >> 1] ?? 0));
  const points: EdgePoint[] = [];
  for (let y = 2; y < height - 2; y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      const slope = Math.abs(down[at] as number);
      if (slope < least) continue;
      const above = Math.abs(down[at - width] as number);
      const below = Math.abs(down[at + width] as number);
      if (slope < above || slope <= below) continue;
      const across = (data[at + 1] as number) - (data[at - 1] as number);
      const degrees = Math.atan2(-across * Math.sign(down[at] as number), slope) * (180 / Math.PI);
      if (Math.abs(degrees) > mostDegrees + strayDegrees) continue;
      // The top of the parabola through the three.
      points.push({ x, y: y + (above - below) / (2 * (above - 2 * slope + below)), degrees });
    }
  }
  return points;
}
