import { describe, expect, test } from 'vitest';
import type { Treatment } from '../model/index.ts';
import type { Plane, Raster } from '../planes/index.ts';
import { localRange, luminancePlane } from '../seeing/index.ts';
import { slantedEdge, steadyNoise, target, zonePlate } from '../testing/index.ts';
import {
  acutanceOf,
  finishById,
  finishPixels,
  meansOf,
  scaledInLight,
  shippedFinishes,
  type ToFinish,
} from './index.ts';

const crisp = finishById('crisp', []).treatment;
const ready = (values: Partial<Treatment>): Treatment => ({ ...crisp, ...values });
const strong = ready({
  sharpen: { amount: 3, radius: 0.8, threshold: 0 },
  second: { amount: 2, radius: 0.5, threshold: 0 },
  blend: 0.6,
});

/** Mean of blocks of pixels: what a camera with larger pixels would have seen. */
function reduced(raster: Raster, by: number): Raster {
  if (by % 1 !== 0) return scaledPlainly(raster, by);
  return target(raster.width / by, raster.height / by, (x, y) => {
    const sums = [0, 0, 0];
    for (let at = 0; at < by * by; at += 1) {
      const from = ((y * by + Math.floor(at / by)) * raster.width + x * by + (at % by)) * 3;
      for (const colour of [0, 1, 2]) sums[colour] = (sums[colour] ?? 0) + (raster.data[from + colour] ?? 0);
    }
    const [red = 0, green = 0, blue = 0] = sums.map((sum) => sum / (by * by));
    return [red, green, blue];
  });
}
/** The same for a scale between two whole ones. */
function scaledPlainly(raster: Raster, by: number): Raster {
  const rect = { left: 0, top: 0, width: raster.width / by, height: raster.height / by };
  const channels = [0, 1, 2].map((channel) => {
    const data = Float32Array.from(
      { length: raster.width * raster.height },
      (_, at) => raster.data[at * 3 + channel] ?? 0,
    );
    const plane = { data, width: raster.width, height: raster.height };
    return scaledInLight({ plane, alpha: null, left: 0, top: 0 }, { x: by, y: by }, 'lanczos3', rect).data;
  });
  const at = (channel: number, x: number, y: number) => channels[channel]?.[y * rect.width + x] ?? 0;
  return target(rect.width, rect.height, (x, y) => [at(0, x, y), at(1, x, y), at(2, x, y)]);
}
const oversized = (enlarged: Raster, by: number): ToFinish => ({
  plain: reduced(enlarged, by),
  enlarged: { raster: enlarged, left: 0, top: 0 },
  ratio: { x: by, y: by },
  at: { left: 0, top: 0 },
  scale: 1,
});
const asItIs = (plain: Raster): ToFinish => ({
  plain,
  enlarged: null,
  ratio: { x: 1, y: 1 },
  at: { left: 0, top: 0 },
  scale: 1,
});
const luminances = (raster: Raster) => [...luminancePlane(raster).data];

/** How many numbers of the pixels differ from the plain picture's. */
const numberChanged = ({ plain }: ToFinish, { data }: Raster) =>
  data.length === plain.data.length ? data.filter((value, at) => value !== plain.data[at]).length : data.length;

/** How far a pixel goes at most beyond its surroundings and the halo allowed there, in levels. */
function mostBeyond(before: Plane, after: Plane, halo: number): number {
  const { low, high } = localRange(before, 1);
  return after.data.reduce((most, value, at) => {
    const [darkest = 0, lightest = 0] = [low[at], high[at]];
    return Math.max(most, Math.max(value - lightest, darkest - value) - halo * (lightest - darkest));
  }, Number.NEGATIVE_INFINITY);
}

