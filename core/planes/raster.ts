/** Pixels of 8 bits a channel in sRGB, row by row: grey, grey and alpha, RGB, or RGB and alpha. */
export interface Raster {
  data: Uint8Array | Uint8ClampedArray;
  width: number;
  height: number;
  channels: 1 | 2 | 3 | 4;
}

/** One value for each pixel, row by row. */
export interface Plane {
  data: Float32Array;
  width: number;
  height: number;
}

/** Weights of red, green and blue in luminance (ITU-R BT.709). */
export const luminanceOf = { red: 0.2126, green: 0.7152, blue: 0.0722 } as const;

/** How many of a raster's channels are colour; a fourth or second is alpha. */
export const coloursOf = ({ channels }: Pick<Raster, 'channels'>): 1 | 3 => (channels > 2 ? 3 : 1);

/** Rows of a picture, from one up to, not including, another; the pixels are not copied. */
export function rowsOf({ data, width, channels }: Raster, from: number, to: number): Raster {
  const row = width * channels;
  return { data: data.subarray(from * row, to * row), width, height: to - from, channels };
}
