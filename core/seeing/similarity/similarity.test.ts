import fc from 'fast-check';
import { ssim } from 'ssim.js';
import { describe, expect, test } from 'vitest';
import type { Raster } from '../../planes/index.ts';
import { steadyNoise, target, zonePlate } from '../../testing/index.ts';
import { chromaKept, luminancePlane, natureOf, similarityOf, structuralSimilarity } from '../index.ts';

const change = (raster: Raster, by: (value: number, x: number, y: number, channel: number) => number): Raster => ({
  ...raster,
  data: Uint8ClampedArray.from(raster.data, (value, at) => {
    const pixel = Math.floor(at / raster.channels);
    return by(value, pixel % raster.width, Math.floor(pixel / raster.width), at % raster.channels);
  }),
});
const noisy = (raster: Raster, levels: number, seed = 1) => {
  const random = steadyNoise(seed);
  return change(raster, (value) => value + levels * random());
};
/** Every block of pixels becomes its mean: what coarse encoding does. */
const blocky = (raster: Raster, side: number): Raster =>
  change(raster, (_, x, y, channel) => {
    const [left, top] = [x - (x % side), y - (y % side)];
    let [sum, count] = [0, 0];
    for (let row = top; row < Math.min(raster.height, top + side); row += 1) {
      for (let column = left; column < Math.min(raster.width, left + side); column += 1) {
        sum += raster.data[(row * raster.width + column) * raster.channels + channel] as number;
        count += 1;
      }
    }
    return sum / count;
  });
const textured = target(320, 240, (x, y) => [
  120 + 60 * Math.sin(x / 9) * Math.cos(y / 7) + 20 * Math.sin((x * y) / 300),
  110 + 50 * Math.cos(x / 13),
  90 + 0.4 * y,
]);

describe('structural similarity at one scale', () => {
  const grey = ({ data, width, height }: Raster) =>
    target(width, height, (x, y) => data[(y * width + x) * 3 + 1] as number);
  /** As the other implementation takes pictures. */
  const pictureOf = ({ data, width, height }: Raster) => ({
    data: Uint8ClampedArray.from({ length: width * height * 4 }, (_, at) =>
      at % 4 === 3 ? 255 : (data[(at >> 2) * 3] as number),
    ),
    width,
    height,
  });

  test.each([
    ['noise', (raster: Raster) => noisy(raster, 25)],
    ['blocks', (raster: Raster) => blocky(raster, 6)],
    ['another contrast', (raster: Raster) => change(raster, (value) => 128 + (value - 128) * 0.6)],
    ['more light', (raster: Raster) => change(raster, (value) => value + 30)],
  ])('is what an independent implementation finds: %s', (_, spoil) => {
    for (const picture of [grey(textured), zonePlate(256, 128)]) {
      const spoilt = grey(spoil(picture));
      const { mssim } = ssim(pictureOf(picture), pictureOf(spoilt), { ssim: 'original', downsample: false });
      const ours = structuralSimilarity(luminancePlane(picture), luminancePlane(spoilt));
      // The other one leaves out the outermost five pixels, which have no whole surroundings.
      expect(Math.abs(ours - mssim)).toBeLessThan(0.006);
    }
  });
});

