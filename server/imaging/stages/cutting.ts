import { type Grid, piecesOf } from '@inkwell/core/geometry';
import type { RenderPlan } from '@inkwell/core/planning';
import sharp, { type Sharp } from 'sharp';
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

/** The opened files of a plan, put together again; what lies between bridged pieces stays empty. */
export async function putTogether(
  { grid, output }: Pick<RenderPlan, 'grid' | 'output'>,
  files: readonly Buffer[],
): Promise<Sharp> {
  const [first] = files;
  if (!grid) return sharp(first, { limitInputPixels: false }).toColourspace('srgb');
  const pieces = piecesOf(grid).map(({ left, top }, index) => ({ input: files[index] as Buffer, left, top }));
  const canvas = { ...output, channels: 4 as const, background: { r: 0, g: 0, b: 0, alpha: 0 } };
  const { data, info } = await sharp({ create: canvas }).composite(pieces).raw().toBuffer({ resolveWithObject: true });
  return sharp(data, { raw: info, limitInputPixels: false });
}
