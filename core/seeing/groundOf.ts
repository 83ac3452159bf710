import { bytesToHex } from '@noble/hashes/utils.js';
import type { Ground } from '../model/index.ts';
import type { Raster } from '../planes/index.ts';
import { luminancePlane } from './luminance.ts';

/** About so many cells whatever the proportions: a wide panorama has as many as a square. */
const cells = 2048;

/** Measures how light and how busy a picture is, cell by cell. */
export function groundOf(picture: Raster): Ground {
  const { data, width, height } = luminancePlane(picture);
  const side = Math.max(1, Math.sqrt((width * height) / cells));
  const columns = Math.max(1, Math.round(width / side));
  const rows = Math.max(1, Math.round(height / side));
  const [light, spread] = [new Uint8Array(columns * rows), new Uint8Array(columns * rows)];
  const edge = (at: number, count: number, length: number) => Math.floor((at * length) / count);
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      let [sum, squares, count] = [0, 0, 0];
      for (let y = edge(row, rows, height); y < edge(row + 1, rows, height); y += 1) {
        for (let x = edge(column, columns, width); x < edge(column + 1, columns, width); x += 1) {
          const value = data[y * width + x] as number;
          sum += value;
          squares += value * value;
          count += 1;
        }
      }
      const mean = sum / Math.max(1, count);
      light[row * columns + column] = Math.round(mean);
      spread[row * columns + column] = Math.round(Math.sqrt(Math.max(0, squares / Math.max(1, count) - mean * mean)));
    }
  }
  return { columns, rows, light: bytesToHex(light), spread: bytesToHex(spread) };
}