describe('sharpening', () => {
  test('a flat colour stays as it is to the bit, enlarged or not', () => {
    for (const colour of [
      [31, 111, 102],
      [0, 0, 0],
      [255, 255, 255],
      [7, 200, 3],
    ] as const) {
      const flat = target(96, 64, () => colour);
      for (const picture of [asItIs(flat), oversized(flat, 2)]) {
        expect(numberChanged(picture, finishPixels(picture, strong).raster)).toBe(0);
      }
    }
  });

  test('edges get steeper, and no pixel shoots over its surroundings by more than the limit', () => {
    const edge = slantedEdge(240, 160, 60, 190);
    for (const picture of [asItIs(reduced(edge, 2)), oversized(edge, 2)]) {
      const before = luminancePlane(picture.plain);
      for (const halo of [0, 0.05, 0.2]) {
        const { raster } = finishPixels(picture, { ...strong, halo, compensate: { kind: 'off' } });
        const after = luminancePlane(raster);
        expect(acutanceOf(after)).toBeGreaterThan(1.05 * acutanceOf(before));
        expect(mostBeyond(before, after, halo)).toBeLessThanOrEqual(0.51);
      }
    }
  });

  test('noise up to the threshold is left alone, what rises above it is sharpened', () => {
    const random = steadyNoise();
    const noise = target(120, 120, () => 120 + 8 * random());
    const treatment = (threshold: number) =>
      ready({ sharpen: { amount: 2, radius: 0.8, threshold }, blend: 0, halo: 1, compensate: { kind: 'off' } });
    expect(numberChanged(asItIs(noise), finishPixels(asItIs(noise), treatment(16)).raster)).toBe(0);
    const lifted = finishPixels(asItIs(noise), treatment(0)).raster;
    expect(acutanceOf(luminancePlane(lifted))).toBeGreaterThan(1.5 * acutanceOf(luminancePlane(noise)));
  });

  test('the second pass comes in by its blend, evenly', () => {
    const edge = asItIs(reduced(slantedEdge(240, 160, 60, 190), 2));
    const acutances = [0, 0.5, 1].map((blend) =>
      acutanceOf(luminancePlane(finishPixels(edge, { ...strong, blend, halo: 0.3 }).raster)),
    );
    expect(acutances[1]).toBeGreaterThan(acutances[0] ?? 0);
    expect(acutances[2]).toBeGreaterThan(acutances[1] ?? 0);
    // Also where there is no first pass; and where both are off nothing is done.
    const second = ready({ ...strong, sharpen: { ...strong.sharpen, amount: 0 }, compensate: { kind: 'off' } });
    expect(numberChanged(edge, finishPixels(edge, { ...second, blend: 0.5 }).raster)).toBeGreaterThan(100);
    expect(numberChanged(edge, finishPixels(edge, { ...second, blend: 0 }).raster)).toBe(0);
  });

  test('sharpened while it is enlarged, a picture has less false detail than sharpened at its final dimensions', () => {
    // Rings that get finer outwards: beyond a quarter of the side the small picture cannot hold them, and what it shows
    // there is made up.
    const side = 256;
    const plate = zonePlate(2 * side, side);
    const treatment = ready({ sharpen: { amount: 1.5, radius: 0.7, threshold: 0 }, blend: 0, halo: 1 });
    const whole = { left: 0, top: 0, width: side, height: side };
    const part = { plane: luminancePlane(plate), alpha: null, left: 0, top: 0 };
    const scaled = scaledInLight(part, { x: 2, y: 2 }, 'lanczos3', whole);
    const plain = target(side, side, (x, y) => scaled.data[y * side + x] ?? 0);
    const falseDetail = (raster: Raster) => {
      const { data } = luminancePlane(raster);
      let [sum, count] = [0, 0];
      for (let y = 1; y < side; y += 1) {
        for (let x = 1; x < side; x += 1) {
          const distance = Math.hypot(x - side / 2, y - side / 2);
          if (distance < 0.27 * side || distance > 0.48 * side) continue;
          const at = y * side + x;
          sum += ((data[at] ?? 0) - (data[at - 1] ?? 0)) ** 2 + ((data[at] ?? 0) - (data[at - side] ?? 0)) ** 2;
          count += 1;
        }
      }
      return sum / count;
    };
    const atFinalDimensions = finishPixels(asItIs(plain), treatment).raster;
    const whileEnlarged = finishPixels({ ...oversized(plate, 2), plain }, treatment).raster;
    expect(falseDetail(atFinalDimensions)).toBeGreaterThan(1);
    expect(falseDetail(whileEnlarged)).toBeLessThan(0.8 * falseDetail(atFinalDimensions));
  });
});

