import fc from 'fast-check';
import { expect, test } from 'vitest';
import { clamp } from '../../geometry/index.ts';
import type { Tone } from '../../model/index.ts';
import { steadyNoise } from '../../testing/index.ts';
import { finishPixels, meansOf, plainTreatment } from '../index.ts';
import { aRaster, lightOf, pixelsOf } from '../testRasters.ts';
import { coloured } from './colouring.ts';
import { noCorrection } from './correction.ts';
import { noTone } from './tone.ts';

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
            ? 255 * clamp((clamp(level, 0, 255) - tone.black) / (tone.white - tone.black), 0, 1) ** (1 / tone.midtones)
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
            furthest = Math.max(furthest, Math.abs((made[channel] ?? 0) - clamp(expected, 0, 255)));
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
        return pixel.slice(0, 3).map((value) => Math.round(clamp(lifted + factor * (value - y), 0, 255)));
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

test('what only gets another luminance comes out as where all is set, to a level', () => {
  fc.assert(
    fc.property(
      aRaster,
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.constantFrom(0.8, 1, 1.3),
      (plain, lighter, saturation) => {
        const random = steadyNoise(plain.width * 17 + plain.height);
        const data = Float32Array.from(pixelsOf(plain), (pixel) => lightOf(pixel) + (random() > 0 ? 0 : 90 * random()));
        const luminance = { data, width: plain.width, height: plain.height };
        const how = { balance: { lighter, darker: 1 - lighter, saturation }, correction: noCorrection, points: noTone };
        const quick = coloured(plain, luminance, { ...how, saturation: 1 });
        // So little more saturation is not seen, but every pixel goes the long way.
        const long = coloured(plain, luminance, { ...how, saturation: 1 + 1e-9 });
        const apart = quick.data.map((value, at) => Math.abs(value - (long.data[at] ?? 0)));
        expect(Math.max(...apart)).toBeLessThanOrEqual(1);
        expect(apart.filter((one) => one > 0).length).toBeLessThanOrEqual(apart.length / 50);
      },
    ),
  );
});
