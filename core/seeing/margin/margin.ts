import { coloursOf, type Raster } from '../../planes/index.ts';

/** A shadow is no darker than this part of the margin's brightness: what is darker is content. */
const darkestShadow = 0.35;
/** Where shadows do not count, content covers what is behind it at least this much. */
const solidAlpha = 230;

export interface Margin {
  /** The median colour along the picture's rim. */
  colour: number[];
  /** Most of the rim is transparent. */
  isTransparent: boolean;
  /** How much of the rim has that colour, or is transparent, 0..1. */
  share: number;
}

/** What surrounds a picture's content, by the picture's rim. @param tolerance in levels of 255 */
export function marginOf({ data, width, height, channels }: Raster, tolerance: number): Margin {
  const colours = coloursOf({ channels });
  const rim: number[] = [];
  for (let x = 0; x < width; x += 1) rim.push(x, (height - 1) * width + x);
  for (let y = 1; y < height - 1; y += 1) rim.push(y * width, y * width + width - 1);
  const median = (channel: number) => {
    const values = rim.map((pixel) => data[pixel * channels + channel] ?? 0).sort((a, b) => a - b);
    return values[values.length >> 1] ?? 0;
  };
  const colour = Array.from({ length: colours }, (_, channel) => median(channel));
  const isTransparent = channels % 2 === 0 && median(colours) < 128;
  const isMargin = (pixel: number) =>
    isTransparent
      ? (data[pixel * channels + colours] ?? 0) <= tolerance
      : colour.every((value, channel) => Math.abs((data[pixel * channels + channel] ?? 0) - value) <= tolerance);
  return { colour, isTransparent, share: rim.filter(isMargin).length / rim.length };
}

/**
 * Says of every pixel whether it is content: not transparent, or not of the margin's colour.
 *
 * @param shadow whether a soft shadow round the content belongs to it
 * @returns a question about a pixel, by its number in reading order
 */
export function contentTest(
  { data, channels }: Raster,
  margin: Margin,
  tolerance: number,
  shadow: boolean,
): (pixel: number) => boolean {
  const colours = coloursOf({ channels });
  const hasAlpha = channels % 2 === 0;
  return (pixel) => {
    const at = pixel * channels;
    if (hasAlpha) {
      const alpha = data[at + colours] ?? 0;
      if (margin.isTransparent) return shadow ? alpha > tolerance : alpha >= solidAlpha;
      if (alpha < tolerance) return true;
    }
    let furthest = 0;
    for (let channel = 0; channel < colours; channel += 1) {
      furthest = Math.max(furthest, Math.abs((data[at + channel] ?? 0) - (margin.colour[channel] ?? 0)));
    }
    if (furthest <= tolerance) return false;
    return shadow || !isShadow(data, at, margin.colour, tolerance);
  };
}

/** A shadow has the margin's colour, only darker: all channels fall by about the same factor. */
function isShadow(data: ArrayLike<number>, at: number, margin: readonly number[], tolerance: number): boolean {
  const factors = margin.map((value, channel) => (data[at + channel] ?? 0) / Math.max(1, value));
  const mean = factors.reduce((sum, factor) => sum + factor, 0) / factors.length;
  if (mean < darkestShadow || mean > 1 + tolerance / 255) return false;
  return margin.every((value, channel) => Math.abs((data[at + channel] ?? 0) - mean * value) <= tolerance);
}
