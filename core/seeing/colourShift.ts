import { converter, differenceCiede2000, type Lab65 } from 'culori';
import { coloursOf, type Raster } from '../planes/index.ts';

const difference = differenceCiede2000();
const toLight = converter('lrgb');
const toLab = converter('lab65');

/** Linear light of a level of 8 bits in sRGB. */
const light = Float64Array.from({ length: 256 }, (_, level) => toLight({ mode: 'rgb', r: level / 255, g: 0, b: 0 }).r);

/** The side of an area whose colour is compared, in pixels: finer is what compression moves, and is no shift. */
const areaSide = 8;
/** The share of the areas that counts as the most. */
const mostShare = 0.01;

/**
 * How far colours have moved between two pictures of the same dimensions: CIEDE2000 (CIE 142-2001) between the means of areas of 8 × 8
 * pixels, in light. `mean` of all areas, and `most` the mean of the hundredth that has moved most, at least one.
 *
 * @throws RangeError where the dimensions differ
 */
export function colourShift(before: Raster, after: Raster): { mean: number; most: number } {
  if (before.width !== after.width || before.height !== after.height) {
    throw new RangeError('Only pictures of the same dimensions have areas in common.');
  }
  const [a, b] = [areaColours(before), areaColours(after)];
  const shifts = a.map((colour, at) => difference(colour, b[at] ?? colour)).sort((x, y) => y - x);
  const most = Math.max(1, Math.round(shifts.length * mostShare));
  return { mean: meanOf(shifts), most: meanOf(shifts.slice(0, most)) };
}

const meanOf = (values: readonly number[]) =>
  Math.round((values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length)) * 100) / 100;

/** The mean colour of every area, row by row. Of transparent pixels the colour counts, whatever lies behind them. */
function areaColours(picture: Raster): Lab65[] {
  const { data, width, height, channels } = picture;
  const step = coloursOf(picture) === 3 ? 1 : 0;
  const colours: Lab65[] = [];
  for (let top = 0; top < height; top += areaSide) {
    for (let left = 0; left < width; left += areaSide) {
      const [bottom, right] = [Math.min(height, top + areaSide), Math.min(width, left + areaSide)];
      const count = (bottom - top) * (right - left);
      let [r, g, b] = [0, 0, 0];
      for (let y = top; y < bottom; y += 1) {
        for (let x = left; x < right; x += 1) {
          const at = (y * width + x) * channels;
          r += light[data[at] ?? 0] ?? 0;
          g += light[data[at + step] ?? 0] ?? 0;
          b += light[data[at + 2 * step] ?? 0] ?? 0;
        }
      }
      colours.push(toLab({ mode: 'lrgb', r: r / count, g: g / count, b: b / count }));
    }
  }
  return colours;
}
