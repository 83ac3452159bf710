import { expect, test } from 'vitest';
import type { Raster } from '../../planes/index.ts';
import { contrastRatio, farthestFrom, levelsOf, relativeLuminance } from '../contrast.ts';
import { type Cover, inkLuminance, legibilityOf } from './legibility.ts';

type Colour = [number, number, number];
const [width, height] = [120, 60];
const luminance = (levels: Colour) => relativeLuminance(levels);

/** Upright bars as letters, every other edge half covered, on a ground that is a colour at each pixel. */
function lettered(ink: Colour, ground: (x: number, y: number) => Colour): { picture: Raster; cover: Cover } {
  const cover = { data: new Uint8Array(width * height), width, height };
  const picture = { data: new Uint8Array(width * height * 3), width, height, channels: 3 as const };
  for (let at = 0; at < width * height; at += 1) {
    const [x, y] = [at % width, Math.floor(at / width)];
    const isIn = x >= 20 && x < 100 && y >= 20 && y < 40;
    const covered = isIn && x % 8 < 3 ? 255 : isIn && x % 8 === 3 ? 128 : 0;
    cover.data[at] = covered;
    const under = ground(x, y);
    picture.data.set(
      ink.map((level, channel) => (level * covered + (under[channel] as number) * (255 - covered)) / 255),
      at * 3,
    );
  }
  return { picture, cover };
}

function read(ink: Colour, ground: (x: number, y: number) => Colour) {
  const { picture, cover } = lettered(ink, ground);
  const found = inkLuminance(picture, cover);
  const legibility = found === null ? null : legibilityOf(picture, cover, found, 20);
  if (!legibility) throw new Error('nothing was measured');
  return legibility;
}

test('on an even ground the contrast is that of the two colours, and what is mixed of both counts for neither', () => {
  const colours: Colour[] = [
    [255, 255, 255],
    [0, 0, 0],
    [118, 118, 118],
    [200, 30, 60],
    [20, 90, 200],
  ];
  for (const ink of colours) {
    for (const ground of colours.filter((one) => one !== ink)) {
      const { contrast, busy } = read(ink, () => ground);
      expect(contrast).toBeCloseTo(contrastRatio(luminance(ink), luminance(ground)), 6);
      expect(busy).toBeCloseTo(0, 6);
    }
  }
});

test('the worst tenth of the ground counts, and less than that does not', () => {
  const [white, dark, pale]: Colour[] = [[255, 255, 255] as Colour, [20, 20, 20], [220, 220, 220]];
  const withPale = (columns: number) => read(white as Colour, (x) => (x < 20 + columns ? pale : dark) as Colour);
  const [some, more] = [withPale(4), withPale(20)];
  expect(some.contrast).toBeCloseTo(contrastRatio(1, luminance(dark as Colour)), 6);
  expect(more.contrast).toBeCloseTo(contrastRatio(1, luminance(pale as Colour)), 6);
  // What lies further off than right round the letters has no say.
  const far = read(white as Colour, (x, y) => (y < 14 || y > 46 || x < 14 || x > 106 ? pale : dark) as Colour);
  expect(far.contrast).toBe(some.contrast);
  expect(far.busy).toBeCloseTo(0, 9);
});

test('a ground is as busy as it is uneven against how far it is from the letters', () => {
  const checked = (one: number, other: number) =>
    read([255, 255, 255], (x, y) => (((x >> 1) + (y >> 1)) % 2 ? [one, one, one] : [other, other, other])).busy;
  const [calm, uneven, wild] = [checked(40, 50), checked(20, 90), checked(0, 220)];
  expect(calm).toBeLessThan(0.1);
  expect(uneven).toBeGreaterThan(calm);
  expect(wild).toBeGreaterThan(0.5);
});

test('without letters, or without anything round them, nothing is measured', () => {
  const picture = { data: new Uint8Array(300).fill(99), width: 10, height: 10, channels: 3 as const };
  const cover = (level: number) => ({ data: new Uint8Array(100).fill(level), width: 10, height: 10 });
  expect(inkLuminance(picture, cover(20))).toBeNull();
  expect(legibilityOf(picture, cover(255), 0.5, 12)).toBeNull();
});

test('of black and white the farther one stands out from every colour', () => {
  for (let level = 0; level < 256; level += 1) {
    const colour = `#${level.toString(16).padStart(2, '0').repeat(3)}`;
    const contrast = contrastRatio(luminance(levelsOf(colour)), luminance(levelsOf(farthestFrom(colour))));
    expect(contrast).toBeGreaterThan(4.58);
  }
});
