import type { Legibility } from '../../model/index.ts';
import type { Raster } from '../../planes/index.ts';
import { contrastRatio, lightOf } from '../contrast.ts';

/** How much of each pixel letters cover, of 255, row by row. */
export interface Cover {
  data: Uint8Array;
  width: number;
  height: number;
}

/** Light that each level of sRGB stands for, 0..1. */
const light = Float64Array.from({ length: 256 }, (_, level) => lightOf(level));

/** Relative luminance of one pixel, 0..1 (WCAG 2.2). @param at of its first channel */
function luminanceAt({ data, channels }: Raster, at: number): number {
  const first = light[data[at] as number] as number;
  if (channels < 3) return first;
  return (
    0.2126 * first +
    0.7152 * (light[data[at + 1] as number] as number) +
    0.0722 * (light[data[at + 2] as number] as number)
  );
}

/** Lightness of a relative luminance, 0..100 (CIE 1976 L*). */
const lightnessOf = (luminance: number): number =>
  luminance > 216 / 24389 ? 116 * Math.cbrt(luminance) - 16 : (luminance * 24389) / 27;

/** A pixel that letters cover so far is all letter, and one that they cover no further is none. */
const [inked, bare] = [250, 12];
/** Pixels that are covered so far are part of a letter's body: what lies round it is counted from them. */
const body = 64;
/** Fewer pixels than these say nothing. */
const leastPixels = 8;

/**
 * The luminance of letters, from the pixels of a file that they cover; null where they cover none.
 *
 * @param file sRGB without transparency, as large as `cover`
 */
export function inkLuminance(file: Raster, cover: Cover): number | null {
  const most = cover.data.reduce((max, value) => Math.max(max, value), 0);
  if (most < body) return null;
  const least = Math.min(inked, most);
  let [sum, count] = [0, 0];
  for (let at = 0; at < cover.data.length; at += 1) {
    if ((cover.data[at] as number) < least) continue;
    sum += luminanceAt(file, at * file.channels);
    count += 1;
  }
  return sum / count;
}

/** Which pixels have a letter's body within so many pixels each way: the maximum along rows, then along columns. */
function nearBody({ data, width, height }: Cover, reach: number): Uint8Array {
  const across = new Uint8Array(width * height);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      if ((data[y * width + x] as number) < body) continue;
      across.fill(1, y * width + Math.max(0, x - reach), y * width + Math.min(width - 1, x + reach) + 1);
    }
  }
  const near = new Uint8Array(width * height);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      if (across[y * width + x] === 0) continue;
      for (let row = Math.max(0, y - reach); row <= Math.min(height - 1, y + reach); row += 1)
        near[row * width + x] = 1;
    }
  }
  return near;
}

/** What meets the edges of letters counts, such as an outline: up to this share of their em from them, but at least so many pixels. */
const edge = { share: 0.05, least: 1 } as const;

/**
 * How well letters can be told from what lies right round them: their ground, an outline, a shadow, or a plate, whatever the pixels are.
 *
 * The contrast is that of the letters to the tenth of the pixels at their edges that is closest to them, by the formula of WCAG 2.2. Pixels that
 * letters cover in part count as neither, for they are mixed of both.
 *
 * @param shown the picture as it is shown, sRGB without transparency
 * @param cover of the letters, as large as `shown`
 * @param ink luminance of the letters
 * @param em pixels to one em as it is shown
 * @returns null where there are too few pixels to say
 */
export function legibilityOf(
  shown: Raster,
  cover: Cover,
  ink: number,
  em: number,
): Pick<Legibility, 'contrast' | 'busy'> | null {
  const near = nearBody(cover, Math.round(Math.max(edge.least, edge.share * em)));
  const around: number[] = [];
  for (let at = 0; at < near.length; at += 1) {
    if (near[at] === 1 && (cover.data[at] as number) <= bare) around.push(luminanceAt(shown, at * shown.channels));
  }
  if (around.length < leastPixels) return null;
  const contrasts = around.map((luminance) => contrastRatio(luminance, ink)).sort((a, b) => a - b);
  const lightness = around.map(lightnessOf);
  const mean = lightness.reduce((sum, one) => sum + one, 0) / lightness.length;
  const deviation = Math.sqrt(lightness.reduce((sum, one) => sum + (one - mean) ** 2, 0) / lightness.length);
  return {
    contrast: contrasts[Math.floor(contrasts.length / 10)] as number,
    busy: deviation / Math.max(1, Math.abs(lightnessOf(ink) - mean)),
  };
}
