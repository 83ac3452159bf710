import fc from 'fast-check';
import { expect, test } from 'vitest';
import { clamp } from '../../geometry/index.ts';
import { scalingKernels } from '../../model/index.ts';
import { encodedLight, resampled, scaledInLight } from '../index.ts';
import { aRaster, pixelsOf } from '../testRasters.ts';
import { weightsOf } from './scalingKernels.ts';

test('kernels have the values of their papers', () => {
  const at = (kernel: (typeof scalingKernels)[number], start: number) => [...weightsOf(kernel, 1, start, 1).weights];
  const rounded = (values: number[]) => values.map((value) => Math.round(value * 10_000) / 10_000 + 0);
  // At the middle of a pixel: Mitchell and Netravali's 1/18, 8/9, 1/18; the others let everything else be nought.
  expect(rounded(at('mitchell', 0))).toEqual([0, 0.0556, 0.8889, 0.0556, 0]);
  expect(rounded(at('cubic', 0))).toEqual([0, 0, 1, 0, 0]);
  expect(rounded(at('lanczos3', 0))).toEqual([0, 0, 0, 1, 0, 0, 0]);
  // A quarter of a pixel further, where Catmull and Rom's cubic has eighths and sixty-fourths.
  expect(rounded(at('cubic', 0.25)).slice(0, 4)).toEqual([-0.0703, 0.8672, 0.2266, -0.0234]);
  const sinc = (x: number) => Math.sin(Math.PI * x) / (Math.PI * x);
  const lanczos = [1.25, 0.25, 0.75, 1.75].map((x) => sinc(x) * sinc(x / 2));
  const sum = lanczos.reduce((total, value) => total + value, 0);
  expect(rounded(at('lanczos2', 0.25)).slice(0, 4)).toEqual(rounded(lanczos.map((value) => value / sum)));
});

/** The taps of one output pixel along a row of `length` pixels, each with its weight; beyond the edges they go on. */
function tapsOf(kernel: (typeof scalingKernels)[number], ratio: number, start: number, length: number) {
  const { first, weights } = weightsOf(kernel, ratio, start, 1);
  return [...weights].map((weight, tap) => ({ weight, at: clamp((first[0] ?? 0) + tap, 0, length - 1) }));
}

test('a part is resampled to any fraction, and what is transparent has no say', () => {
  fc.assert(
    fc.property(
      aRaster,
      fc.constantFrom(...scalingKernels),
      fc.double({ min: 0.4, max: 3, noNaN: true }),
      fc.double({ min: 0.4, max: 3, noNaN: true }),
      fc.double({ min: -3, max: 9, noNaN: true }),
      fc.double({ min: -3, max: 9, noNaN: true }),
      (raster, kernel, ratioX, ratioY, fromX, fromY) => {
        const output = { width: 5, height: 4 };
        const ratio = { x: ratioX, y: ratioY };
        const made = pixelsOf(resampled(raster, { from: { x: fromX, y: fromY }, ratio, output, kernel }));
        const pixels = pixelsOf(raster);
        for (const [index, found] of made.entries()) {
          const across = tapsOf(kernel, ratioX, fromX / ratioX + (index % 5), raster.width);
          const down = tapsOf(kernel, ratioY, fromY / ratioY + Math.floor(index / 5), raster.height);
          const sum = (value: (pixel: readonly number[]) => number) =>
            down.reduce(
              (total, row) =>
                total +
                across.reduce(
                  (inRow, column) =>
                    inRow + row.weight * column.weight * value(pixels[row.at * raster.width + column.at] ?? []),
                  0,
                ),
              0,
            );
          const alpha = sum((pixel) => pixel[3] ?? 0);
          expect(Math.abs(found[3] - clamp(alpha, 0, 255))).toBeLessThan(0.6);
          if (alpha < 8) continue;
          for (const channel of [0, 1, 2]) {
            const colour = sum((pixel) => ((pixel[channel] ?? 0) * (pixel[3] ?? 0)) / 255);
            expect(Math.abs((found[channel] ?? 0) - clamp((255 * colour) / alpha, 0, 255))).toBeLessThan(0.8);
          }
        }
      },
    ),
  );
});

test('luminance is scaled in light, weighted by opacity', () => {
  const light = (level: number) => {
    const share = level / 255;
    return share <= 0.040_45 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  };
  fc.assert(
    fc.property(aRaster, fc.constantFrom(...scalingKernels), fc.boolean(), (raster, kernel, seeThrough) => {
      const { width, height } = raster;
      const [levels, alphas] = [pixelsOf(raster).map(([red]) => red), pixelsOf(raster).map(([, green]) => green)];
      const part = {
        plane: { data: Float32Array.from(levels), width, height },
        alpha: seeThrough ? Uint8Array.from(alphas) : null,
        left: 3,
        top: 2,
      };
      const rect = { left: 2, top: 1, width: 4, height: 3 };
      const made = scaledInLight(part, { x: 1.7, y: 1.3 }, kernel, rect).data;
      for (const [index, value] of made.entries()) {
        const shifted = (ratio: number, start: number, by: number, length: number) => {
          const { first, weights } = weightsOf(kernel, ratio, start, 1);
          return [...weights].map((weight, tap) => ({ weight, at: clamp((first[0] ?? 0) - by + tap, 0, length - 1) }));
        };
        let [sum, opacity] = [0, 0];
        for (const row of shifted(1.3, 1 + Math.floor(index / 4), 2, height)) {
          for (const column of shifted(1.7, 2 + (index % 4), 3, width)) {
            const at = row.at * width + column.at;
            const share = seeThrough ? (alphas[at] ?? 0) / 255 : 1;
            sum += row.weight * column.weight * share * light(levels[at] ?? 0);
            opacity += row.weight * column.weight * share;
          }
        }
        if (opacity < 0.03) continue;
        expect(Math.abs(value - 255 * encodedLight(clamp(sum / opacity, 0, 1)))).toBeLessThan(0.4);
      }
    }),
  );
});
