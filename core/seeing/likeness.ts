import type { Rect } from '../geometry/index.ts';

/** Values at some rows of a picture, or of the same picture scaled down, with the mean of any rectangle at hand. */
export class LikenessMap {
  private readonly sums: Float64Array;

  /**
   * @param values row by row
   * @param stride values from one row to the next
   * @param scale pixels of the whole picture to one value, each way
   * @param first of the rows that the map has, then every `step`th, both in rows of the scaled picture
   */
  constructor(
    values: Float32Array,
    private readonly width: number,
    private readonly rows: number,
    stride: number,
    private readonly scale: number,
    private readonly first: number,
    private readonly step: number,
  ) {
    // A summed-area table (Crow 1984).
    const across = width + 1;
    const sums = new Float64Array(across * (rows + 1));
    for (let y = 0; y < rows; y += 1) {
      let row = 0;
      for (let x = 0; x < width; x += 1) {
        row += values[y * stride + x] as number;
        sums[(y + 1) * across + x + 1] = (sums[y * across + x + 1] as number) + row;
      }
    }
    this.sums = sums;
  }

  /** The mean of the values in a rectangle of the whole picture, in pixels; of the nearest where it holds none. */
  mean({ left, top, width, height }: Rect): number {
    const columns = span(left / this.scale, (left + width) / this.scale, this.width);
    const rowAt = (y: number) => (y / this.scale - this.first) / this.step;
    const rows = span(rowAt(top), rowAt(top + height), this.rows);
    const across = this.width + 1;
    const corner = (x: number, y: number) => this.sums[y * across + x] as number;
    const sum =
      corner(columns.to, rows.to) -
      corner(columns.from, rows.to) -
      corner(columns.to, rows.from) +
      corner(columns.from, rows.from);
    return sum / ((columns.to - columns.from) * (rows.to - rows.from));
  }
}

/** Whole places from `low` up to, not including, `high`, at least one, and none outside of `0..count`. */
function span(low: number, high: number, count: number): { from: number; to: number } {
  const from = Math.max(0, Math.min(count - 1, Math.ceil(low)));
  return { from, to: Math.max(from + 1, Math.min(count, Math.ceil(high))) };
}
