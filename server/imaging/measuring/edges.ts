import type { Pixels } from '../stages/pixels.ts';

/** The outermost pixels of a picture, each row or column one after the other. */
export type Edges = Record<'left' | 'right' | 'top' | 'bottom', Uint8Array>;

/** The outermost pixels of a picture, copied. */
export const edgesOf = (pixels: Pixels): Edges => ({
  left: columnOf(pixels, 0),
  right: columnOf(pixels, pixels.width - 1),
  top: rowOf(pixels, 0),
  bottom: rowOf(pixels, pixels.height - 1),
});

/** A row of pixels. */
export const rowOf = ({ data, width, channels }: Pixels, at: number): Uint8Array =>
  Uint8Array.from(data.subarray(at * width * channels, (at + 1) * width * channels));

/** A column of pixels. */
export function columnOf({ data, width, height, channels }: Pixels, at: number): Uint8Array {
  const column = new Uint8Array(height * channels);
  for (let y = 0; y < height; y += 1) {
    const from = (y * width + at) * channels;
    column.set(data.subarray(from, from + channels), y * channels);
  }
  return column;
}
