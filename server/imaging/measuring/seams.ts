import type { Grid } from '@inkwell/core/geometry';
import type { SeamStep } from '@inkwell/core/model';
import sharp from 'sharp';
import { mapTwoAtATime } from '../../running/mapTwoAtATime.ts';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';
import { columnOf, type Edges, rowOf } from './edges.ts';
import { openedEdges } from './opening.ts';

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
  const edges: Edges[] = [];
  await mapTwoAtATime(pieces, async ({ data }, index) => {
    edges[index] = await openedEdges(data);
  });
  const { width, height } = grid.piece;
  await mapTwoAtATime(pieces, async (_, index) => {
    const [column, row] = [index % grid.columns, Math.floor(index / grid.columns)];
    const steps: SeamStep[] = [];
    for (const axis of ['x', 'y'] as const) {
      const next = axis === 'x' ? index + 1 : index + grid.columns;
      const hasNext = axis === 'x' ? column + 1 < grid.columns : row + 1 < grid.rows;
      const [here, there] = [edges[index], edges[next]];
      if (!hasNext || !here || !there) continue;
      const seam = axis === 'x' ? (column + 1) * width : (row + 1) * height;
      const start = Math.max(0, Math.floor((seam - around) / block) * block);
      const band =
        axis === 'x'
          ? { left: start, top: row * height, width: Math.min(whole.width, seam + around) - start, height }
          : { left: column * width, top: start, width, height: Math.min(whole.height, seam + around) - start };
      const quality = Math.min(pieces[index]?.quality ?? 0, pieces[next]?.quality ?? 0);
      const pixels = await toPixels(fromPixels(whole).extract(band));
      const undivided = await toPixels(sharp(await encode(pixels, quality)).toColourspace('srgb'));
      const line = axis === 'x' ? columnOf : rowOf;
      const at = seam - start;
      steps.push({
        next,
        step: axis === 'x' ? apart(here.right, there.left) : apart(here.bottom, there.top),
        undivided: apart(line(undivided, at - 1), line(undivided, at)),
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
        const step =
          axis === 'x'
            ? apart(columnOf(here, here.width - 1), columnOf(there, 0))
            : apart(rowOf(here, here.height - 1), rowOf(there, 0));
        return [{ next, step }];
      });
      return [index, seams];
    }),
  );
}

/** How far two lines of pixels are apart: the mean over their values, in levels of 255. */
function apart(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at += 1) sum += Math.abs((a[at] as number) - (b[at] ?? 0));
  return Math.round((sum / a.length) * 100) / 100;
}
