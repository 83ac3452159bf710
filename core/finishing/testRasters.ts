import fc from 'fast-check';
import { luminanceOf, type Raster } from '../planes/index.ts';
import { steadyNoise } from '../testing/index.ts';

/** A picture of noise, of any channels. */
export const aRaster = fc
  .record({
    width: fc.integer({ min: 1, max: 24 }),
    height: fc.integer({ min: 1, max: 18 }),
    channels: fc.constantFrom<Raster['channels']>(1, 2, 3, 4),
    seed: fc.nat(999),
  })
  .map(({ width, height, channels, seed }): Raster => {
    const random = steadyNoise(seed + 5);
    return {
      data: Uint8Array.from({ length: width * height * channels }, () => 127.5 + 127.5 * random()),
      width,
      height,
      channels,
    };
  });

/** The pixels of a raster as red, green, blue and alpha, 0..255. */
export const pixelsOf = ({ data, channels }: Raster) =>
  Array.from({ length: data.length / channels }, (_, pixel) => {
    const at = (channel: number) => data[pixel * channels + channel] as number;
    const alpha = channels % 2 === 0 ? at(channels - 1) : 255;
    return channels < 3 ? [at(0), at(0), at(0), alpha] : [at(0), at(1), at(2), alpha];
  }) as [number, number, number, number][];
/** The luminance of red, green and blue. */
export const lightOf = ([r, g, b]: readonly number[]) =>
  luminanceOf.red * (r ?? 0) + luminanceOf.green * (g ?? 0) + luminanceOf.blue * (b ?? 0);
