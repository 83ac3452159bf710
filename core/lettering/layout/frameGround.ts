import { hexToBytes } from '@noble/hashes/utils.js';
import { frameToOriginal, type Rect } from '../../geometry/index.ts';
import type { Dimensions, Ground, Window } from '../../model/index.ts';

/** What lies under a rectangle of a frame, in levels of 255. */
export interface Under {
  light: number;
  /** Standard deviation, within cells and between them. */
  spread: number;
}

/** The picture under a frame, as words see it. */
export interface FrameGround {
  under(rect: Rect): Under;
}

/** Cells along the longer side of a frame. */
const longSide = 48;

/** A frame of which nothing is known: calm, and neither light nor dark. */
const unknown: FrameGround = { under: () => ({ light: 128, spread: 0 }) };

/**
 * The ground of an original as a frame's window shows it.
 *
 * @param content where in the file the picture lies, in pixels of the file
 * @param original dimensions of the original
 */
export function frameGround(
  ground: Ground | null,
  window: Window,
  content: Rect,
  stretch: number,
  original: Dimensions,
): FrameGround {
  if (!ground) return unknown;
  const { columns, rows } = ground;
  const [light, spread] = [hexToBytes(ground.light), hexToBytes(ground.spread)];
  const share = longSide / Math.max(content.width, content.height);
  const across = Math.max(4, Math.round(content.width * share));
  const down = Math.max(4, Math.round(content.height * share));
  const output = { width: content.width, height: content.height * stretch };
  // Sums over all cells above and to the left, so that any rectangle is four of them (Crow 1984).
  const stride = across + 1;
  const [sums, squares] = [new Float64Array(stride * (down + 1)), new Float64Array(stride * (down + 1))];
  for (let y = 0; y < down; y += 1) {
    let [row, rowSquares] = [0, 0];
    for (let x = 0; x < across; x += 1) {
      const at = frameToOriginal(window, output, {
        x: ((x + 0.5) * output.width) / across,
        y: ((y + 0.5) * output.height) / down,
      });
      const column = Math.min(columns - 1, Math.max(0, Math.floor((at.x * columns) / original.width)));
      const line = Math.min(rows - 1, Math.max(0, Math.floor((at.y * rows) / original.height)));
      const cell = line * columns + column;
      const [mean, deviation] = [light[cell] as number, spread[cell] as number];
      row += mean;
      rowSquares += mean * mean + deviation * deviation;
      const here = (y + 1) * stride + x + 1;
      sums[here] = (sums[here - stride] as number) + row;
      squares[here] = (squares[here - stride] as number) + rowSquares;
    }
  }
  const cellsOf = (from: number, length: number, whole: number, count: number): [number, number] => {
    const first = Math.min(count - 1, Math.max(0, Math.floor((from * count) / whole)));
    const last = Math.min(count, Math.max(first + 1, Math.ceil(((from + length) * count) / whole)));
    return [first, last];
  };
  return {
    under: ({ left, top, width, height }) => {
      const [x0, x1] = cellsOf(left - content.left, width, content.width, across);
      const [y0, y1] = cellsOf(top - content.top, height, content.height, down);
      const sum = (of: Float64Array) =>
        (of[y1 * stride + x1] as number) -
        (of[y0 * stride + x1] as number) -
        (of[y1 * stride + x0] as number) +
        (of[y0 * stride + x0] as number);
      const count = (x1 - x0) * (y1 - y0);
      const mean = sum(sums) / count;
      return { light: mean, spread: Math.sqrt(Math.max(0, sum(squares) / count - mean * mean)) };
    },
  };
}
