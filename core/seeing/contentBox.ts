import type { Rect } from '../geometry/index.ts';

/** Uncompressed pixels, 8 bits a channel, row by row: grey, grey and alpha, RGB, or RGBA. */
export interface SeenPixels {
  data: Uint8Array;
  width: number;
  height: number;
  channels: 1 | 2 | 3 | 4;
}

export interface ContentOptions {
  /** How far a channel may differ from the margin's colour and still belong to the margin, in levels of 255. @default 12 */
  tolerance?: number;
  /** Whether a soft shadow round the content belongs to it. @default true */
  shadow?: boolean;
}

/** A shadow is no darker than this part of the margin's brightness: what is darker is content. */
const darkestShadow = 0.35;
/** Where shadows do not count, content covers what is behind it at least this much. */
const solidAlpha = 230;
/** A row or column with no more content pixels than this part of its length shows specks of dust, not content. */
const dust = 0.002;

/**
 * The rectangle that holds the content of a picture with an empty margin: everything that is not transparent, or does
 * not have the colour of the picture's rim. Null where nothing but margin is there.
 */
export function contentBox(
  { data, width, height, channels }: SeenPixels,
  { tolerance = 12, shadow = true }: ContentOptions = {},
): Rect | null {
  const colours = channels < 3 ? 1 : 3;
  const hasAlpha = channels % 2 === 0;
  const margin = rimColour(data, width, height, channels, colours);
  const isContent = (at: number) => {
    if (hasAlpha) {
      const alpha = data[at + colours] ?? 0;
      if (margin.transparent) return shadow ? alpha > tolerance : alpha >= solidAlpha;
      if (alpha < tolerance) return true;
    }
    let furthest = 0;
    for (let channel = 0; channel < colours; channel += 1)
      furthest = Math.max(furthest, Math.abs((data[at + channel] ?? 0) - (margin.colour[channel] ?? 0)));
    if (furthest <= tolerance) return false;
    return shadow || !isShadow(data, at, margin.colour, tolerance);
  };

  const rows = new Uint32Array(height);
  const columns = new Uint32Array(width);
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += channels) {
      if (!isContent(at)) continue;
      rows[y] = (rows[y] ?? 0) + 1;
      columns[x] = (columns[x] ?? 0) + 1;
    }
  }
  const down = extent(rows, 1 + Math.floor(width * dust));
  const across = extent(columns, 1 + Math.floor(height * dust));
  if (!down || !across) return null;
  return { left: across.first, top: down.first, width: across.length, height: down.length };
}

/** A shadow has the margin's colour, only darker: all channels fall by about the same factor. */
function isShadow(data: Uint8Array, at: number, margin: readonly number[], tolerance: number): boolean {
  const factors = margin.map((value, channel) => (data[at + channel] ?? 0) / Math.max(1, value));
  const mean = factors.reduce((sum, factor) => sum + factor, 0) / factors.length;
  if (mean < darkestShadow || mean > 1 + tolerance / 255) return false;
  return margin.every((value, channel) => Math.abs((data[at + channel] ?? 0) - mean * value) <= tolerance);
}

/** The median colour along the picture's rim, and whether most of the rim is transparent. */
function rimColour(data: Uint8Array, width: number, height: number, channels: number, colours: number) {
  const rim: number[] = [];
  for (let x = 0; x < width; x += 1) rim.push(x, (height - 1) * width + x);
  for (let y = 1; y < height - 1; y += 1) rim.push(y * width, y * width + width - 1);
  const median = (channel: number) => {
    const values = rim.map((pixel) => data[pixel * channels + channel] ?? 0).sort((a, b) => a - b);
    return values[values.length >> 1] ?? 0;
  };
  return {
    colour: Array.from({ length: colours }, (_, channel) => median(channel)),
    transparent: channels % 2 === 0 && median(colours) < 128,
  };
}

function extent(counts: Uint32Array, least: number): { first: number; length: number } | null {
  const first = counts.findIndex((count) => count >= least);
  if (first < 0) return null;
  const last = counts.findLastIndex((count) => count >= least);
  return { first, length: last - first + 1 };
}
