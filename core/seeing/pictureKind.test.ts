import { expect, test } from 'vitest';
import { steadyNoise, target } from '../testing/index.ts';
import { pictureKindOf } from './index.ts';

const size = { width: 160, height: 110 };
const random = steadyNoise(9);

/** Ink on paper that is so light, with so much grain; ink covers so many of 37 pixels. */
const paper = (light: number, ink: number, grain: number) =>
  target(size.width, size.height, (x, y) => ((x + 3 * y) % 37 < ink ? 40 : light) + grain * random());

test('paper with ink on it is a scan, whatever its light; without grain it is a drawing', () => {
  expect([paper(240, 4, 8), paper(185, 10, 8), paper(170, 3, 8)].map(pictureKindOf)).toEqual(['scan', 'scan', 'scan']);
  expect(pictureKindOf(paper(240, 4, 0))).toBe('flat artwork');
  const grey = Uint8Array.from({ length: size.width * size.height }, () => 225 + 6 * random());
  expect(pictureKindOf({ data: grey, ...size, channels: 1 })).toBe('scan');
});

test('skies, dark grounds and paper that is hardly there are none', () => {
  const sky = target(size.width, size.height, (_, y) => [150 - y / 3 + 4 * random(), 190 - y / 4, 240 + 4 * random()]);
  expect([sky, paper(110, 4, 8), paper(230, 24, 8)].map(pictureKindOf)).toEqual(['photo', 'photo', 'photo']);
});