describe('compensating', () => {
  const random = steadyNoise(7);
  const picture = target(480, 320, (x, y) => {
    const light = 110 + 80 * Math.sin(x / 9) * Math.cos(y / 7) + 40 * random();
    return [light + 40, light, light - 30 * Math.sin(y / 23)];
  });

  test('mean luminance and mean chroma are those of the plain picture within a tenth of a level', () => {
    for (const halo of [0.05, 1]) {
      const { raster, balance } = finishPixels(oversized(picture, 2), { ...strong, halo });
      const [before, after] = [meansOf(reduced(picture, 2)), meansOf(raster)];
      expect(Math.abs(after.luminance - before.luminance)).toBeLessThan(0.1);
      expect(Math.abs(after.chroma - before.chroma)).toBeLessThan(0.1);
      expect(Math.min(balance.lighter, balance.darker)).toBeLessThan(1);
    }
  });

  test('lines that are white or black already weigh the same, whatever columns they are in', () => {
    // Of so many pixels one in three would be looked at, and where the width has divisors in common fewer.
    for (const [width, height] of [
      [500, 600],
      [300, 1000],
      [420, 720],
    ] as const) {
      for (const line of [255, 0]) {
        const lined = target(width, height, (x) => (x % 12 === 0 ? line : 128));
        const { raster, balance } = finishPixels(asItIs(lined), { ...strong, halo: 1 });
        expect(Math.abs(meansOf(raster).luminance - meansOf(lined).luminance)).toBeLessThan(0.1);
        // What cannot get lighter or darker itself has only made the other side of its edges so.
        expect(line === 255 ? balance.darker : balance.lighter).toBeLessThan(0.6);
      }
    }
  });

  test.each(shippedFinishes.filter(({ treatment }) => treatment.sharpen.amount > 0))(
    'with $name as it ships the halo limit holds everywhere, and calm areas stay',
    ({ treatment }) => {
      // Edges of all directions and contrasts, a calm sky with grain below the threshold, colours near their limits.
      const busy = target(480, 324, (x, y) => {
        const edge = x % 90 < 45 !== y % 70 < 35 ? 60 : 190;
        const sky = 150 + 2 * random();
        const light = x > 320 ? sky : edge + 25 * Math.sin((x * y) / 400);
        return [light + 60, light, light - 70];
      });
      const picture = oversized(busy, 1.5);
      const { raster } = finishPixels(picture, { ...treatment, tone: { kind: 'as it is' } });
      const [before, after] = [luminancePlane(picture.plain), luminancePlane(raster)];
      expect(mostBeyond(before, after, treatment.halo)).toBeLessThanOrEqual(1);
      const { low, high } = localRange(before, 1);
      let [edges, calm, moved] = [0, 0, 0];
      for (const [at, value] of after.data.entries()) {
        const contrast = (high[at] ?? 0) - (low[at] ?? 0);
        if (contrast >= 40) edges += 1;
        if (contrast > 6) continue;
        calm += 1;
        moved = Math.max(moved, Math.abs(value - (before.data[at] ?? 0)));
      }
      expect(moved).toBeLessThanOrEqual(1);
      expect(Math.min(edges, calm)).toBeGreaterThan(2000);
      if (treatment.compensate.kind === 'measured') {
        const [was, is] = [meansOf(picture.plain), meansOf(raster)];
        expect(Math.abs(is.luminance - was.luminance)).toBeLessThan(0.1);
        expect(Math.abs(is.chroma - was.chroma)).toBeLessThan(0.1);
      }
    },
  );

  test('by hand it does what it is told, and off it does nothing', () => {
    const plain = reduced(picture, 2);
    const untouched = finishById('plain', []).treatment;
    const by = (midtones: number, saturation: number) =>
      meansOf(
        finishPixels(asItIs(plain), { ...untouched, compensate: { kind: 'by hand', midtones, saturation } }).raster,
      );
    const before = meansOf(plain);
    expect(by(1.2, 1).luminance).toBeGreaterThan(before.luminance + 5);
    expect(by(1, 1.3).chroma).toBeGreaterThan(1.15 * before.chroma);
    const off = finishPixels(asItIs(plain), { ...untouched, compensate: { kind: 'off' } });
    expect(numberChanged(asItIs(plain), off.raster)).toBe(0);
  });
});

