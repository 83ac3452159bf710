import { localRange, type Plane } from '../seeing/index.ts';

/**
 * Holds luminance within that of its surroundings in the plain picture, in place: never brighter than the lightest or
 * darker than the darkest pixel within `reach` by more than `share` of their contrast.
 *
 * @param reach whole pixels each way
 */
export function limitHalos({ data }: Plane, plain: Plane, share: number, reach: number): void {
  const { low, high } = localRange(plain, reach);
  for (let at = 0; at < data.length; at += 1) {
    const darkest = low[at] as number;
    const lightest = high[at] as number;
    const allowed = share * (lightest - darkest);
    const value = data[at] as number;
    if (value > lightest + allowed) data[at] = lightest + allowed;
    else if (value < darkest - allowed) data[at] = darkest - allowed;
  }
}

/** How far a halo's surroundings reach at a radius of sharpening, in pixels of the picture. */
export const haloReach = (radius: number): number => 1 + Math.floor(radius);