describe('similarity', () => {
  test('is 100 of the same picture, of any dimensions and channels, and falls as more is lost', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 90 }),
        fc.integer({ min: 1, max: 90 }),
        fc.constantFrom<Raster['channels']>(1, 2, 3, 4),
        (width, height, channels) => {
          const random = steadyNoise(width * height);
          const data = Uint8Array.from({ length: width * height * channels }, () => 128 + 127 * random());
          const picture = { data, width, height, channels };
          expect(similarityOf(picture, picture)).toMatchObject({
            overall: 100,
            flatAreaError: 0,
            blockError: 0,
            worst: { similarity: 100 },
          });
        },
      ),
      { numRuns: 40 },
    );
    const falling = [2, 6, 15, 40].map((levels) => similarityOf(textured, noisy(textured, levels)).overall);
    expect([...falling].sort((a, b) => b - a)).toEqual(falling);
    expect(falling[0]).toBeGreaterThan(98);
    expect(falling[3]).toBeLessThan(85);
  });

  test('finds the spot that was ruined, and a region in it counts on its own', () => {
    const face = { left: 200, top: 96, width: 40, height: 40 };
    const inFace = (x: number, y: number) =>
      x >= face.left && x < face.left + face.width && y >= face.top && y < face.top + face.height;
    const flattened = change(textured, (value, x, y, channel) => (inFace(x, y) ? 90 + 10 * channel : value));
    const { overall, worst, regions } = similarityOf(textured, flattened, [face, { ...face, left: 20 }]);
    expect(overall).toBeGreaterThan(90);
    expect(worst.similarity).toBeLessThan(80);
    expect(inFace(worst.left + worst.width / 2, worst.top + worst.height / 2)).toBe(true);
    expect(regions[0]).toBeLessThan(60);
    expect(regions[1]).toBeGreaterThan(99);
  });

  test('sees colour that has gone and steps in a smooth sky, which light and structure do not show', () => {
    const pale = change(textured, (value, _x, _y, channel) => (channel === 1 ? value : 110));
    expect(similarityOf(textured, pale).overall).toBeLessThan(95);
    const sky = target(256, 256, (x, y) => 120 + (x + y) / 16);
    const stepped = change(sky, (value) => Math.round(value / 8) * 8);
    expect(similarityOf(sky, stepped).overall).toBeGreaterThan(96);
    expect(similarityOf(sky, stepped).flatAreaError).toBeGreaterThan(2);
    // Noise hides what is added to it, as long as it has no colour.
    const grainy = (seed: number) => {
      const random = steadyNoise(seed);
      const grain = Array.from({ length: 256 * 256 }, () => 24 * random() - 12);
      return change(sky, (value, x, y) => value + (grain[y * 256 + x] ?? 0));
    };
    expect(similarityOf(grainy(1), grainy(7)).flatAreaError).toBeLessThan(0.6);
  });

  test('says by how many levels flat areas, their colours and the worst block have moved', () => {
    const flat = target(192, 128, () => 90);
    const of = (by: (value: number, x: number, y: number, channel: number) => number) =>
      similarityOf(flat, change(flat, by));
    expect(of((value) => value + 3)).toMatchObject({ flatAreaError: 3, blockError: 3 });
    // Moved by 12 in blue alone: its difference by 12 (1 - 0.0722) / 1.8556.
    expect(of((value, _x, _y, channel) => value + (channel === 2 ? 12 : 0)).flatAreaError).toBeCloseTo(6, 1);
    // A quarter of the worst spot has moved: half of the root of the mean square.
    expect(of((value, x, y) => value + (x >= 160 && y < 32 ? 8 : 0)).flatAreaError).toBe(4);
    expect(of((value, x, y) => value + (x >= 80 && x < 88 && y >= 40 && y < 48 ? 24 : 0)).blockError).toBeCloseTo(
      24,
      0,
    );
    // Where colour has moved in one spot alone, it is seen there.
    const corner = of((value, x, y, channel) => value + (channel === 2 && x >= 128 && y >= 64 ? 12 : 0));
    expect(corner.flatAreaError).toBeCloseTo(6, 1);
  });

  test('a region counts as far as it lies in the picture, and has lost nothing where it lies outside', () => {
    const spoilt = change(textured, (value, x) => (x < 160 ? value : 90));
    const at = (left: number, top: number) => ({ left, top, width: 60, height: 60 });
    const regions = [at(500, 500), at(500, 10), at(10, 500), at(320, 10), at(-60, 10), at(-30, 10), at(290, 200)];
    const found = similarityOf(textured, spoilt, regions).regions;
    expect(found.slice(0, 6)).toEqual([100, 100, 100, 100, 100, 100]);
    expect(found[6]).toBeLessThan(60);
  });

  test('pictures of other channels are compared as they look on middle grey', () => {
    const random = steadyNoise(3);
    const grey = Uint8Array.from({ length: 48 * 40 }, () => 128 + 120 * random());
    const alpha = Uint8Array.from({ length: 48 * 40 }, () => 128 + 127 * random());
    const size = { width: 48, height: 40 };
    const laid = grey.map((value, at) => Math.round(128 + ((value - 128) * (alpha[at] ?? 0)) / 255));
    const of = (channels: Raster['channels'], value: (at: number, channel: number) => number): Raster => ({
      ...size,
      channels,
      data: Uint8Array.from({ length: 48 * 40 * channels }, (_, at) => value(Math.floor(at / channels), at % channels)),
    });
    const clear = [
      of(2, (at, channel) => (channel === 0 ? (grey[at] ?? 0) : (alpha[at] ?? 0))),
      of(4, (at, channel) => (channel < 3 ? (grey[at] ?? 0) : (alpha[at] ?? 0))),
    ];
    const opaque = [of(1, (at) => laid[at] ?? 0), of(3, (at) => laid[at] ?? 0)];
    for (const a of [...clear, ...opaque])
      for (const b of opaque) {
        expect(similarityOf(a, b).overall).toBe(100);
        expect(similarityOf(b, a).overall).toBe(100);
      }
    // Colour is seen in whichever of the two has it.
    const red = of(3, (at, channel) => Math.min(255, (laid[at] ?? 0) + (channel === 0 ? 40 : 0)));
    expect(similarityOf(red, opaque[0] as Raster).overall).toBe(similarityOf(red, opaque[1] as Raster).overall);
    expect(similarityOf(opaque[0] as Raster, red).overall).toBe(similarityOf(opaque[1] as Raster, red).overall);
    expect(() => similarityOf(red, { ...red, width: 40, height: 48 })).toThrow(/48 × 40 and 40 × 48/);
    expect(() =>
      similarityOf(
        red,
        of(3, () => 0),
        [],
      ),
    ).not.toThrow();
    for (const other of [
      { width: 24, height: 40 },
      { width: 48, height: 20 },
    ])
      expect(() => similarityOf(red, { ...red, ...other })).toThrow('Only pictures of the same dimensions');
  });

  test('sees broad patches of colour where light has hardly moved, and passes over grain as strong', () => {
    const sky = target(256, 256, (x, y) => 120 + (x + y) / 16);
    const inBlue = (sign: (x: number, y: number) => number) =>
      similarityOf(
        sky,
        change(sky, (value, x, y, channel) => (channel === 2 ? value + 12 * sign(x, y) : value)),
      ).flatAreaError;
    const patches = inBlue((x, y) => (((x >> 4) + (y >> 4)) % 2 === 0 ? 1 : -1));
    const grain = inBlue((x, y) => ((x + y) % 2 === 0 ? 1 : -1));
    expect(patches).toBeGreaterThan(4);
    expect(grain).toBeLessThan(1.5);
  });

  test('is a number where one part has moved by odd amounts and the rest not at all', () => {
    const flat = target(400, 300, () => 90);
    const random = steadyNoise(5);
    const moved = change(flat, (value, x, y) => (x < 130 && y < 90 ? value + 3 * random() : value));
    for (const region of [moved, noisy(flat, 2)]) {
      const { flatAreaError, worst } = similarityOf(flat, region);
      expect(Number.isFinite(flatAreaError)).toBe(true);
      expect(flatAreaError).toBeGreaterThan(0.5);
      expect(Number.isFinite(worst.similarity)).toBe(true);
    }
  });

  test('of a very long picture is measured in bands, and its worst spot lies where it is', () => {
    const grain = steadyNoise();
    const data = Uint8Array.from({ length: 64 * 100_100 }, () => 120 + 40 * grain());
    const tall: Raster = { data, width: 64, height: 100_100, channels: 1 };
    const spoilt = { ...tall, data: data.slice().fill(120, 64 * 98_000, 64 * 98_100) };
    const { worst, regions } = similarityOf(tall, spoilt, [{ left: 0, top: 93_000, width: 64, height: 6000 }]);
    expect(worst.top).toBeGreaterThan(97_950);
    expect(worst.top).toBeLessThan(98_100);
    expect(regions[0]).toBeLessThan(99.5);
    expect(() => similarityOf(tall, textured)).toThrow(/64 × 100100 and 320 × 240/);
  });
});

describe('what a picture is', () => {
  const lettering = (ink: [number, number, number], ground: [number, number, number]) =>
    target(300, 200, (x, y) => ((x % 13 < 3 && y % 40 < 30) || (y % 21 < 3 && x % 60 < 40) ? ink : ground));

  test('follows from how alike neighbours are', () => {
    expect(natureOf(lettering([20, 20, 20], [250, 240, 230])).kind).toBe('flat artwork');
    expect(natureOf(noisy(textured, 6)).kind).toBe('photo');
    const half = change(noisy(textured, 6), (value, x) => (x < 100 ? 200 : value));
    expect(natureOf(half)).toMatchObject({ kind: 'mixed' });
  });

  test('red lettering on blue would smear at half the colour, the same in black would not', () => {
    expect(chromaKept(lettering([224, 16, 32], [16, 48, 192]))).toBeLessThan(85);
    expect(chromaKept(lettering([20, 20, 20], [235, 235, 235]))).toBeGreaterThan(99);
    expect(chromaKept(textured)).toBeGreaterThan(90);
    const grey = { ...textured, data: textured.data.slice(0, 320 * 240 * 2), channels: 2 as const };
    expect(chromaKept(grey)).toBe(100);
  });
});
