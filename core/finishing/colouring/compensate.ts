import { coloursOf, luminanceOf, type Plane, type Raster } from '../../planes/index.ts';

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

/** How much is kept of what sharpening has made lighter and darker, 0..1, and a factor on the colour of what it has changed. */
export interface Balance {
  lighter: number;
  darker: number;
  saturation: number;
}

export const noBalance: Balance = { lighter: 1, darker: 1, saturation: 1 };

/** A change of luminance below this, in levels, is arithmetic noise. */
const leastChange = 0.01;

/** The luminance of a pixel with so much of its change kept: between what it was and what it became. */
export const balancedLevel = (before: number, after: number, { lighter, darker }: Balance): number =>
  before + (after > before ? lighter : darker) * (after - before);

/** The factor on a pixel's colour: what sharpening has not changed keeps its own. */
export const balancedSaturation = (before: number, after: number, { saturation }: Balance): number =>
  Math.abs(after - before) < leastChange ? 1 : saturation;

/** A picture whose luminance was changed, and how much of that is kept. */
export interface Changed {
  luminance: Plane;
  balance: Balance;
}

/**
 * Means of a picture, or of the same with another luminance as it will be once it is whole levels. This is gone through a
 * dozen times for every picture, hence the plain arithmetic.
 */
export function meansOf(plain: Raster, changed: Changed | null = null): Means {
  const { data, channels } = plain;
  const colours = coloursOf(plain);
  const hasAlpha = channels !== colours;
  const luminance = changed?.luminance.data ?? null;
  const balance = changed?.balance ?? noBalance;
  let sum = 0;
  let chroma = 0;
  let count = 0;
  for (let pixel = 0, at = 0; at < data.length; pixel += 1, at += channels) {
    if (hasAlpha && (data[at + colours] as number) < seenAlpha) continue;
    count += 1;
    const r = data[at] as number;
    if (colours === 1) {
      sum += luminance === null ? r : wholeLevel(balancedLevel(r, luminance[pixel] as number, balance));
      continue;
    }
    const g = data[at + 1] as number;
    const b = data[at + 2] as number;
    const y = red * r + green * g + blue * b;
    if (luminance === null) {
      sum += y;
      chroma += chromaOf(y, r, b);
      continue;
    }
    const after = luminance[pixel] as number;
    const lifted = balancedLevel(y, after, balance);
    const saturation = balancedSaturation(y, after, balance);
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

/** So many pixels settle a mean: what sharpening changes differs little from one pixel to the next. */
const looked = 100_000;

/**
 * Every pixel of a small picture, one in so many of a large one. The same pixels are looked at before and after, so that
 * what differs between the two means is what was changed, to about a hundredth of a level.
 */
function stepFor({ width, height }: Raster): number {
  let step = Math.max(1, Math.floor((width * height) / looked));
  // A step that has a divisor in common with the width would look at some columns only.
  while (commonDivisor(step, width) > 1) step += 1;
  return step;
}

/** One pixel in so many, side by side: what is gone through again and again has to fit into a processor's cache. */
export function oneIn(step: number, { data, channels }: Raster, luminance: Plane): { some: Raster; light: Plane } {
  const width = Math.ceil(luminance.data.length / step);
  const some: Raster = { data: new Uint8Array(width * channels), width, height: 1, channels };
  const light: Plane = { data: new Float32Array(width), width, height: 1 };
  for (let to = 0, from = 0; to < width; to += 1, from += step) {
    light.data[to] = luminance.data[from] as number;
    for (let channel = 0; channel < channels; channel += 1) {
      some.data[to * channels + channel] = data[from * channels + channel] as number;
    }
  }
  return { some, light };
}

/** The greatest whole number that divides both (Euclid). */
const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/**
 * The balance that brings the means of a sharpened picture to those of the plain one. Luminance: of what has become lighter and
 * what has become darker, the heavier side is kept only in part, so that both weigh the same; every pixel stays between what it
 * was and what it became, no halo grows, and calm areas do not move. Chroma: what clipping has taken is given back where
 * sharpening has changed anything. Both by the secant method, and again until both are met.
 */
export function solveBalance(plain: Raster, luminance: Plane): Balance {
  const { some, light } = oneIn(stepFor(plain), plain, luminance);
  const wanted = meansOf(some);
  const means = (balance: Balance) => meansOf(some, { luminance: light, balance });
  let tilt = 0;
  let saturation = 1;
  for (let round = 0; round < rounds; round += 1) {
    const now = means({ ...tilted(tilt), saturation });
    const [darker, paler] = [wanted.luminance - now.luminance, wanted.chroma - now.chroma];
    if (Math.abs(darker) > close) {
      const error = (value: number) => means({ ...tilted(value), saturation }).luminance - wanted.luminance;
      tilt = solve(tilt, error, { least: -1, most: 1 });
    }
    // A grey picture has no colours to bring back.
    if (coloursOf(plain) === 3 && wanted.chroma > close && Math.abs(paler) > close) {
      const error = (value: number) => means({ ...tilted(tilt), saturation: value }).chroma - wanted.chroma;
      saturation = solve(saturation, error, saturations);
    }
    if (Math.abs(darker) <= close && Math.abs(paler) <= close) break;
  }
  return { ...tilted(tilt), saturation };
}

/** From -1, where nothing is kept of what has become lighter, over 0, all of both, to 1, nothing of what has become darker. */
const tilted = (tilt: number): Pick<Balance, 'lighter' | 'darker'> => ({
  lighter: 1 + Math.min(0, tilt),
  darker: 1 - Math.max(0, tilt),
});
const saturations = { least: 0.5, most: 2 };
const firstStep = 0.02;

/** Where a rising function is nought, by the secant method within a range; the best that was met. */
function solve(start: number, error: (value: number) => number, range: { least: number; most: number }): number {
  const within = (value: number) => Math.min(range.most, Math.max(range.least, value));
  let [before, beforeError] = [start, error(start)];
  if (Math.abs(beforeError) <= close) return start;
  let value = within(start + (beforeError > 0 ? -firstStep : firstStep));
  let best = { value: before, error: Math.abs(beforeError) };
  for (let attempt = 0; attempt < tries; attempt += 1) {
    const now = error(value);
    if (Math.abs(now) < best.error) best = { value, error: Math.abs(now) };
    if (Math.abs(now) <= close || now === beforeError || value === before) break;
    const next = value - (now * (value - before)) / (now - beforeError);
    [before, beforeError, value] = [value, now, within(next)];
  }
  return best.value;
}
