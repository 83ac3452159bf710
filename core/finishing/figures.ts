import type { FinishFigures, PictureFigures } from '../model/index.ts';
import { localRange, luminancePlane, type Plane, type Raster } from '../seeing/index.ts';
import { meansOf } from './compensate.ts';

/** Surroundings in which the contrast of an edge is seen, in pixels each way. */
const reach = 2;
/** A place with at least this much contrast, in levels, is an edge. */
const edgeContrast = 40;
/** A place with less than this is calm: what moves there is noise. */
const calmContrast = 12;

const round = (value: number, to: number) => Math.round(value * to) / to;

/**
 * What finishing has done to a picture, measured on both at their final dimensions.
 *
 * @param untoned the finished picture before tone and saturation were set, where they were: against a picture of other
 *   contrast no halo could be measured
 */
export function finishFigures(plain: Raster, finished: Raster, untoned = finished): FinishFigures {
  const [before, after] = [luminancePlane(plain), luminancePlane(finished)];
  const { low, high } = localRange(before, reach);
  return {
    plain: pictureFigures(plain, before, low, high),
    finished: pictureFigures(finished, after, low, high),
    halo: round(haloOf(untoned === finished ? after : luminancePlane(untoned), low, high), 1000),
  };
}

function pictureFigures(raster: Raster, plane: Plane, low: Float32Array, high: Float32Array): PictureFigures {
  const { luminance, chroma } = meansOf(raster);
  let [shadows, lights] = [0, 0];
  for (const value of plane.data) {
    if (value < 0.5) shadows += 1;
    if (value > 254.5) lights += 1;
  }
  return {
    acutance: round(acutanceOf(plane), 100),
    luminance: round(luminance, 100),
    chroma: round(chroma, 100),
    shadows: round(shadows / plane.data.length, 100_000),
    lights: round(lights / plane.data.length, 100_000),
    noise: round(noiseOf(plane, low, high), 100),
  };
}

/**
 * The energy of edges: the root of the mean square of the gradient (central differences), in levels a pixel. It grows
 * with sharpness and, for one picture at one scale, with nothing else.
 */
export function acutanceOf({ data, width, height }: Plane): number {
  if (width < 3 || height < 3) return 0;
  let sum = 0;
  for (let y = 1; y < height - 1; y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      const across = ((data[at + 1] as number) - (data[at - 1] as number)) / 2;
      const down = ((data[at + width] as number) - (data[at - width] as number)) / 2;
      sum += across * across + down * down;
    }
  }
  return Math.sqrt(sum / ((width - 2) * (height - 2)));
}

/** How far edges overshoot and undershoot their surroundings in the plain picture: the mean share of the contrast, 0..1. */
export function haloOf(finished: Plane, low: Float32Array, high: Float32Array): number {
  let [sum, edges] = [0, 0];
  for (let at = 0; at < finished.data.length; at += 1) {
    const darkest = low[at] as number;
    const lightest = high[at] as number;
    if (lightest - darkest < edgeContrast) continue;
    const value = finished.data[at] as number;
    sum += Math.max(0, value - lightest, darkest - value) / (lightest - darkest);
    edges += 1;
  }
  return edges === 0 ? 0 : sum / edges;
}

/** How much calm places move: the mean difference of a pixel to the mean of its four neighbours, in levels. */
function noiseOf({ data, width, height }: Plane, low: Float32Array, high: Float32Array): number {
  let [sum, calm] = [0, 0];
  for (let y = 1; y < height - 1; y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const at = y * width + x;
      if ((high[at] as number) - (low[at] as number) >= calmContrast) continue;
      const around =
        (data[at - 1] as number) +
        (data[at + 1] as number) +
        (data[at - width] as number) +
        (data[at + width] as number);
      sum += Math.abs((data[at] as number) - around / 4);
      calm += 1;
    }
  }
  return calm === 0 ? 0 : sum / calm;
}
