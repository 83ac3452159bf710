import type { Plane } from '../seeing/index.ts';

/**
 * Holds luminance within that of its surroundings in the plain picture, in place: never brighter than the lightest or
 * darker than the darkest pixel within `reach` by more than `share` of their contrast.
 *
 * @param reach whole pixels each way
 */
export function limitHalos({ data, width, height }: Plane, plain: Plane, share: number, reach: number): void {
  for (let y = 0; y < height; y += 1) {
    const [top, bottom] = [Math.max(0, y - reach), Math.min(height - 1, y + reach)];
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      const value = data[at] as number;
      // What hardly moved is within its surroundings, for it is one of them.
      const moved = value - (plain.data[at] as number);
      if (moved < unseen && moved > -unseen) continue;
      const right = x + reach < width ? x + reach : width - 1;
      let low = plain.data[at] as number;
      let high = low;
      for (let row = top; row <= bottom; row += 1) {
        for (let near = x > reach ? x - reach : 0; near <= right; near += 1) {
          const other = plain.data[row * width + near] as number;
          if (other < low) low = other;
          if (other > high) high = other;
        }
      }
      const allowed = share * (high - low);
      if (value > high + allowed) data[at] = high + allowed;
      else if (value < low - allowed) data[at] = low - allowed;
    }
  }
}

/** A tenth of a level is lost in rounding. */
const unseen = 0.1;

/** How far a halo's surroundings reach at a radius of sharpening, in pixels of the picture. */
export const haloReach = (radius: number): number => 1 + Math.floor(radius);
