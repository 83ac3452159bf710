import { coloursOf, type Raster } from '../planes/index.ts';

/**
 * The difference of two pictures to look at: middle grey where they are the same, lighter and darker in each channel where
 * the second is, `gain` times as much.
 *
 * @returns RGBA, opaque
 * @throws RangeError where the two are not of the same dimensions
 */
export function differencePixels(a: Raster, b: Raster, gain: number): Uint8ClampedArray<ArrayBuffer> {
  if (a.width !== b.width || a.height !== b.height) {
    throw new RangeError(`${a.width} × ${a.height} and ${b.width} × ${b.height} cannot be compared pixel by pixel.`);
  }
  const pixels = new Uint8ClampedArray(a.width * a.height * 4);
  const channelOf = (raster: Raster, channel: number) => (coloursOf(raster) === 3 ? channel : 0);
  for (let pixel = 0; pixel < a.width * a.height; pixel += 1) {
    for (let channel = 0; channel < 3; channel += 1) {
      const before = a.data[pixel * a.channels + channelOf(a, channel)] as number;
      const after = b.data[pixel * b.channels + channelOf(b, channel)] as number;
      pixels[pixel * 4 + channel] = 128 + gain * (after - before);
    }
    pixels[pixel * 4 + 3] = 255;
  }
  return pixels;
}
