import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { scalingKernels } from '../model/index.ts';
import { calmRange, luminanceOf, type Plane, type Raster } from '../planes/index.ts';
import { luminancePlane } from '../seeing/index.ts';
import { steadyNoise, target } from '../testing/index.ts';
import { finishById, finishPixels, plainTreatment, scaledInLight } from './index.ts';
import { weightsOf } from './scaling/scalingKernels.ts';
import { halfGaussian } from './sharpening/blur.ts';
import { withinHalo } from './sharpening/halo.ts';
import { sharpened } from './sharpening/sharpen.ts';

/** Widths that are and are not multiples of four, down to a single pixel. */
const aSize = fc.record({
  width: fc.integer({ min: 1, max: 37 }),
  height: fc.integer({ min: 1, max: 29 }),
  seed: fc.nat(999),
});
const plane = ({ width, height, seed }: { width: number; height: number; seed: number }, contrast = 100): Plane => {
  const random = steadyNoise(seed + 1);
  return { data: Float32Array.from({ length: width * height }, () => 128 + contrast * random()), width, height };
};
const held = (length: number, at: number) => Math.min(length - 1, Math.max(0, at));

/** A Gaussian blur as it is defined, in both directions at once. */
function blurredPlainly({ data, width, height }: Plane, deviation: number): number[] {
  const half = halfGaussian(deviation);
  const radius = half.length - 1;
  return Array.from(data, (_, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    let sum = 0;
    for (let dy = -radius; dy <= radius; dy += 1) {
      for (let dx = -radius; dx <= radius; dx += 1) {
        const weight = (half[Math.abs(dx)] ?? 0) * (half[Math.abs(dy)] ?? 0);
        sum += weight * (data[held(height, y + dy) * width + held(width, x + dx)] ?? 0);
      }
    }
    return sum;
  });
}

