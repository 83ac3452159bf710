import { coloursOf, luminanceOf, type Plane, type Raster } from '../seeing/index.ts';
import { type Correction, curveOf, lookUp, noCorrection } from './correction.ts';

/** The mean luminance and the mean chroma of a picture, in levels of 255. */
export interface Means {
  luminance: number;
  /** The length of the two colour differences (ITU-R BT.709). */
  chroma: number;
}

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

/** What is more transparent than this is hardly seen and has no say. */
const seenAlpha = 128;

/**
 * Means of a picture with another luminance, after a correction, as they will be once they are whole levels. This is gone
 * through a dozen times for every picture, hence the plain arithmetic.
 *
 * @param luminance null for the picture's own
 * @param step looks at every pixel, or at one in so many
 */
export function meansOf(
  plain: Raster,
  luminance: Plane | null = null,
  correction: Correction = noCorrection,
  step = 1,
): Means {
  const { data, channels } = plain;
  const colours = coloursOf(plain);
  const hasAlpha = channels !== colours;
  const curve = curveOf(correction);
  const { saturation } = correction;
  let sum = 0;
  let chroma = 0;
  let count = 0;
  for (let pixel = 0, at = 0; at < data.length; pixel += step, at = pixel * channels) {
    if (hasAlpha && (data[at + colours] as number) < seenAlpha) continue;
    count += 1;
    const r = data[at] as number;
    if (colours === 1) {
      sum += wholeLevel(lookUp(curve, luminance === null ? r : (luminance.data[pixel] as number)));
      continue;
    }
    const g = data[at + 1] as number;
    const b = data[at + 2] as number;
    const y = red * r + green * g + blue * b;
    const lifted = lookUp(curve, luminance === null ? y : (luminance.data[pixel] as number));
    const newRed = wholeLevel(lifted + saturation * (r - y));
    const newGreen = wholeLevel(lifted + saturation * (g - y));
    const newBlue = wholeLevel(lifted + saturation * (b - y));
    const newY = red * newRed + green * newGreen + blue * newBlue;
    sum += newY;
    chroma += chromaOf(newY, newRed, newBlue);
  }
  return count === 0 ? { luminance: 0, chroma: 0 } : { luminance: sum / count, chroma: chroma / count };
}

/** Nearer than this to the wanted mean, in levels, nothing is gained by another try. */
const close = 0.02;
const tries = 8;
const rounds = 3;
const least = 0.5;
const most = 2;

/** So many pixels settle a mean: what sharpening changes differs little from one pixel to the next. */
const looked = 100_000;

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
export function solveCorrection(plain: Raster, luminance: Plane): Correction {
  const step = stepFor(plain);
  const wanted = meansOf(plain, null, noCorrection, step);
  const means = (correction: Correction) => meansOf(plain, luminance, correction, step);
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
    if (coloursOf(plain) === 3 && wanted.chroma > close && Math.abs(paler) > close) {
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
