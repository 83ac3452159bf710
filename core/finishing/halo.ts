import { type Plane, PlaneMemory } from '../seeing/index.ts';

/**
 * A luminance plane held within its surroundings in the plain picture: never brighter than the lightest or darker than
 * the darkest pixel within `reach` by more than `share` of their contrast.
 *
 * @param reach whole pixels each way
 */
export function withinHalo(plane: Plane, plain: Plane, share: number, reach: number): Plane {
  const room = new PlaneMemory();
  const [held, under, low, high] = [plane, plain, plane, plane].map((one) => room.takePlane(one)) as [
    number,
    number,
    number,
    number,
  ];
  const line = room.take(plane.width + 2 * reach + 8);
  room.open();
  room.put(held, plane);
  room.put(under, plain);
  room.planes.limit(held, under, plane.width, plane.height, reach, share, line, low, high);
  return room.get(held, plane);
}

/** How far a halo's surroundings reach at a radius of sharpening, in pixels of the picture. */
export const haloReach = (radius: number): number => 1 + Math.floor(radius);
