import { luminanceOf, type Raster } from '../seeing/index.ts';
import { alphaOf, type Levels, levelsOf } from './levels.ts';

/** The mean luminance and the mean chroma of a picture, in levels of 255. */
export interface Means {
  luminance: number;
  /** The length of the two colour differences (ITU-R BT.709). */
  chroma: number;
}

/** A midtone curve and a factor on colourfulness; 1 and 1 change nothing. */
export interface Correction {
  midtones: number;
  saturation: number;
}

export const noCorrection: Correction = { midtones: 1, saturation: 1 };

/** Full range of blue and red less luminance, by which chroma is scaled (ITU-R BT.709). */
const blueRange = 2 * (1 - luminanceOf.blue);
const redRange = 2 * (1 - luminanceOf.red);
function chromaOf(y: number, r: number, b: number): number {
  const x = (b - y) / blueRange;
  const z = (r - y) / redRange;
  return Math.sqrt(x * x + z * z);
}
const { red, green, blue } = luminanceOf;
const wholeLevel = (value: number) => (value <= 0 ? 0 : value >= 255 ? 255 : (value + 0.5) | 0);

const curveSteps = 4;
/** The midtone curve as a table in quarter levels: black and white stay, what lies between is lifted or lowered. */
function midtoneTable(midtones: number): Float32Array {
  return Float32Array.from(
    { length: 255 * curveSteps + 1 },
    (_, at) => 255 * (at / (255 * curveSteps)) ** (1 / midtones),
  );
}
/** Between two entries of the table the curve is drawn straight, so that a curve that changes nothing does so exactly. */
function lookUp(table: Float32Array, level: number): number {
  if (level <= 0) return 0;
  if (level >= 255) return 255;
  const at = level * curveSteps;
  const below = at | 0;
  const low = table[below] as number;
  return low + (at - below) * ((table[below + 1] as number) - low);
}

/** What is more transparent than this is hardly seen and has no say. */
const seenAlpha = 128;

/**
 * Means of levels after a correction, as they will be once they are whole levels again. This is gone through a dozen
 * times for every picture, hence the plain arithmetic.
 *
 * @param alpha of each pixel; null where there is none
 * @param step looks at every pixel, or at one in so many
 */
export function meansOf(
  levels: Levels,
  alpha: Uint8Array | null,
  correction: Correction = noCorrection,
  step = 1,
): Means {
  const { data, colours } = levels;
  const table = midtoneTable(correction.midtones);
  const { saturation } = correction;
  let luminance = 0;
  let chroma = 0;
  let count = 0;
  for (let pixel = 0, at = 0; at < data.length; pixel += step, at = pixel * colours) {
    if (alpha !== null && (alpha[pixel] as number) < seenAlpha) continue;
    count += 1;
    const r = data[at] as number;
    if (colours === 1) {
      luminance += wholeLevel(lookUp(table, r));
      continue;
    }
    const g = data[at + 1] as number;
    const b = data[at + 2] as number;
    const y = red * r + green * g + blue * b;
    const lifted = lookUp(table, y);
    const newRed = wholeLevel(lifted + saturation * (r - y));
    const newGreen = wholeLevel(lifted + saturation * (g - y));
    const newBlue = wholeLevel(lifted + saturation * (b - y));
    const newY = red * newRed + green * newGreen + blue * newBlue;
    luminance += newY;
    chroma += chromaOf(newY, newRed, newBlue);
  }
  return count === 0 ? { luminance: 0, chroma: 0 } : { luminance: luminance / count, chroma: chroma / count };
}

/** The means of a picture. @param step looks at every pixel, or at one in so many */
export const rasterMeans = (raster: Raster, step = 1): Means =>
  meansOf(levelsOf(raster), alphaOf(raster), noCorrection, step);

/** Nearer than this to the wanted mean, in levels, nothing is gained by another try. */
const close = 0.02;
const tries = 8;
const rounds = 3;
const least = 0.5;
const most = 2;

/** So many pixels settle a mean: what sharpening changes differs little from one pixel to the next. */
const looked = 200_000;

/**
 * Every pixel of a small picture, one in so many of a large one. The same pixels are looked at before and after, so that
 * what differs between the two means is what was changed, to about a hundredth of a level.
 */
function stepFor({ width, height }: Raster): number {
  const step = Math.max(1, Math.floor((width * height) / looked));
  // A step that divides the width would look at columns.
  return step > 1 && width % step === 0 ? step + 1 : step;
}

/**
 * The correction that brings the means of a picture to those of the plain one, found by the secant method: first the
 * midtones by luminance, then the saturation by chroma, and both again until both are met.
 */
export function solveCorrection(levels: Levels, plain: Raster): Correction {
  const alpha = alphaOf(plain);
  const step = stepFor(plain);
  const wanted = rasterMeans(plain, step);
  const means = (correction: Correction) => meansOf(levels, alpha, correction, step);
  let correction = noCorrection;
  for (let round = 0; round < rounds; round += 1) {
    const now = means(correction);
    const [darker, paler] = [wanted.luminance - now.luminance, wanted.chroma - now.chroma];
    if (Math.abs(darker) > close) {
      const { saturation } = correction;
      const midtones = solve(
        correction.midtones,
        (midtones) => means({ midtones, saturation }).luminance - wanted.luminance,
      );
      correction = { midtones, saturation };
    }
    // A grey picture has no colours to bring back.
    if (levels.colours === 3 && wanted.chroma > close && Math.abs(paler) > close) {
      const { midtones } = correction;
      const saturation = solve(
        correction.saturation,
        (saturation) => means({ midtones, saturation }).chroma - wanted.chroma,
      );
      correction = { midtones, saturation };
    }
    if (Math.abs(darker) <= close && Math.abs(paler) <= close) break;
  }
  return correction;
}

/** Where a rising function of a factor is nought, by the secant method within 0.5..2; the best that was met. */
function solve(start: number, error: (factor: number) => number): number {
  let [before, beforeError] = [start, error(start)];
  if (Math.abs(beforeError) <= close) return start;
  let factor = clampFactor(start * (beforeError > 0 ? 0.99 : 1.01));
  let best = { factor: before, error: Math.abs(beforeError) };
  for (let attempt = 0; attempt < tries; attempt += 1) {
    const now = error(factor);
    if (Math.abs(now) < best.error) best = { factor, error: Math.abs(now) };
    if (Math.abs(now) <= close || now === beforeError || factor === before) break;
    const next = factor - (now * (factor - before)) / (now - beforeError);
    [before, beforeError, factor] = [factor, now, clampFactor(next)];
  }
  return best.factor;
}

const clampFactor = (factor: number) => Math.min(most, Math.max(least, factor));

/** Carries out a correction in place. */
export function correct({ data, colours }: Levels, { midtones, saturation }: Correction): void {
  if (midtones === 1 && saturation === 1) return;
  const table = midtoneTable(midtones);
  for (let at = 0; at < data.length; at += colours) {
    const r = data[at] as number;
    if (colours === 1) {
      data[at] = lookUp(table, r);
      continue;
    }
    const g = data[at + 1] as number;
    const b = data[at + 2] as number;
    const y = red * r + green * g + blue * b;
    const lifted = lookUp(table, y);
    data[at] = lifted + saturation * (r - y);
    data[at + 1] = lifted + saturation * (g - y);
    data[at + 2] = lifted + saturation * (b - y);
  }
}