describe('tone', () => {
  const untouched = finishById('plain', []).treatment;

  test('black and white point stretch a grey ramp, midtones lift its middle and leave its ends', () => {
    const ramp = target(256, 4, (x) => x);
    const finished = finishPixels(asItIs(ramp), {
      ...untouched,
      tone: { kind: 'by hand', black: 50, white: 200, midtones: 1.5 },
    }).raster;
    const row = luminances(finished).slice(0, 256).map(Math.round);
    expect([row[0], row[50], row[200], row[255]]).toEqual([0, 0, 255, 255]);
    expect(row[125]).toBe(Math.round(255 * 0.5 ** (1 / 1.5)));
    for (let x = 1; x < 256; x += 1) expect(row[x]).toBeGreaterThanOrEqual(row[x - 1] ?? 0);
  });

  test('automatic points clip the share that was asked for, and leave a picture of one level alone', () => {
    const ramp = target(200, 50, (x) => 40 + x / 2);
    const { points, raster } = finishPixels(asItIs(ramp), { ...untouched, tone: { kind: 'automatic', clip: 0.01 } });
    expect(points.black).toEqual([40, 40, 40]);
    expect(points.white[0]).toBeGreaterThanOrEqual(138);
    const clipped = luminances(raster).filter((value) => value < 0.5 || value > 254.5).length;
    expect(clipped / (200 * 50)).toBeGreaterThanOrEqual(0.01);
    expect(clipped / (200 * 50)).toBeLessThanOrEqual(0.04);
    const flat = target(20, 20, () => 90);
    const dull = finishPixels(asItIs(flat), { ...untouched, tone: { kind: 'automatic', clip: 0 } }).raster;
    expect(new Set(dull.data).size).toBe(1);
  });

  test('paper becomes white, whatever its colour, and pencil lines on it stay', () => {
    const random = steadyNoise(3);
    const scan = target(300, 300, (x, y) => {
      const grain = 5 * random();
      const pencil = x % 40 < 3 || y % 60 < 2;
      return pencil ? [118 + grain, 112 + grain, 104 + grain] : [226 + grain, 216 + grain, 190 + grain];
    });
    const { raster } = finishPixels(asItIs(scan), { ...untouched, tone: { kind: 'paper' } });
    const at = (x: number, y: number) => [...raster.data.subarray((y * 300 + x) * 3, (y * 300 + x) * 3 + 3)];
    let [white, dark, paper, lines] = [0, 0, 0, 0];
    for (let y = 0; y < 300; y += 1) {
      for (let x = 0; x < 300; x += 1) {
        const isLine = x % 40 < 3 || y % 60 < 2;
        if (isLine) lines += 1;
        else paper += 1;
        if (!isLine && Math.min(...at(x, y)) >= 250) white += 1;
        if (isLine && Math.max(...at(x, y)) < 140) dark += 1;
      }
    }
    expect(white / paper).toBeGreaterThan(0.95);
    expect(dark / lines).toBe(1);
  });
});

test('a part of a picture is finished as in the whole, and transparent pixels have no say', () => {
  const random = steadyNoise(5);
  const big = target(400, 300, (x, y) => 120 + 90 * Math.sin(x / 5 + y / 11) + 20 * random());
  const treatment = { ...strong, compensate: { kind: 'off' as const } };
  const whole = finishPixels(oversized(big, 2), treatment).raster;
  const rect = { left: 60, top: 40, width: 80, height: 50 };
  const cut = ({ data, width }: Raster, left: number, top: number, w: number, h: number): Raster =>
    target(w, h, (x, y) => data[((top + y) * width + left + x) * 3] ?? 0);
  const margin = 24;
  const part = finishPixels(
    {
      plain: cut(reduced(big, 2), rect.left, rect.top, rect.width, rect.height),
      enlarged: {
        raster: cut(big, 2 * rect.left - margin, 2 * rect.top - margin, 160 + 2 * margin, 100 + 2 * margin),
        left: 2 * rect.left - margin,
        top: 2 * rect.top - margin,
      },
      ratio: { x: 2, y: 2 },
      at: rect,
      scale: 1,
    },
    treatment,
  ).raster;
  // Halos are limited by what lies round a pixel, so the outermost row of a part may differ.
  let differs = 0;
  for (let y = 1; y < rect.height - 1; y += 1) {
    for (let x = 1; x < rect.width - 1; x += 1) {
      const there = whole.data[((rect.top + y) * 200 + rect.left + x) * 3] ?? 0;
      differs = Math.max(differs, Math.abs((part.data[(y * rect.width + x) * 3] ?? 0) - there));
    }
  }
  expect(differs).toBeLessThanOrEqual(1);

  const withAlpha = (raster: Raster, under: number): Raster => {
    const data = new Uint8ClampedArray(raster.width * raster.height * 4);
    for (let at = 0; at < raster.width * raster.height; at += 1) {
      const seen = at % raster.width > raster.width / 2;
      data.set(seen ? raster.data.subarray(at * 3, at * 3 + 3) : [under, under, under], at * 4);
      data[at * 4 + 3] = seen ? 255 : 0;
    }
    return { ...raster, data, channels: 4 };
  };
  const seen = [0, 255].map((under) => {
    const enlarged = { raster: withAlpha(big, under), left: 0, top: 0 };
    const { raster } = finishPixels(
      { ...oversized(big, 2), plain: withAlpha(reduced(big, 2), under), enlarged },
      treatment,
    );
    return raster.data.filter((_, at) => Math.floor(at / 4) % 200 > 108);
  });
  expect(seen[0]?.join()).toBe(seen[1]?.join());
  // Away from where it ends, an opaque part comes out as if all were opaque.
  const opaque = whole.data.filter((_, at) => Math.floor(at / 3) % 200 > 108);
  const colours = seen[0]?.filter((_, at) => at % 4 < 3) ?? [];
  expect(colours).toHaveLength(opaque.length);
  expect(Math.max(...colours.map((value, at) => Math.abs(value - (opaque[at] ?? 0))))).toBeLessThanOrEqual(1);
});
