import { type Grid, piecesOf } from '@inkwell/core/geometry';
import { fromPixels, type Pixels, toPixels } from './pixels.ts';

/**
 * Cuts a picture into the pieces of a grid, in reading order. Nothing is resampled: put together again the pieces are
 * the picture bit for bit, and that is looked at before they go anywhere.
 *
 * @throws where they are not
 */
export async function cutPieces(whole: Pixels, grid: Grid): Promise<Pixels[]> {
  const rects = piecesOf(grid);
  const pieces: Pixels[] = [];
  for (const rect of rects) pieces.push(await toPixels(fromPixels(whole).extract(rect)));
  for (const [index, { left, top }] of rects.entries()) {
    const piece = pieces[index];
    if (!piece || !liesIn(whole, piece, left, top)) {
      throw new Error(`Piece ${index + 1} of ${rects.length} is not the part of the picture that it has to be.`);
    }
  }
  return pieces;
}

function liesIn(whole: Pixels, piece: Pixels, left: number, top: number): boolean {
  if (whole.channels !== piece.channels) return false;
  const row = piece.width * piece.channels;
  for (let y = 0; y < piece.height; y += 1) {
    const at = ((top + y) * whole.width + left) * whole.channels;
    if (whole.data.compare(piece.data, y * row, (y + 1) * row, at, at + row) !== 0) return false;
  }
  return true;
}
