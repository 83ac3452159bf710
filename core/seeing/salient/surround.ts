import { area, intersection, type Rect } from '../../geometry/index.ts';
import { coloursOf, type Raster } from '../../planes/index.ts';

/** Each channel in so many bins of 32 levels. */
const bins = 8;

/**
 * How much the colours in a rectangle differ from those in a frame of the same area round it: the chi-squared distance of their
 * histograms, 0 for the same colours to 1 for none in common (after Liu, Sun, Zheng, Tang and Shum 2007).
 */
export function differenceFromSurround(raster: Raster, rect: Rect): number {
  const grown = { x: (rect.width * (Math.SQRT2 - 1)) / 2, y: (rect.height * (Math.SQRT2 - 1)) / 2 };
  const outer = {
    left: rect.left - grown.x,
    top: rect.top - grown.y,
    width: rect.width + 2 * grown.x,
    height: rect.height + 2 * grown.y,
  };
  const inside = coloursIn(raster, rect);
  const all = coloursIn(raster, outer);
  const [within, around] = [sumOf(inside), sumOf(all) - sumOf(inside)];
  if (within === 0 || around === 0) return 0;
  let difference = 0;
  for (const [bin, count] of inside.entries()) {
    const [mine, other] = [count / within, ((all[bin] as number) - count) / around];
    if (mine + other > 0) difference += (mine - other) ** 2 / (mine + other);
  }
  return difference / 2;
}

const sumOf = (counts: Int32Array) => counts.reduce((sum, count) => sum + count, 0);

/** How often each colour comes in a rectangle, as far as that lies in the picture. */
function coloursIn({ data, width, height, channels }: Raster, rect: Rect): Int32Array {
  const colours = coloursOf({ channels });
  const counts = new Int32Array(bins ** colours);
  const part = intersection(rect, { left: 0, top: 0, width, height });
  if (area(part) === 0) return counts;
  for (let y = Math.floor(part.top); y < Math.min(height, part.top + part.height); y += 1) {
    for (let x = Math.floor(part.left); x < Math.min(width, part.left + part.width); x += 1) {
      let bin = 0;
      for (let channel = 0; channel < colours; channel += 1) {
        bin = bin * bins + ((data[(y * width + x) * channels + channel] as number) >> 5);
      }
      counts[bin] = (counts[bin] as number) + 1;
    }
  }
  return counts;
}
