import { expect, test } from 'vitest';
import type { Plane, Raster } from '../../planes/index.ts';
import { steadyNoise, target } from '../../testing/index.ts';
import { luminancePlane, similarityOf } from '../index.ts';

// The similarity as its papers define it, pixel by pixel, in double precision and without any of the program's kernels.

const plane = (width: number, height: number, value: (x: number, y: number) => number): Plane => ({
  data: Float32Array.from({ length: width * height }, (_, at) => value(at % width, Math.floor(at / width))),
  width,
  height,
});
const gaussian = Array.from({ length: 11 }, (_, at) => Math.exp(-((at - 5) ** 2) / (2 * 1.5 ** 2)));
const total = gaussian.reduce((sum, weight) => sum + weight, 0);

/** Mean over a plane of luminance times structure, and of structure alone (Wang et al. 2004; edges go on outwards). */
function ssimByDefinition(a: Plane, b: Plane): { both: number; structure: number } {
  const { width, height } = a;
  let [both, structure] = [0, 0];
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let [meanA, meanB, aa, bb, ab] = [0, 0, 0, 0, 0];
      for (const [down, row] of gaussian.entries()) {
        for (const [across, column] of gaussian.entries()) {
          const near = (one: Plane) =>
            one.data[
              Math.min(height - 1, Math.max(0, y + down - 5)) * width + Math.min(width - 1, Math.max(0, x + across - 5))
            ] as number;
          const [weight, left, right] = [(row * column) / total ** 2, near(a), near(b)];
          meanA += weight * left;
          meanB += weight * right;
          aa += weight * left * left;
          bb += weight * right * right;
          ab += weight * left * right;
        }
      }
      const [light, contrast] = [(0.01 * 255) ** 2, (0.03 * 255) ** 2];
      const made = (2 * (ab - meanA * meanB) + contrast) / (aa - meanA ** 2 + bb - meanB ** 2 + contrast);
      structure += made;
      both += (made * (2 * meanA * meanB + light)) / (meanA ** 2 + meanB ** 2 + light);
    }
  }
  return { both: both / (width * height), structure: structure / (width * height) };
}

const halved = ({ data, width, height }: Plane) =>
  plane(width >> 1, height >> 1, (x, y) => {
    const at = 2 * y * width + 2 * x;
    return ((data[at] ?? 0) + (data[at + 1] ?? 0) + (data[at + width] ?? 0) + (data[at + width + 1] ?? 0)) / 4;
  });

/** Multi-scale similarity (Wang, Simoncelli and Bovik 2003), as many of its five scales as have eleven pixels each way. */
function multiScale(first: Plane, second: Plane): number {
  const weights = [0.0448, 0.2856, 0.3001, 0.2363, 0.1333];
  const scales = [[first, second] as const];
  for (let [a, b] = [halved(first), halved(second)]; scales.length < 5 && Math.min(a.width, a.height) >= 11; ) {
    scales.push([a, b]);
    [a, b] = [halved(a), halved(b)];
  }
  const used = weights.slice(0, scales.length);
  const whole = used.reduce((sum, weight) => sum + weight, 0);
  return scales.reduce((product, [a, b], level) => {
    const { both, structure } = ssimByDefinition(a, b);
    return product * (level === scales.length - 1 ? both : structure) ** ((used[level] ?? 0) / whole);
  }, 1);
}

/** Of the two colour differences of ITU-R BT.709, blue and red. */
const differences = (raster: Raster) =>
  ([2, 0] as const).map((channel) => {
    const light = luminancePlane(raster);
    return plane(raster.width, raster.height, (x, y) => {
      const at = y * raster.width + x;
      const value = raster.data[at * 3 + channel] as number;
      return 128 + (value - (light.data[at] as number)) / (channel === 2 ? 1.8556 : 1.5748);
    });
  });

const side = { width: 120, height: 88 };
const random = steadyNoise(11);
const grain = Array.from({ length: side.width * side.height }, () => random());
const kites = (spoil: (x: number, y: number, colour: [number, number, number]) => [number, number, number]) =>
  target(side.width, side.height, (x, y) =>
    spoil(x, y, [
      130 + 60 * Math.sin(x / 5) * Math.cos(y / 4),
      120 + 50 * Math.cos((x + y) / 6),
      100 + 40 * Math.sin(y / 7),
    ]),
  );
const plain = kites((_x, _y, colour) => colour);

test.each<[string, Raster]>([
  ['more light', kites((_x, _y, colour) => colour.map((value) => value + 24) as typeof colour)],
  [
    'grain',
    kites((x, y, colour) => colour.map((value) => value + 30 * (grain[y * side.width + x] ?? 0)) as typeof colour),
  ],
  ['less contrast', kites((_x, _y, colour) => colour.map((value) => 120 + (value - 120) * 0.5) as typeof colour)],
  ['no blue', kites((_x, _y, [red, green]) => [red, green, 100])],
  ['no red', kites((_x, _y, [, green, blue]) => [130, green, blue])],
])('similarity is what its definition says: %s', (_, spoilt) => {
  const luminance = multiScale(luminancePlane(plain), luminancePlane(spoilt));
  const [before, after] = [differences(plain), differences(spoilt)];
  const chroma = before.reduce((sum, one, at) => sum + ssimByDefinition(one, after[at] as Plane).both, 0);
  const defined = 100 * (0.8 * luminance + 0.1 * chroma);
  // The program looks at some rows and columns only, which comes to the same within a tenth of a point.
  expect(Math.abs(similarityOf(plain, spoilt).overall - defined)).toBeLessThan(0.1);
});
