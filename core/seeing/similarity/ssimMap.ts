import type { Rect } from '../../geometry/index.ts';
import type { PlaneMemory } from '../../planes/index.ts';

/** Where the values of a map lie in the whole picture. */
export interface MapPlace {
  /** Pixels of the whole picture to one value, each way. */
  scale: number;
  /** The map has every `across`th column, from the first on. */
  across: number;
  /** Of the rows that the map has, then every `step`th, both in rows of the scaled picture. */
  first: number;
  step: number;
}

/**
 * Reserves the memory that it takes to know the mean of any rectangle of a plane; what comes back sums the plane up once it is
 * filled.
 */
export function mapMeans(arena: PlaneMemory, width: number, rows: number, place: MapPlace): (plane: number) => SsimMap {
  const entries = (width + 1) * (rows + 1);
  const sums = arena.reserve((entries * Float64Array.BYTES_PER_ELEMENT) / Float32Array.BYTES_PER_ELEMENT);
  return (plane) => {
    arena.kernels.sumUp(plane, width, rows, sums);
    return new SsimMap(arena.doubles(sums, entries), width, rows, place);
  };
}

/**
 * Values at some rows of a picture, or of the same picture scaled down, with the mean of any rectangle at hand: until the
 * memory that they were made in is used for something else.
 */
export class SsimMap {
  /** @param sums a summed-area table, with a first row and a first column of nothing */
  constructor(
    private readonly sums: Float64Array,
    private readonly width: number,
    private readonly rows: number,
    private readonly place: MapPlace,
  ) {}

  /** The mean of the values in a rectangle of the whole picture, in pixels; of the nearest where it holds none. */
  mean({ left, top, width, height }: Rect): number {
    const { scale, across: apart, first, step } = this.place;
    const from = begin(left / (scale * apart), this.width);
    const to = end((left + width) / (scale * apart), from, this.width);
    const above = begin((top / scale - first) / step, this.rows);
    const below = end(((top + height) / scale - first) / step, above, this.rows);
    const across = this.width + 1;
    const { sums } = this;
    const sum =
      (sums[below * across + to] as number) -
      (sums[below * across + from] as number) -
      (sums[above * across + to] as number) +
      (sums[above * across + from] as number);
    return sum / ((to - from) * (below - above));
  }
}

/** The first whole place from `low` on, within `0..count`; thousands are asked for each picture, so nothing is allocated. */
const begin = (low: number, count: number) => Math.max(0, Math.min(count - 1, Math.ceil(low)));

/** The first whole place that is not before `high` any more, and at least one after the beginning. */
const end = (high: number, from: number, count: number) => Math.max(from + 1, Math.min(count, Math.ceil(high)));
