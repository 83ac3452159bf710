import { plainTreatment } from '@inkwell/core/finishing';
import { type Colours, type ImageFormat, keepNothing, plainWeighing, type Similarity } from '@inkwell/core/model';
import { planFrame, type RenderPlan } from '@inkwell/core/planning';
import { byHand, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import { levels, marginOver } from '@inkwell/core/weighing';
import sharp, { type Sharp } from 'sharp';
import { expect, test } from 'vitest';
import { encoderOf } from '../imaging/encoders.ts';
import { judged } from '../imaging/judging.ts';
import { type Pixels, toPixels } from '../imaging/pixels.ts';
import { encodeFiles } from '../imaging/render.ts';
import { inTwos } from '../inTwos.ts';
import { chart, noise } from '../testing/pictures.ts';

const [width, height] = [96, 72];
const drawn = (shapes: string) =>
  sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${shapes}</svg>`));
const ground = (colour: string) => `<rect width="100%" height="100%" fill="${colour}"/>`;
const lines = (count: number, colour: string) =>
  Array.from({ length: count }, (_, at) => `<path d="M0 ${at * 9} L${width} ${at * 5 + 11}" stroke="${colour}"/>`).join(
    '',
  );

/** Twelve pictures of all kinds: smooth, grainy, drawn, lettered, and several at once. */
const pictures: [string, Sharp][] = [
  ['a smooth chart', chart(width, height)],
  ['noise', noise(width, height)],
  ['soft noise', noise(width, height).blur(2).linear(2, -128)],
  ['very soft noise', noise(width, height).blur(8).linear(6, -640)],
  [
    'a chart with grain',
    chart(width, height).composite([
      {
        input: {
          create: {
            width,
            height,
            channels: 3,
            background: '#808080',
            noise: { type: 'gaussian', mean: 128, sigma: 18 },
          },
        },
        blend: 'soft-light',
      },
    ]),
  ],
  [
    'flat shapes',
    drawn(
      `${ground('#f4f1ea')}<circle cx="60" cy="50" r="38" fill="#1f6f66"/><rect x="80" y="30" width="50" height="60" fill="#a8322a"/>`,
    ),
  ],
  ['fine lines', drawn(ground('#ffffff') + lines(14, '#1b2333'))],
  ['coloured lines', drawn(ground('#1030c0') + lines(12, '#e01020'))],
  [
    'lettering',
    drawn(
      `${ground('#fcfaf5')}<text x="6" y="40" font-size="22">Autumn kites</text><text x="6" y="80" font-size="13">on the dunes, all week</text>`,
    ),
  ],
  [
    'a gradient',
    drawn(
      `<defs><linearGradient id="g" x2="0.4" y2="1"><stop stop-color="#4a76b8"/><stop offset="1" stop-color="#e8d8c0"/></linearGradient></defs>${ground('url(#g)')}`,
    ),
  ],
  ['grey noise', noise(width, height).greyscale().blur(1.2)],
  [
    'a chart with lines',
    chart(width, height).composite([
      {
        input: Buffer.from(
          `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${lines(9, '#10141f')}</svg>`,
        ),
      },
    ]),
  ],
];
const encoders: [ImageFormat, Colours][] = [
  ['jpeg', 'full'],
  ['webp', 'full'],
  ['avif', 'full'],
  ['png', 'palette'],
];

function planOf(format: ImageFormat, colours: Colours, bytes: number, level: 'flick' | 'glance' | null): RenderPlan {
  const aim = level ? { kind: 'no heavier than it needs' as const, level } : { kind: 'as good as fits' as const };
  return planFrame({
    original: sampleOriginal({ width, height }),
    place: samplePlace({ width, height, formats: ['jpeg', 'png', 'webp', 'avif'], limit: { bytes, unit: 'kB' } }),
    settings: byHand(
      { centreX: width / 2, centreY: height / 2, span: width },
      { format, weighing: { ...plainWeighing, aim, colours, chroma: '4:2:0' } },
    ),
    treatment: plainTreatment,
    keeping: keepNothing,
    headroom: 0,
  });
}

// Files this small stray by a few per cent from one quality to the next, and every search has to look into that: of a frame's
// usual dimensions it takes about three encodings, which the bench reports.
test('every search gives what trying all qualities gives', async () => {
  const counts = new Map<ImageFormat, number[]>();
  await inTwos(pictures, async ([name, picture]) => {
    const pixels: Pixels = await toPixels(picture.removeAlpha().toColourspace('srgb'));
    for (const [format, colours] of encoders) {
      const { encoding } = planOf(format, colours, 1e6, null);
      const encoder = encoderOf({ ...encoding, chroma: '4:2:0', metadata: encoding }, encoding.quality);
      const all: { quality: number; bytes: number }[] = [];
      for (const quality of encoder.ladder?.qualities ?? [])
        all.push({ quality, bytes: (await encoder.encode(pixels, quality)).length });
      const byBytes = [...all].sort((a, b) => a.bytes - b.bytes);
      const at = (share: number) => (byBytes[Math.floor((byBytes.length - 1) * share)]?.bytes ?? 0) + 1;
      // Three limits that bind, and one that nothing meets.
      for (const limit of [at(0.2), at(0.55), at(0.9), (byBytes[0]?.bytes ?? 2) - 1]) {
        const { weight, encodings } = await encodeFiles(planOf(format, colours, limit, null), {
          whole: pixels,
          cut: [pixels],
        });
        const best = all.findLast((one) => one.bytes <= limit);
        expect([weight.quality, weight.bytes, weight.fits], `${name}, ${format} under ${limit} bytes`).toEqual(
          best ? [best.quality, best.bytes, true] : [all[0]?.quality, all[0]?.bytes, false],
        );
        counts.set(format, [...(counts.get(format) ?? []), encodings]);
      }
    }
  });
  for (const [format, each] of counts) {
    const mean = each.reduce((sum, count) => sum + count, 0) / each.length;
    console.log(
      `${format}: ${each.length} searches, ${mean.toFixed(1)} encodings in the mean, ${Math.max(...each)} at most`,
    );
  }
  expect([...counts.values()].map((each) => each.length)).toEqual([48, 48, 48, 48]);
});

test('the lightest file that holds a level does, and the next lower quality does not, unless it hardly does itself', async () => {
  const counts: number[] = [];
  for (const [name, picture] of pictures) {
    const pixels = await toPixels(picture.removeAlpha().toColourspace('srgb'));
    for (const [format, level] of [
      ['jpeg', 'flick'],
      ['webp', 'glance'],
    ] as const) {
      const plan = planOf(format, 'full', 1e6, level);
      const encoder = encoderOf({ ...plan.encoding, chroma: '4:2:0', metadata: plan.encoding }, plan.encoding.quality);
      const holds = async (quality: number) =>
        marginOver(await judged(pixels, await encoder.encode(pixels, quality), []), levels[level]) >= 0;
      const { weight, encodings } = await encodeFiles(plan, { whole: pixels, cut: [pixels] });
      const [quality = 0, highest] = [weight.quality ?? 0, plan.encoding.quality];
      const what = `${name}, ${format} ${quality} for ${level}`;
      const found = await holds(quality);
      const margin = marginOver(weight.files[0]?.similarity as Similarity, levels[level]);
      expect(found || quality === highest, what).toBe(true);
      expect(found && quality > 5 && margin > 0.05 && (await holds(quality - 1)), what).toBe(false);
      counts.push(encodings);
    }
  }
  expect(counts.reduce((sum, count) => sum + count, 0) / counts.length).toBeLessThan(6);
});
