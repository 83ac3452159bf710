import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { scalingKernels, type Tone } from '../model/index.ts';
import { luminanceOf, type Raster } from '../planes/index.ts';
import { histogramOf } from '../seeing/index.ts';
import { steadyNoise, target } from '../testing/index.ts';
import {
  encodedLight,
  finishFigures,
  finishPixels,
  meansOf,
  plainTreatment,
  resampled,
  scaledInLight,
  tonePoints,
} from './index.ts';
import { weightsOf } from './scalingKernels.ts';

// What is computed in tables, bands and four pixels at a time, computed anew as it is defined.

const aRaster = fc
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
const pixelsOf = ({ data, channels }: Raster) =>
  Array.from({ length: data.length / channels }, (_, pixel) => {
    const at = (channel: number) => data[pixel * channels + channel] as number;
    const alpha = channels % 2 === 0 ? at(channels - 1) : 255;
    return channels < 3 ? [at(0), at(0), at(0), alpha] : [at(0), at(1), at(2), alpha];
  }) as [number, number, number, number][];
const lightOf = ([r, g, b]: readonly number[]) =>
  luminanceOf.red * (r ?? 0) + luminanceOf.green * (g ?? 0) + luminanceOf.blue * (b ?? 0);
const held = (value: number, most: number) => Math.min(most, Math.max(0, value));

describe('levels', () => {
  test('midtones, points and saturation move every pixel as they are defined', () => {
    fc.assert(
      fc.property(
        aRaster,
        fc.constantFrom(0.7, 1, 1.6),
        fc.constantFrom(0.6, 1, 1.4),
        fc.constantFrom<Tone>({ kind: 'as it is' }, { kind: 'by hand', black: 30, white: 210, midtones: 1.3 }),
        fc.constantFrom(0.5, 1, 1.5),
        (plain, midtones, chroma, tone, saturation) => {
          const { raster } = finishPixels(
            { plain, enlarged: null, ratio: { x: 1, y: 1 }, at: { left: 0, top: 0 }, scale: 1 },
            { ...plainTreatment, compensate: { kind: 'by hand', midtones, saturation: chroma }, tone, saturation },
          );
          const toned = (level: number) =>
            tone.kind === 'by hand'
              ? 255 * held((held(level, 255) - tone.black) / (tone.white - tone.black), 1) ** (1 / tone.midtones)
              : level;
          const finished = pixelsOf(raster);
          let furthest = 0;
          for (const [index, pixel] of pixelsOf(plain).entries()) {
            const y = lightOf(pixel);
            const lifted = 255 * (y / 255) ** (1 / midtones);
            const once = pixel.slice(0, 3).map((value) => toned(lifted + chroma * (value - y)));
            const [made, isGrey] = [finished[index] as number[], plain.channels < 3];
            for (const [channel, value] of once.entries()) {
              const newY = lightOf(once);
              const expected = isGrey ? toned(lifted) : newY + saturation * (value - newY);
              furthest = Math.max(furthest, Math.abs((made[channel] ?? 0) - held(expected, 255)));
            }
            expect(made[3]).toBe(pixel[3]);
          }
          // Tables of a quarter and a sixteenth of a level, and rounding.
          expect(furthest).toBeLessThan(midtones === 1 ? 1 : 3.5);
        },
      ),
    );
  });

  test('means are those of all pixels that are seen, before and after their luminance was changed', () => {
    const chromaOf = ([r, g, b]: readonly number[]) => {
      const y = lightOf([r ?? 0, g ?? 0, b ?? 0]);
      return Math.hypot(((b ?? 0) - y) / 1.8556, ((r ?? 0) - y) / 1.5748);
    };
    const balance = { lighter: 0.5, darker: 0.8, saturation: 1.2 };
    fc.assert(
      fc.property(aRaster, (plain) => {
        const random = steadyNoise(plain.width * 31 + plain.height);
        const moves = pixelsOf(plain).map((_, at) => (at % 3 === 0 ? 0 : 40 * random()));
        const data = Float32Array.from(pixelsOf(plain), (pixel, at) => lightOf(pixel) + (moves[at] ?? 0));
        const seen = pixelsOf(plain).flatMap((pixel, at) => (pixel[3] >= 128 ? [{ pixel, move: moves[at] ?? 0 }] : []));
        const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
        const now = meansOf(plain);
        expect(now.luminance).toBeCloseTo(mean(seen.map(({ pixel }) => lightOf(pixel))), 6);
        expect(now.chroma).toBeCloseTo(plain.channels < 3 ? 0 : mean(seen.map(({ pixel }) => chromaOf(pixel))), 6);
        const after = seen.map(({ pixel, move }) => {
          const y = lightOf(pixel);
          const lifted = y + move * (move > 0 ? balance.lighter : balance.darker);
          const own = Math.abs(move) < 0.01 ? 1 : balance.saturation;
          const factor = plain.channels < 3 ? 1 : own;
          return pixel.slice(0, 3).map((value) => Math.round(held(lifted + factor * (value - y), 255)));
        });
        const { width, height } = plain;
        const changed = meansOf(plain, { luminance: { data, width, height }, balance });
        // Half a level may fall either way where single and double precision round.
        expect(Math.abs(changed.luminance - mean(after.map(lightOf)))).toBeLessThan(0.02 + 1 / seen.length);
        if (plain.channels >= 3) {
          expect(Math.abs(changed.chroma - mean(after.map(chromaOf)))).toBeLessThan(0.02 + 1 / seen.length);
        }
      }),
    );
  });

  test('figures are those of every pixel that has neighbours', () => {
    const random = steadyNoise(9);
    const draw = (levels: number) =>
      target(31, 270, (x, y) => (x < 14 ? 120 : x % 5 < 2 ? 0 : 240) + levels * random() + (y % 40 < 20 ? 6 : 0));
    const [plain, finished] = [draw(4), draw(14)];
    const { width, height } = plain;
    const at = (raster: Raster, x: number, y: number) => raster.data[(y * width + x) * 3] as number;
    const made = { slopes: 0, noise: 0, calm: 0, overshoot: 0, edges: 0, black: 0, inner: 0 };
    for (let y = 0; y < height; y += 1) {
      for (let x = 0; x < width; x += 1) {
        const near: number[] = [];
        for (let row = Math.max(0, y - 2); row <= Math.min(height - 1, y + 2); row += 1)
          for (let column = Math.max(0, x - 2); column <= Math.min(width - 1, x + 2); column += 1)
            near.push(at(plain, column, row));
        const [low, high, value] = [Math.min(...near), Math.max(...near), at(finished, x, y)];
        if (value === 0) made.black += 1;
        if (high - low >= 40) {
          made.edges += 1;
          made.overshoot += Math.max(0, value - high, low - value) / (high - low);
        }
        if (x === 0 || y === 0 || x === width - 1 || y === height - 1) continue;
        const [left, right, up, down] = [
          at(finished, x - 1, y),
          at(finished, x + 1, y),
          at(finished, x, y - 1),
          at(finished, x, y + 1),
        ];
        made.inner += 1;
        made.slopes += ((right - left) / 2) ** 2 + ((down - up) / 2) ** 2;
        if (high - low >= 12) continue;
        made.calm += 1;
        made.noise += Math.abs(value - (left + right + up + down) / 4);
      }
    }
    const figures = finishFigures(plain, finished);
    expect(made.calm).toBeGreaterThan(500);
    expect(figures.halo).toBeCloseTo(made.overshoot / made.edges, 3);
    expect(figures.finished.acutance).toBeCloseTo(Math.sqrt(made.slopes / made.inner), 1);
    expect(figures.finished.noise).toBeCloseTo(made.noise / made.calm, 2);
    expect(figures.finished.shadows).toBeCloseTo(made.black / (width * height), 4);
    // Against a picture of other contrast halos are measured before tone was set.
    expect(finishFigures(plain, finished, plain).halo).toBe(0);
  });
});

