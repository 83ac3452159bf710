import type { Point } from '../../geometry/index.ts';
import type { Dimensions, ScalingKernel } from '../../model/index.ts';
import { type Raster, rowsOf } from '../../planes/index.ts';
import { scaledPlane } from './scale.ts';
import { weightsOf } from './scalingKernels.ts';

/** Which part of a raster is resampled, in its own pixels and fractions of them. */
export interface Resampling {
  /** Where the part begins. It may lie outside, where the outermost pixels go on. */
  from: Point;
  /** Pixels of the raster to one of the output, each way. */
  ratio: Point;
  output: Dimensions;
  kernel: ScalingKernel;
}

/** So many rows are resampled at once: memory that was asked for is never given back. */
const bandRows = 256;

/**
 * A part of a raster at other dimensions: every output pixel's middle lies exactly where it says, at any fraction of a pixel.
 * The levels are weighted as they are encoded, as image libraries do; what is transparent has no say in the colour.
 */
export function resampled(raster: Raster, { from, ratio, output, kernel }: Resampling): Raster {
  const { channels } = raster;
  const data = new Uint8ClampedArray(output.width * output.height * channels);
  const across = weightsOf(kernel, ratio.x, from.x / ratio.x, output.width);
  for (let top = 0; top < output.height; top += bandRows) {
    const rows = Math.min(bandRows, output.height - top);
    const down = weightsOf(kernel, ratio.y, from.y / ratio.y + top, rows);
    const first = Math.min(raster.height - 1, Math.max(0, down.first[0] as number));
    const last = Math.min(raster.height, Math.max(first + 1, (down.first[rows - 1] as number) + down.taps));
    const part = rowsOf(raster, first, last);
    const shifted = { ...down, first: down.first.map((at) => at - first) };
    const alpha = channels % 2 === 0 ? channelOf(part, channels - 1) : null;
    const opacity = alpha && scaledPlane({ ...part, data: alpha }, across, shifted, null, false).data;
    const colours = alpha ? channels - 1 : channels;
    for (let channel = 0; channel < channels; channel += 1) {
      const isColour = channel < colours;
      const plane = isColour ? channelOf(part, channel, alpha) : (alpha as Float32Array);
      const made = isColour ? scaledPlane({ ...part, data: plane }, across, shifted, null, false).data : opacity;
      if (!made) continue;
      for (
        let pixel = 0, at = top * output.width * channels + channel;
        pixel < made.length;
        pixel += 1, at += channels
      ) {
        const value = made[pixel] as number;
        const seen = isColour && opacity ? (opacity[pixel] as number) : 255;
        data[at] = seen > leastSeen ? (value * 255) / seen : 0;
      }
    }
  }
  return { data, ...output, channels };
}

/** What is less opaque than this, of 255, has no colour. */
const leastSeen = 0.5;

/** One channel of a raster, weighted by its opacity where it has one. */
function channelOf({ data, width, height, channels }: Raster, channel: number, alpha: Float32Array | null = null) {
  const plane = new Float32Array(width * height);
  for (let pixel = 0, at = channel; pixel < plane.length; pixel += 1, at += channels) {
    const value = data[at] as number;
    plane[pixel] = alpha ? (value * (alpha[pixel] as number)) / 255 : value;
  }
  return plane;
}
