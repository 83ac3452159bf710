import type { FinishFigures, PictureFigures } from '../model/index.ts';
import { type Plane, type Raster, rowsOf } from '../planes/index.ts';
import { localRange, luminancePlane } from '../seeing/index.ts';
import { meansOf } from './colouring/compensate.ts';

/** Surroundings in which the contrast of an edge is seen, in pixels each way. */
const radius = 2;
/** A place with at least this much contrast, in levels, is an edge. */
const edgeContrast = 40;
/** A place with less than this is calm: what moves there is noise. */
const calmContrast = 12;

const round = (value: number, to: number) => Math.round(value * to) / to;

/** So many rows are measured at once, so that a long strip does not take several planes of itself. */
const bandRows = 256;

/**
 * What finishing has done to a picture, measured on both at their final dimensions.
 *
 * @param untoned the finished picture before tone and saturation were set, where they were: against a picture of other
 *   contrast no halo could be measured
 */
export function finishFigures(plain: Raster, finished: Raster, untoned = finished): FinishFigures {
  const [before, after] = [noEdges(), noEdges()];
  let halo = nothing;
  for (let top = 0; top < plain.height; top += bandRows) {
    const first = Math.max(0, top - radius);
    const last = Math.min(plain.height, top + bandRows + radius);
    const rows: Rows = { from: top - first, to: Math.min(plain.height, top + bandRows) - first };
    const plane = (raster: Raster) => luminancePlane(rowsOf(raster, first, last));
    const [plainPlane, finishedPlane] = [plane(plain), plane(finished)];
    const range = localRange(plainPlane, radius);
    addEdges(before, plainPlane, range, rows);
    addEdges(after, finishedPlane, range, rows);
    halo = plus(halo, overshoot(untoned === finished ? finishedPlane : plane(untoned), range, rows));
  }
  return {
    plain: pictureFigures(plain, before),
    finished: pictureFigures(finished, after),
    halo: round(mean(halo), 1000),
  };
}

/** A sum, and of how many. */
interface Sum {
  sum: number;
  count: number;
}
const nothing: Sum = { sum: 0, count: 0 };
const plus = (a: Sum, b: Sum): Sum => ({ sum: a.sum + b.sum, count: a.count + b.count });
const mean = ({ sum, count }: Sum) => (count === 0 ? 0 : sum / count);

/** The rows of a plane that count; the others are there as their surroundings. */
interface Rows {
  from: number;
  to: number;
}
type Range = ReturnType<typeof localRange>;

interface Edges {
  slopes: Sum;
  noise: Sum;
  black: Sum;
  white: Sum;
}
const noEdges = (): Edges => ({ slopes: nothing, noise: nothing, black: nothing, white: nothing });

function addEdges(edges: Edges, plane: Plane, range: Range, rows: Rows): void {
  edges.slopes = plus(edges.slopes, slopes(plane, rows));
  edges.noise = plus(edges.noise, flatAreaNoise(plane, range, rows));
  const seen = plane.data.subarray(rows.from * plane.width, rows.to * plane.width);
  let [black, white] = [0, 0];
  for (const value of seen) {
    if (value < 0.5) black += 1;
    if (value > 254.5) white += 1;
  }
  edges.black = plus(edges.black, { sum: black, count: seen.length });
  edges.white = plus(edges.white, { sum: white, count: seen.length });
}

function pictureFigures(raster: Raster, { slopes, noise, black, white }: Edges): PictureFigures {
  const { luminance, chroma } = meansOf(raster);
  return {
    acutance: round(Math.sqrt(mean(slopes)), 100),
    luminance: round(luminance, 100),
    chroma: round(chroma, 100),
    shadows: round(mean(black), 100_000),
    lights: round(mean(white), 100_000),
    noise: round(mean(noise), 100),
  };
}

/**
 * The energy of edges: the root of the mean square of the gradient (central differences), in levels a pixel. It grows
 * with sharpness and, for one picture at one scale, with nothing else.
 */
export const acutanceOf = (plane: Plane): number => Math.sqrt(mean(slopes(plane, { from: 0, to: plane.height })));

/** How far edges overshoot and undershoot their surroundings in the plain picture: the mean share of the contrast, 0..1. */
export const haloOf = (finished: Plane, low: Float32Array, high: Float32Array): number =>
  mean(overshoot(finished, { low, high }, { from: 0, to: finished.height }));

/** Squares of the gradient. */
function slopes({ data, width, height }: Plane, { from, to }: Rows): Sum {
  let [sum, count] = [0, 0];
  for (let y = Math.max(1, from); y < Math.min(height - 1, to); y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      const across = ((data[at + 1] as number) - (data[at - 1] as number)) / 2;
      const down = ((data[at + width] as number) - (data[at - width] as number)) / 2;
      sum += across * across + down * down;
      count += 1;
    }
  }
  return { sum, count };
}

/** At edges, the share of the contrast by which a plane leaves its surroundings. */
function overshoot({ data, width }: Plane, { low, high }: Range, { from, to }: Rows): Sum {
  let [sum, count] = [0, 0];
  for (let at = from * width; at < to * width; at += 1) {
    const darkest = low[at] as number;
    const lightest = high[at] as number;
    if (lightest - darkest < edgeContrast) continue;
    const value = data[at] as number;
    sum += Math.max(0, value - lightest, darkest - value) / (lightest - darkest);
    count += 1;
  }
  return { sum, count };
}

/** In calm places, the difference of a pixel to the mean of its four neighbours, in levels. */
function flatAreaNoise({ data, width, height }: Plane, { low, high }: Range, { from, to }: Rows): Sum {
  let [sum, count] = [0, 0];
  for (let y = Math.max(1, from); y < Math.min(height - 1, to); y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      if ((high[at] as number) - (low[at] as number) >= calmContrast) continue;
      const around =
        (data[at - 1] as number) +
        (data[at + 1] as number) +
        (data[at - width] as number) +
        (data[at + width] as number);
      sum += Math.abs((data[at] as number) - around / 4);
      count += 1;
    }
  }
  return { sum, count };
}
