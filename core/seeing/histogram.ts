import { coloursOf, luminanceOf, type Raster } from '../planes/index.ts';

/** How many pixels have each of 256 levels. */
export interface Histogram {
  luminance: number[];
  red: number[];
  green: number[];
  blue: number[];
  /** All that were counted. */
  pixels: number;
}

const levels = () => new Array<number>(256).fill(0);
/** A pixel that is more transparent than this is not looked at. */
const seenAlpha = 128;

/** Counts the levels of a picture; what is transparent is left out. Of a grey picture all four are the same. */
export function histogramOf(raster: Raster): Histogram {
  const { data, channels } = raster;
  const [luminance, red, green, blue] = [levels(), levels(), levels(), levels()];
  const hasAlpha = channels % 2 === 0;
  const colours = coloursOf(raster);
  let pixels = 0;
  for (let at = 0; at < data.length; at += channels) {
    if (hasAlpha && (data[at + channels - 1] as number) < seenAlpha) continue;
    const r = data[at] as number;
    const g = colours === 3 ? (data[at + 1] as number) : r;
    const b = colours === 3 ? (data[at + 2] as number) : r;
    const y = Math.round(luminanceOf.red * r + luminanceOf.green * g + luminanceOf.blue * b);
    luminance[y] = (luminance[y] as number) + 1;
    red[r] = (red[r] as number) + 1;
    green[g] = (green[g] as number) + 1;
    blue[b] = (blue[b] as number) + 1;
    pixels += 1;
  }
  return { luminance, red, green, blue, pixels };
}

/** The level that a share (0..1) of the pixels lies below or at; 0 of an empty histogram. */
export function percentile(counts: readonly number[], share: number): number {
  const wanted = counts.reduce((sum, count) => sum + count, 0) * share;
  let below = 0;
  for (const [level, count] of counts.entries()) {
    below += count;
    if (count > 0 && below >= wanted) return level;
  }
  return 0;
}
