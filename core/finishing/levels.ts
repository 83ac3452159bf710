import { coloursOf, luminanceOf, type Plane, type Raster } from '../seeing/index.ts';

/** Encoded levels with fractions, 0..255: the colours of a raster without its alpha. */
export interface Levels {
  data: Float32Array;
  width: number;
  height: number;
  colours: 1 | 3;
}

/** The colours of a raster as levels. */
export function levelsOf(raster: Raster): Levels {
  const { data, width, height, channels } = raster;
  const colours = coloursOf(raster);
  const levels = new Float32Array(width * height * colours);
  for (let from = 0, to = 0; to < levels.length; from += channels, to += colours) {
    levels[to] = data[from] as number;
    if (colours === 1) continue;
    levels[to + 1] = data[from + 1] as number;
    levels[to + 2] = data[from + 2] as number;
  }
  return { data: levels, width, height, colours };
}

/** The alpha of every pixel; null where a raster has none. */
export function alphaOf({ data, width, height, channels }: Raster): Uint8Array | null {
  if (channels % 2 === 1) return null;
  const alpha = new Uint8Array(width * height);
  for (let from = channels - 1, to = 0; to < alpha.length; from += channels, to += 1) alpha[to] = data[from] as number;
  return alpha;
}

/** Gives levels another luminance, in place: all colours move alike, so that chroma stays as it is. */
export function setLuminance({ data, colours }: Levels, luminance: Plane): void {
  const { red, green, blue } = luminanceOf;
  for (let at = 0, pixel = 0; at < data.length; at += colours, pixel += 1) {
    const wanted = luminance.data[pixel] as number;
    if (colours === 1) {
      data[at] = wanted;
      continue;
    }
    const r = data[at] as number;
    const g = data[at + 1] as number;
    const b = data[at + 2] as number;
    const by = wanted - (red * r + green * g + blue * b);
    data[at] = r + by;
    data[at + 1] = g + by;
    data[at + 2] = b + by;
  }
}

/** Whole levels again, with the alpha of `under`. */
export function rasterOf({ data, colours }: Levels, under: Raster): Raster {
  const { width, height, channels } = under;
  const out = new Uint8ClampedArray(width * height * channels);
  for (let from = 0, to = 0; to < out.length; from += colours, to += channels) {
    out[to] = data[from] as number;
    if (colours === 3) {
      out[to + 1] = data[from + 1] as number;
      out[to + 2] = data[from + 2] as number;
    }
    if (channels !== colours) out[to + colours] = under.data[to + colours] as number;
  }
  return { data: out, width, height, channels };
}