describe('points', () => {
  const histogram = (levels: number[]) =>
    histogramOf({ data: Uint8Array.from(levels), width: levels.length, height: 1, channels: 1 });
  const times = (count: number, level: number) => new Array<number>(count).fill(level);

  test('automatic ones leave out the share that was asked for, and stay 64 levels apart', () => {
    const spread = histogram([...times(2, 20), ...times(96, 100), ...times(2, 220)]);
    expect(tonePoints({ kind: 'automatic', clip: 0 }, spread)).toMatchObject({
      black: [20, 20, 20],
      white: [220, 220, 220],
    });
    const fog = tonePoints({ kind: 'automatic', clip: 0.02001 }, spread);
    expect(fog).toEqual({ black: [68, 68, 68], white: [132, 132, 132], midtones: 1 });
    const dark = tonePoints({ kind: 'automatic', clip: 0 }, histogram(times(9, 4)));
    expect(dark).toMatchObject({ black: [0, 0, 0], white: [36, 36, 36] });
    const light = tonePoints({ kind: 'automatic', clip: 0 }, histogram(times(9, 250)));
    expect(light).toMatchObject({ black: [218, 218, 218], white: [255, 255, 255] });
    expect(tonePoints({ kind: 'automatic', clip: 0 }, histogram([]))).toMatchObject({ black: [0, 0, 0], midtones: 1 });
  });

  test('paper becomes white by its peak and its unevenness, and by what is no line', () => {
    const paper = (levels: number[]) => tonePoints({ kind: 'paper' }, histogram(levels));
    // Smoothed over five levels, 199 to 201 have their peak at 199; two standard deviations of what lies above are paper.
    const smooth = paper([...times(3, 10), ...times(20, 199), ...times(57, 200), ...times(20, 201)]);
    expect(smooth.black).toEqual([10, 10, 10]);
    expect(smooth.white[0]).toBeCloseTo(199 - 2 * Math.sqrt((57 + 20 * 4) / 97), 6);
    // So uneven that it would reach into the lines: 18 % below its peak is where it ends.
    const uneven = paper([...times(1, 10), ...times(60, 150), ...times(40, 250)]);
    expect(uneven.white[0]).toBeCloseTo(148 * 0.82, 6);
    // Black stays 64 below white, and without anything light the points are automatic.
    expect(paper([...times(5, 90), ...times(95, 100)])).toMatchObject({ black: [30, 30, 30], white: [94, 94, 94] });
    expect(paper(times(20, 80))).toMatchObject({ black: [48, 48, 48], white: [112, 112, 112] });
    expect(paper([])).toMatchObject({ black: [0, 0, 0], white: [255, 255, 255] });
  });
});

describe('scaling', () => {
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
    return [...weights].map((weight, tap) => ({ weight, at: held((first[0] ?? 0) + tap, length - 1) }));
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
            expect(Math.abs(found[3] - held(alpha, 255))).toBeLessThan(0.6);
            if (alpha < 8) continue;
            for (const channel of [0, 1, 2]) {
              const colour = sum((pixel) => ((pixel[channel] ?? 0) * (pixel[3] ?? 0)) / 255);
              expect(Math.abs((found[channel] ?? 0) - held((255 * colour) / alpha, 255))).toBeLessThan(0.8);
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
            return [...weights].map((weight, tap) => ({ weight, at: held((first[0] ?? 0) - by + tap, length - 1) }));
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
          expect(Math.abs(value - 255 * encodedLight(held(sum / opacity, 1)))).toBeLessThan(0.4);
        }
      }),
    );
  });
});
