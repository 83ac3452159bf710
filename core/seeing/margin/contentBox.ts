import type { Rect } from '../../geometry/index.ts';
import type { Raster } from '../../planes/index.ts';
import { contentTest, marginOf } from './margin.ts';

export interface ContentOptions {
  /** How far a channel may differ from the margin's colour and still belong to the margin, in levels of 255. @default 12 */
  tolerance?: number;
  /** Whether a soft shadow round the content belongs to it. @default true */
  shadow?: boolean;
}

/** A row or column with no more content pixels than this part of its length shows specks of dust, not content. */
const dust = 0.002;

/**
 * The rectangle that holds the content of a picture with an empty margin: everything that is not transparent, or does
 * not have the colour of the picture's rim. Null where nothing but margin is there.
 */
export function contentBox(pixels: Raster, { tolerance = 12, shadow = true }: ContentOptions = {}): Rect | null {
  const { width, height } = pixels;
  const isContent = contentTest(pixels, marginOf(pixels, tolerance), tolerance, shadow);
  const rows = new Uint32Array(height);
  const columns = new Uint32Array(width);
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 1) {
      if (!isContent(at)) continue;
      rows[y] = (rows[y] ?? 0) + 1;
      columns[x] = (columns[x] ?? 0) + 1;
    }
  }
  const down = extent(rows, 1 + Math.floor(width * dust));
  const across = extent(columns, 1 + Math.floor(height * dust));
  if (!down || !across) return null;
  return { left: across.first, top: down.first, width: across.length, height: down.length };
}

function extent(counts: Uint32Array, least: number): { first: number; length: number } | null {
  const first = counts.findIndex((count) => count >= least);
  if (first < 0) return null;
  const last = counts.findLastIndex((count) => count >= least);
  return { first, length: last - first + 1 };
}
