import { calmRange, inPlaneMemory, limitHalo, type Plane } from '../../planes/index.ts';

/**
 * A luminance plane held within its surroundings in the plain picture: never brighter than the lightest or darker than
 * the darkest pixel within `radius` by more than `share` of their contrast; and where that is no more than `calmRange`, as it
 * is in the plain picture to half a level. From there on a pixel may move by as many levels as its surroundings have more.
 *
 * @param radius whole pixels each way
 */
export function withinHalo(plane: Plane, plain: Plane, share: number, radius: number): Plane {
  const { width, height } = plane;
  return inPlaneMemory((arena) => {
    const [held, under] = [arena.reservePlane(plane), arena.reservePlane(plain)];
    const [low, high] = [arena.reservePlane(plane), arena.reservePlane(plane)];
    const line = arena.reserve(width + 2 * radius + 8);
    arena.commit();
    arena.put(held, plane);
    arena.put(under, plain);
    limitHalo(arena, { at: held, width, height }, { plain: under, radius, share, calm: calmRange, line, low, high });
    return arena.get(held, plane);
  });
}

/** How far a halo's surroundings reach at a radius of sharpening, in pixels of the picture. */
export const haloRadius = (radius: number): number => 1 + Math.floor(radius);
