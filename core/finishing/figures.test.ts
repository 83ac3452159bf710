import { expect, test } from 'vitest';
import type { Raster } from '../planes/index.ts';
import { localRange, luminancePlane } from '../seeing/index.ts';
import { slantedEdge, steadyNoise, target } from '../testing/index.ts';
import { acutanceOf, finishFigures, haloOf } from './index.ts';

test('acutance is the slope of edges, and doubles with their contrast', () => {
  const of = (dark: number, light: number) => {
    const edge = slantedEdge(120, 90, dark, light);
    return finishFigures(edge, edge).plain.acutance;
  };
  expect(of(50, 150) / of(50, 100)).toBeCloseTo(2, 1);
  const flat = target(30, 30, () => 90);
  expect(finishFigures(flat, flat)).toMatchObject({
    plain: { acutance: 0, luminance: 90, chroma: 0, noise: 0 },
    halo: 0,
  });
});

test('a tall picture has the figures of its parts, wherever the bands of measuring end', () => {
  const random = steadyNoise(4);
  const tall = target(40, 700, (x, y) => 120 + 60 * Math.sin(x / 3 + y / 50) + 5 * random());
  const edgy = { ...tall, data: tall.data.map((value) => value + (value > 150 ? 40 : 0)) };
  const { plain, halo } = finishFigures(tall, edgy);
  const plane = luminancePlane(tall);
  const { low, high } = localRange(plane, 2);
  expect(plain.acutance).toBeCloseTo(acutanceOf(plane), 2);
  expect(halo).toBeCloseTo(haloOf(luminancePlane(edgy), low, high), 3);
  expect(halo).toBeGreaterThan(0.01);
});

test('a halo is the share of an edge’s contrast by which it overshoots', () => {
  const edge = target(60, 40, (x) => (x < 30 ? 60 : 160));
  const glowing = target(60, 40, (x) => (x < 28 ? 60 : x < 30 ? 50 : x < 32 ? 170 : 160));
  expect(finishFigures(edge, edge).halo).toBe(0);
  expect(finishFigures(edge, glowing).halo).toBeCloseTo(0.1, 2);
});

test('black and white are counted, and means are those of the pixels', () => {
  const picture = target(10, 10, (_, y) => (y < 2 ? 0 : y < 5 ? 255 : [200, 100, 50]));
  const { plain } = finishFigures(picture, picture);
  expect(plain).toMatchObject({ shadows: 0.2, lights: 0.3 });
  expect(plain.luminance).toBeCloseTo(0.3 * 255 + 0.5 * (0.2126 * 200 + 0.7152 * 100 + 0.0722 * 50), 1);
  expect(plain.chroma).toBeGreaterThan(10);
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
