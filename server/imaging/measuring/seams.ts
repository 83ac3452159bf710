import type { Grid } from '@inkwell/core/geometry';
import type { SeamStep } from '@inkwell/core/model';
import sharp from 'sharp';
import { mapTwoAtATime } from '../../mapTwoAtATime.ts';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';

/** A piece as it was encoded. */
interface Encoded {
  data: Buffer;
  quality: number | null;
}

/** What of the undivided picture is encoded round a seam: as many pixels on each side, from a whole block on. */
const around = 48;
/** Encoders work on blocks of this many pixels: a band that begins on one is encoded as it would be in the whole. */
const block = 16;

/**
 * How large the step is across every seam between two pieces that touch, as decoded, beside the step at the same
 * place of the undivided picture at the same quality: the difference is what cutting before encoding costs. In levels of
 * 255, the mean over the seam. Empty for lossless formats and bridged gaps, where there is nothing to compare.
 *
 * @param encode encodes pixels as the pieces were encoded
 */
export async function seamSteps(
  whole: Pixels,
  grid: Grid,
  pieces: readonly Encoded[],
  encode: (pixels: Pixels, quality: number) => Promise<Buffer>,
): Promise<Map<number, SeamStep[]>> {
  const found = new Map<number, SeamStep[]>();
  if (grid.bridge > 0 || pieces.some(({ quality }) => quality === null)) return found;
  const decoded: Buffer[] = [];
  await mapTwoAtATime(pieces, async ({ data }, index) => {
    decoded[index] = await sharp(data).raw().toBuffer();
  });
  const { width, height } = grid.piece;
  const { channels } = whole;
  await mapTwoAtATime(pieces, async (_, index) => {
    const [column, row] = [index % grid.columns, Math.floor(index / grid.columns)];
    const steps: SeamStep[] = [];
    for (const axis of ['x', 'y'] as const) {
      const next = axis === 'x' ? index + 1 : index + grid.columns;
      const hasNext = axis === 'x' ? column + 1 < grid.columns : row + 1 < grid.rows;
      const [here, there] = [decoded[index], decoded[next]];
      if (!hasNext || !here || !there) continue;
      const length = axis === 'x' ? height : width;
      const before = edge(here, width, channels, axis, axis === 'x' ? width - 1 : height - 1);
      const after = edge(there, width, channels, axis, 0);
      const seam = axis === 'x' ? (column + 1) * width : (row + 1) * height;
      const start = Math.max(0, Math.floor((seam - around) / block) * block);
      const band =
        axis === 'x'
          ? { left: start, top: row * height, width: Math.min(whole.width, seam + around) - start, height }
          : { left: column * width, top: start, width, height: Math.min(whole.height, seam + around) - start };
      const quality = Math.min(pieces[index]?.quality ?? 0, pieces[next]?.quality ?? 0);
      const pixels = await fromPixels(whole).extract(band).raw().toBuffer({ resolveWithObject: true });
      const undivided = await sharp(
        await encode({ data: pixels.data, width: band.width, height: band.height, channels }, quality),
      )
        .raw()
        .toBuffer();
      const at = seam - start;
      steps.push({
        next,
        step: mean(before, after, length * channels),
        undivided: mean(
          edge(undivided, band.width, channels, axis, at - 1),
          edge(undivided, band.width, channels, axis, at),
          length * channels,
        ),
      });
    }
    if (steps.length > 0) found.set(index, steps);
  });
  return found;
}

/**
 * How large the step is across every seam between two pieces that touch, by the index of the first: in levels of 255, the mean over the
 * seam. Pieces may have been scaled, all of them alike.
 *
 * @param files of all pieces, in reading order
 */
export async function stepsBetween(
  files: readonly Buffer[],
  { columns, rows }: Pick<Grid, 'columns' | 'rows'>,
): Promise<Map<number, { next: number; step: number }[]>> {
  const pieces = await Promise.all(
    files.map((data) => toPixels(sharp(data).flatten({ background: 'white' }).toColourspace('srgb'))),
  );
  return new Map(
    pieces.map((here, index) => {
      const [column, row] = [index % columns, Math.floor(index / columns)];
      const seams = (['x', 'y'] as const).flatMap((axis) => {
        const next = axis === 'x' ? index + 1 : index + columns;
        const there = (axis === 'x' ? column + 1 < columns : row + 1 < rows) ? pieces[next] : undefined;
        if (!there || there.width !== here.width || there.height !== here.height) return [];
        const { width, height, channels } = here;
        const before = edge(here.data, width, channels, axis, axis === 'x' ? width - 1 : height - 1);
        const after = edge(there.data, width, channels, axis, 0);
        return [{ next, step: mean(before, after, (axis === 'x' ? height : width) * channels) }];
      });
      return [index, seams];
    }),
  );
}

/** A column (axis x) or row (axis y) of pixels, one after the other. */
function edge(data: Buffer, width: number, channels: number, axis: 'x' | 'y', at: number): Uint8Array {
  if (axis === 'y') return data.subarray(at * width * channels, (at + 1) * width * channels);
  const height = data.length / (width * channels);
  const column = new Uint8Array(height * channels);
  for (let y = 0; y < height; y += 1) {
    const from = (y * width + at) * channels;
    column.set(data.subarray(from, from + channels), y * channels);
  }
  return column;
}

function mean(a: Uint8Array, b: Uint8Array, count: number): number {
  let sum = 0;
  for (let at = 0; at < count; at += 1) sum += Math.abs((a[at] ?? 0) - (b[at] ?? 0));
  return Math.round((sum / count) * 100) / 100;
}