describe('what runs four pixels at a time', () => {
  test('sharpens as unsharp masking with a threshold is defined, at every width and radius', () => {
    fc.assert(
      fc.property(
        aSize,
        fc.constantFrom(0.2, 0.7, 1.3, 2.6),
        fc.constantFrom(0, 4),
        fc.constantFrom(0, 0.5),
        (size, radius, threshold, blend) => {
          const before = plane(size);
          const pass = { amount: 1.5, radius, threshold };
          const made = sharpened(before, { sharpen: pass, second: { ...pass, amount: 0.8 }, blend }, 1);
          const once = (from: Plane, strength: number): Plane => {
            const soft = blurredPlainly(from, radius);
            const data = from.data.map((value, at) => {
              const difference = value - (soft[at] ?? 0);
              return value + strength * Math.sign(difference) * Math.max(0, Math.abs(difference) - threshold);
            });
            return { ...from, data };
          };
          const expected = blend > 0 ? once(once(before, 1.5), 0.8 * blend) : once(before, 1.5);
          for (const [at, value] of made.data.entries()) expect(value).toBeCloseTo(expected.data[at] ?? 0, 1);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('holds halos as they are defined', () => {
    fc.assert(
      fc.property(
        aSize,
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom(0, 0.1, 1),
        fc.constantFrom(2, 5, 100),
        (size, radius, share, contrast) => {
          const plain = plane({ ...size, seed: size.seed + 7 }, contrast);
          const wild = plane(size);
          const { width, height } = plain;
          const made = withinHalo(wild, plain, share, radius);
          for (const [at, value] of made.data.entries()) {
            const [x, y] = [at % width, Math.floor(at / width)];
            const near: number[] = [];
            for (let row = y - radius; row <= y + radius; row += 1) {
              for (let column = x - radius; column <= x + radius; column += 1) {
                near.push(plain.data[held(height, row) * width + held(width, column)] ?? 0);
              }
            }
            const [low, high] = [Math.min(...near), Math.max(...near)];
            const allowed = share * (high - low);
            const halo = Math.min(high + allowed, Math.max(low - allowed, wild.data[at] ?? 0));
            const [own, move] = [plain.data[at] ?? 0, Math.max(0.5, high - low - calmRange)];
            expect(value).toBeCloseTo(Math.min(own + move, Math.max(own - move, halo)), 2);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  test('reads luminance as the plain arithmetic does, of any number of channels', () => {
    fc.assert(
      fc.property(aSize, fc.constantFrom(1, 2, 3, 4), ({ width, height, seed }, channels) => {
        const random = steadyNoise(seed + 3);
        const data = Uint8Array.from({ length: width * height * channels }, () => 128 + 127 * random());
        const raster = { data, width, height, channels } as Raster;
        const { red, green, blue } = luminanceOf;
        for (const [at, value] of luminancePlane(raster).data.entries()) {
          const [r = 0, g = 0, b = 0] = data.subarray(at * channels, (at + 1) * channels);
          expect(value).toBeCloseTo(channels < 3 ? r : red * r + green * g + blue * b, 3);
        }
      }),
      { numRuns: 40 },
    );
  });

  test('scales in light: a checkerboard of black and white has half the light, not half the level; flat stays flat', () => {
    for (const kernel of scalingKernels) {
      for (const [width, height] of [
        [64, 48],
        [61, 47],
      ] as const) {
        const board = target(width, height, (x, y) => ((x + y) % 2 === 0 ? 255 : 0));
        const whole = { left: 0, top: 0, width: Math.floor(width / 2), height: Math.floor(height / 2) };
        const ratio = { x: width / whole.width, y: height / whole.height };
        const scaled = (raster: Raster) =>
          scaledInLight({ plane: luminancePlane(raster), alpha: null, left: 0, top: 0 }, ratio, kernel, whole);
        const middle =
          scaled(board).data[Math.floor(whole.height / 2) * whole.width + Math.floor(whole.width / 2)] ?? 0;
        expect(Math.abs(middle - 188)).toBeLessThan(12);
        for (const level of [0, 1, 77, 254, 255]) {
          const flat = scaled(target(width, height, () => level)).data;
          for (const value of flat) expect(Math.abs(value - level)).toBeLessThan(0.1);
        }
      }
    }
  });

  test('what is transparent has no say in what is scaled', () => {
    const size = { width: 40, height: 20 };
    const alpha = Uint8Array.from({ length: 800 }, (_, at) => (at % 40 < 20 ? 0 : 255));
    const of = (hidden: number) => {
      const data = Float32Array.from({ length: 800 }, (_, at) => (at % 40 < 20 ? hidden : 150));
      return scaledInLight({ plane: { ...size, data }, alpha, left: 0, top: 0 }, { x: 2, y: 2 }, 'lanczos3', {
        left: 0,
        top: 0,
        width: 20,
        height: 10,
      }).data;
    };
    const [dark, light] = [of(0), of(255)];
    for (let at = 0; at < 200; at += 1) {
      if (at % 20 < 12) continue;
      expect(dark[at]).toBeCloseTo(150, 0);
      expect(light[at]).toBeCloseTo(dark[at] ?? 0, 0);
    }
  });
});

test('weights of every kernel add up to one, wherever the output pixel lies', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...scalingKernels),
      fc.double({ min: 0.4, max: 6, noNaN: true }),
      fc.integer({ min: 0, max: 500 }),
      (kernel, ratio, start) => {
        const { taps, weights } = weightsOf(kernel, ratio, start, 7);
        for (let index = 0; index < 7; index += 1) {
          const sum = weights.subarray(index * taps, (index + 1) * taps).reduce((total, weight) => total + weight, 0);
          expect(sum).toBeCloseTo(1, 4);
        }
      },
    ),
  );
});

test('grey pictures, pictures with alpha and pictures of a pixel are finished, and keep their channels', () => {
  const strong = {
    ...finishById('crisp', []).treatment,
    tone: { kind: 'automatic', clip: 0 } as const,
    saturation: 1.5,
  };
  const random = steadyNoise(11);
  for (const channels of [1, 2, 3, 4] as const) {
    for (const [width, height] of [
      [1, 1],
      [3, 2],
      [40, 30],
    ] as const) {
      const data = Uint8Array.from({ length: width * height * channels }, (_, at) =>
        channels % 2 === 0 && at % channels === channels - 1 ? 200 : 128 + 60 * random(),
      );
      const plain: Raster = { data, width, height, channels };
      const picture = { plain, enlarged: null, ratio: { x: 1, y: 1 }, at: { left: 0, top: 0 }, scale: 1 };
      const { raster } = finishPixels(picture, strong);
      expect(raster).toMatchObject({ width, height, channels });
      if (channels % 2 === 0)
        for (let at = channels - 1; at < data.length; at += channels) expect(raster.data[at]).toBe(200);
      expect([...finishPixels(picture, plainTreatment).raster.data]).toEqual([...data]);
    }
  }
});
