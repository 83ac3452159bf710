import { mkdtemp, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { converter, differenceCiede2000 } from 'culori';
import sharp from 'sharp';
import { expect, inject, test } from 'vitest';
import { levelPath } from '../imaging/copies/workingCopy.ts';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { jxl, tenBits } from '../testing/pictures/foreignFiles.ts';
import { greyProfile, rgbProfile, rgbSpaces } from '../testing/pictures/profiles.ts';
import { type Samples, tiff } from '../testing/pictures/tiff.ts';

/** A chart of colours that every space holds, in patches of eight by eight pixels. */
const steps = [0.08, 0.25, 0.44, 0.63, 0.82, 0.94];
const colours = steps.flatMap((r) => steps.flatMap((g) => steps.map((b) => ({ mode: 'rgb' as const, r, g, b }))));
const greys = Array.from({ length: 216 }, (_, at) => 0.02 + (0.97 * at) / 215);
const [patch, columns] = [8, 36];
const size = { width: columns * patch, height: 6 * patch };
const depths = {
  '8': (count: number) => ({ samples: new Uint8Array(count), most: 255 }),
  '16': (count: number) => ({ samples: new Uint16Array(count), most: 65_535 }),
  float: (count: number) => ({ samples: new Float32Array(count), most: 1 }),
} as const;
type Depth = keyof typeof depths;

/** The chart with samples of one depth: what `of` says of each patch. */
function chartOf(depth: Depth, channels: number, of: (patch: number) => number[]): Samples {
  const { samples, most } = depths[depth](size.width * size.height * channels);
  for (let at = 0; at < samples.length; at += 1) {
    const pixel = Math.floor(at / channels);
    const [x, y] = [pixel % size.width, Math.floor(pixel / size.width)];
    const value = of(Math.floor(y / patch) * columns + Math.floor(x / patch))[at % channels] ?? 0;
    const held = Math.min(1, Math.max(0, value)) * most;
    samples[at] = most === 1 ? held : Math.round(held);
  }
  return samples;
}

const modes = { srgb: 'rgb', displayP3: 'p3', opRgb: 'a98', rommRgb: 'prophoto' } as const;
/** The chart's colours as numbers of another space: the reference conversion, by another library. */
function inSpace(space: keyof typeof modes): number[][] {
  const convert = converter(modes[space]);
  return colours.map((colour) => {
    const { r, g, b } = convert(colour);
    return [r, g, b];
  });
}
const light = (level: number) => (level <= 0.04045 ? level / 12.92 : ((level + 0.055) / 1.055) ** 2.4);

/** How far the patches of a file lie from their colours once it has come in (CIEDE2000). */
async function differences(file: Buffer, meant: { r: number; g: number; b: number }[]) {
  const folder = await mkdtemp(join(inject('dataFolder'), 'colours-'));
  const path = join(folder, 'chart');
  await writeFile(path, file);
  const copy = await makeWorkingCopy(await inspect(path), join(folder, 'copy'));
  const { data, info } = await sharp(levelPath(copy, 0))
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect(info).toMatchObject(size);
  const difference = differenceCiede2000();
  const found = meant.map(({ r, g, b }, index) => {
    const [x, y] = [(index % columns) * patch + patch / 2, Math.floor(index / columns) * patch + patch / 2];
    const at = (y * info.width + x) * info.channels;
    const [red = 0, green = red, blue = red] = data.subarray(at, at + Math.min(3, info.channels));
    return difference({ mode: 'rgb', r: red / 255, g: green / 255, b: blue / 255 }, { mode: 'rgb', r, g, b });
  });
  return { mean: found.reduce((sum, one) => sum + one, 0) / found.length, most: Math.max(...found) };
}

async function expectMeant(file: Buffer, meant: { r: number; g: number; b: number }[]): Promise<void> {
  const { mean, most } = await differences(file, meant);
  expect(mean).toBeLessThan(1);
  expect(most).toBeLessThan(2);
}

const png16 = (samples: Samples, profile: Buffer | null) => {
  const file = tiff(samples, size, 'rgb', profile);
  return sharp(file, { ignoreIcc: true }).toColourspace('rgb16').keepIccProfile().png().toBuffer();
};

const spaces = Object.keys(modes) as (keyof typeof modes)[];
test.each(spaces.flatMap((space) => (Object.keys(depths) as Depth[]).map((depth) => ({ space, depth }))))(
  'a TIFF in $space with $depth bits comes in with its colours',
  async ({ space, depth }) => {
    const numbers = inSpace(space);
    const samples = chartOf(depth, 3, (at) => numbers[at] ?? []);
    await expectMeant(tiff(samples, size, 'rgb', rgbProfile(rgbSpaces[space])), colours);
  },
);

test.each(spaces)('a PNG of 16 bits in %s comes in with its colours', async (space) => {
  const numbers = inSpace(space);
  await expectMeant(
    await png16(
      chartOf('16', 3, (at) => numbers[at] ?? []),
      rgbProfile(rgbSpaces[space]),
    ),
    colours,
  );
});

test('without a profile whole numbers mean sRGB, and floating point means light', async () => {
  const numbers = inSpace('srgb');
  for (const depth of ['8', '16'] as const)
    await expectMeant(
      tiff(
        chartOf(depth, 3, (at) => numbers[at] ?? []),
        size,
        'rgb',
      ),
      colours,
    );
  await expectMeant(
    tiff(
      chartOf('float', 3, (at) => (numbers[at] ?? []).map(light)),
      size,
      'rgb',
    ),
    colours,
  );
});

test.each([1.8, 2.2])('grey with a profile of gamma %d comes in as light as it is', async (gamma) => {
  const meant = greys.map((level) => ({ r: level, g: level, b: level }));
  for (const depth of ['8', '16', 'float'] as const) {
    const samples = chartOf(depth, 1, (at) => [light(greys[at] ?? 0) ** (1 / gamma)]);
    await expectMeant(tiff(samples, size, 'grey', greyProfile(gamma)), meant);
  }
  const linear = chartOf('float', 1, (at) => [light(greys[at] ?? 0)]);
  await expectMeant(tiff(linear, size, 'grey'), meant);
});

test('CMYK comes in as its profile says, with 8 and 16 bits', async () => {
  const { icc } = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
    .withIccProfile('cmyk')
    .jpeg()
    .toBuffer()
    .then((file) => sharp(file).metadata());
  if (!icc) throw new Error('There is no profile for print.');
  const inks = (at: number) => [
    steps[at % 6] ?? 0,
    steps[Math.floor(at / 6) % 6] ?? 0,
    steps[Math.floor(at / 36)] ?? 0,
    0.1,
  ];
  const eight = tiff(chartOf('8', 4, inks), size, 'cmyk', icc);
  // The profile applied on its own, to the numbers as they are.
  const { data } = await sharp(eight, { ignoreIcc: true })
    .pipelineColourspace('cmyk')
    .toColourspace('cmyk')
    .withIccProfile('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const meant = Array.from({ length: 216 }, (_, at) => {
    const [x, y] = [(at % columns) * patch + 4, Math.floor(at / columns) * patch + 4];
    const [r = 0, g = 0, b = 0] = data.subarray((y * size.width + x) * 3, (y * size.width + x) * 3 + 3);
    return { r: r / 255, g: g / 255, b: b / 255 };
  });
  expect(new Set(meant.map(({ r, g, b }) => `${r} ${g} ${b}`)).size).toBeGreaterThan(200);
  await expectMeant(eight, meant);
  await expectMeant(tiff(chartOf('16', 4, inks), size, 'cmyk', icc), meant);
});

test.each(['heic', 'avif'] as const)(
  '%s with 10 bits comes in with its colours, with a profile and without',
  async (format) => {
    for (const space of ['srgb', 'displayP3'] as const) {
      const numbers = inSpace(space);
      const profile = space === 'srgb' ? null : rgbProfile(rgbSpaces[space]);
      const png = await png16(
        chartOf('16', 3, (at) => numbers[at] ?? []),
        profile,
      );
      await expectMeant(await tenBits(format, png), colours);
    }
  },
);

test('a JPEG XL comes in with its colours', async () => {
  const samples = chartOf('8', 3, (at) => inSpace('srgb')[at] ?? []);
  await expectMeant(await jxl(sharp(samples, { raw: { ...size, channels: 3 } }), 100), colours);
});
