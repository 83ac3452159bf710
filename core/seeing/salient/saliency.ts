import { coloursOf, luminanceOf, type Plane, type Raster } from '../../planes/index.ts';
import { softened } from '../softened.ts';

/** Passes over the picture, each in the other direction than the one before (three are enough: Zhang et al. 2015). */
const passes = 3;
/** The mean of five pixels, twice: grain is no barrier. */
const meanOfMeans = [2.5, 4, 3, 2, 1].map((weight) => weight / 25);

/**
 * How far every pixel stands out: the least change of level and colour that a way from the picture's edge to it takes (minimum
 * barrier distance: Strand, Ciesielski, Malmberg and Saha 2013; by raster passes: Zhang, Sclaroff, Lin, Shen, Price and Mech
 * 2015), summed over luminance and two colour differences, in levels.
 */
export function saliencyOf(raster: Raster): Plane {
  const { width, height } = raster;
  const data = new Float32Array(width * height);
  for (const channel of channelsOf(raster)) {
    const distance = barrierDistance(softened({ data: channel, width, height }, meanOfMeans));
    for (let at = 0; at < data.length; at += 1) data[at] = (data[at] as number) + (distance[at] as number);
  }
  return { data, width, height };
}

/** Luminance and, of a picture in colour, its blue and red differences (ITU-R BT.709), in levels. */
function channelsOf(raster: Raster): Float32Array[] {
  const { data, channels } = raster;
  const count = data.length / channels;
  const isColour = coloursOf(raster) === 3;
  const planes = Array.from({ length: isColour ? 3 : 1 }, () => new Float32Array(count));
  for (let pixel = 0, at = 0; pixel < count; pixel += 1, at += channels) {
    const red = data[at] as number;
    if (!isColour) {
      (planes[0] as Float32Array)[pixel] = red;
      continue;
    }
    const [green, blue] = [data[at + 1] as number, data[at + 2] as number];
    const light = luminanceOf.red * red + luminanceOf.green * green + luminanceOf.blue * blue;
    (planes[0] as Float32Array)[pixel] = light;
    (planes[1] as Float32Array)[pixel] = (blue - light) / 1.8556;
    (planes[2] as Float32Array)[pixel] = (red - light) / 1.5748;
  }
  return planes;
}

/** The least difference between the highest and the lowest level on any way from the edge, by pixel. */
function barrierDistance({ data: level, width, height }: Plane): Float32Array {
  const distance = new Float32Array(level.length).fill(Number.POSITIVE_INFINITY);
  const [low, high] = [level.slice(), level.slice()];
  for (let x = 0; x < width; x += 1) distance[x] = distance[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y += 1) distance[y * width] = distance[y * width + width - 1] = 0;
  const relax = (at: number, from: number) => {
    const value = level[at] as number;
    const least = Math.min(low[from] as number, value);
    const most = Math.max(high[from] as number, value);
    if (most - least >= (distance[at] as number)) return;
    distance[at] = most - least;
    low[at] = least;
    high[at] = most;
  };
  for (let pass = 0; pass < passes; pass += 1) {
    const forward = pass % 2 === 0;
    for (let line = 1; line < height - 1; line += 1) {
      const y = forward ? line : height - 1 - line;
      for (let place = 1; place < width - 1; place += 1) {
        const at = y * width + (forward ? place : width - 1 - place);
        relax(at, forward ? at - 1 : at + 1);
        relax(at, forward ? at - width : at + width);
      }
    }
  }
  return distance;
}
