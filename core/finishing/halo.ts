import { type Plane, PlaneMemory } from '../seeing/index.ts';

/** Where a pixel's surroundings lie no further apart than so many levels, an area is calm: what moves there is seen as noise. */
export const calmRange = 6;

/**
 * A luminance plane held within its surroundings in the plain picture: never brighter than the lightest or darker than
 * the darkest pixel within `reach` by more than `share` of their contrast; and where that is no more than `calmRange`, as it
 * is in the plain picture to half a level. From there on a pixel may move by as many levels as its surroundings have more.
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
  room.planes.limit(held, under, plane.width, plane.height, reach, share, calmRange, line, low, high);
  return room.get(held, plane);
}

/** How far a halo's surroundings reach at a radius of sharpening, in pixels of the picture. */
export const haloReach = (radius: number): number => 1 + Math.floor(radius);
