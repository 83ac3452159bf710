import { mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import type { Backing, FrameSettings, Window } from '@inkwell/core/model';
import { keepNothing } from '@inkwell/core/model';
import { planFrame, type RenderPlan, scalePlan } from '@inkwell/core/planning';
import { byHand, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import { describe, expect, inject, test } from 'vitest';
import type { WorkingCopy } from '../imaging/copies/workingCopy.ts';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { fromPixels, type Pixels } from '../imaging/stages/pixels.ts';
import { renderPixels } from '../imaging/stages/renderPixels.ts';
import { chart, difference } from '../testing/pictures/pictures.ts';

const [width, height] = [900, 640];
const output = { width: 300, height: 240 };
const copies = new Map<number, WorkingCopy>();
for (const orientation of [1, 6]) {
  const folder = await mkdtemp(join(inject('dataFolder'), 'laid-'));
  const file = join(folder, 'chart.png');
  // Stored lying on its side where a tag stands it up again.
  const stored = orientation === 1 ? chart(width, height) : chart(width, height).rotate(-90);
  await stored.png().withMetadata({ orientation }).toFile(file);
  copies.set(orientation, await makeWorkingCopy(await inspect(file), join(folder, 'copy')));
}

interface Asked {
  window: Partial<Window>;
  backing?: Backing;
  trim?: { left: number; top: number; width: number; height: number };
  orientation?: 1 | 6;
}

function planFor({ window, backing, trim }: Asked) {
  const original = sampleOriginal({ width, height, trim: trim ?? null });
  const settings = byHand(
    { centreX: 450, centreY: 320, span: 360, ...window },
    { backing: backing ?? null, format: 'png' },
  );
  return planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place: samplePlace(output), settings });
}
const rendered = (asked: Asked) => renderPixels(planFor(asked), copies.get(asked.orientation ?? 1) as WorkingCopy);

/** Where on the original a pixel of the frame comes from, worked out here from the meaning of turn and mirror alone. */
function source(
  { centreX = 450, centreY = 320, span = 360, turn = 0, mirror = false }: Partial<Window>,
  x: number,
  y: number,
) {
  const scale = span / output.width;
  const right = (x + 0.5 - output.width / 2) * scale * (mirror ? -1 : 1);
  const down = (y + 0.5 - output.height / 2) * scale;
  // The picture was turned clockwise, so what is seen at an angle lies that much further anticlockwise on it.
  const angle = (-turn * Math.PI) / 180;
  return {
    x: centreX + right * Math.cos(angle) - down * Math.sin(angle),
    y: centreY + right * Math.sin(angle) + down * Math.cos(angle),
  };
}

/** Looks at pixels all over the frame: those that show the picture have its colour there, the others what `beyond` says. */
function expectLaid(
  { data, channels }: Pixels,
  { window, trim = { left: 0, top: 0, width, height } }: Asked,
  beyond?: (x: number, y: number, at: { x: number; y: number }) => (number | null)[],
) {
  let [inside, outside] = [0, 0];
  // Three output pixels at the picture's edge are left alone: there the kernel mixes both sides.
  const margin = (3 * (window.span ?? 360)) / output.width;
  for (let y = 3; y < output.height; y += 9) {
    for (let x = 3; x < output.width; x += 9) {
      const at = source(window, x, y);
      const edge = Math.min(
        at.x - trim.left,
        trim.left + trim.width - at.x,
        at.y - trim.top,
        trim.top + trim.height - at.y,
      );
      const pixel = (y * output.width + x) * channels;
      if (edge > margin) {
        inside += 1;
        // Blue changes by up to 2.6 levels a pixel: three levels are about one pixel of the original. The
        // chart and the library round down, which takes up to a level.
        const blue = 128 + 60 * Math.sin((at.x - 0.5) / 37) * Math.cos((at.y - 0.5) / 23);
        const wanted = [(255 * (at.x - 0.5)) / width, (255 * (at.y - 0.5)) / height, blue];
        for (const [channel, value] of wanted.entries())
          expect(Math.abs((data[pixel + channel] ?? 0) - value + 0.5)).toBeLessThan(3.2);
        if (channels === 4) expect(data[pixel + 3]).toBe(255);
      } else if (edge < -margin && beyond) {
        outside += 1;
        for (const [channel, value] of beyond(x, y, at).entries())
          if (value !== null) expect(Math.abs((data[pixel + channel] ?? 0) - value)).toBeLessThan(6);
      }
    }
  }
  expect(inside).toBeGreaterThan(100);
  if (beyond) expect(outside).toBeGreaterThan(20);
}

describe('turned and mirrored', () => {
  const turns = [0, 90, 180, -90, 3.5, -17, 60.2];
  test.each(turns.flatMap((turn) => [false, true].map((mirror) => ({ turn, mirror }))))(
    'by $turn degrees, mirrored: $mirror, every pixel comes from where it should',
    async (pose) => {
      for (const orientation of [1, 6] as const) {
        const asked = { window: { ...pose, centreX: 430, centreY: 300, span: 330 }, orientation };
        const pixels = await rendered(asked);
        expect(pixels).toMatchObject({ ...output, channels: 3 });
        expectLaid(pixels, asked);
      }
    },
  );

  test('straightening costs next to no sharpness and brings no dark corner', async () => {
    const straight = await rendered({ window: { turn: 5, span: 9999 } });
    const corners = [0, output.width - 1].flatMap((x) => [0, output.height - 1].map((y) => (y * output.width + x) * 3));
    for (const at of corners) {
      const [red = 0, green = 0, blue = 0] = straight.data.subarray(at, at + 3);
      expect(Math.max(red, green, blue)).toBeGreaterThan(60);
    }
  });
});

describe('on a backing', () => {
  const wide = { span: 1300, centreX: 400 };
  test.each([0, 90, 8])('of one colour, turned by %s', async (turn) => {
    const asked: Asked = { window: { ...wide, turn }, backing: { kind: 'colour', colour: '#1f6f66' } };
    expectLaid(await rendered(asked), asked, () => [0x1f, 0x6f, 0x66]);
  });

  test.each([0, 8])('that is transparent, turned by %s', async (turn) => {
    const asked: Asked = { window: { ...wide, turn, mirror: true }, backing: { kind: 'transparent' } };
    expectLaid(await rendered(asked), asked, () => [null, null, null, 0]);
  });

  test.each([0, -90, 8])('of mirrored edges, turned by %s', async (turn) => {
    const asked: Asked = { window: { ...wide, turn }, backing: { kind: 'mirrored edges' } };
    const reflected = (value: number, length: number) =>
      value < 0 ? -value : value > length ? 2 * length - value : value;
    expectLaid(await rendered(asked), asked, (_x, _y, at) => [
      (255 * (reflected(at.x, width) - 0.5)) / width,
      (255 * (reflected(at.y, height) - 0.5)) / height,
    ]);
  });

  test('of its own echo: soft, darker, and of the picture’s colours', async () => {
    const asked: Asked = { window: wide, backing: { kind: 'echo' } };
    const pixels = await rendered(asked);
    expectLaid(pixels, asked, () => []);
    const left = (y: number) => pixels.data.subarray((y * output.width + 2) * 3, (y * output.width + 2) * 3 + 3);
    // Downwards the chart grows greener; so does its echo, without a step.
    for (let y = 10; y < output.height; y += 10)
      expect(Math.abs((left(y)[1] ?? 0) - (left(y - 10)[1] ?? 0))).toBeLessThan(20);
    expect((left(output.height - 1)[1] ?? 0) - (left(0)[1] ?? 0)).toBeGreaterThan(60);
  });
});

describe('in a round frame', () => {
  const side = 240;
  const middle = side / 2;
  const round = (settings: Partial<FrameSettings>) =>
    planFrame({
      treatment: plainTreatment,
      keeping: keepNothing,
      original: sampleOriginal({ width, height }),
      place: samplePlace({ width: side, height: side, shape: 'circle' }),
      settings: byHand({ centreX: 450, centreY: 320, span: 360 }, { format: 'png', ...settings }),
    });
  const draw = (plan: RenderPlan) => renderPixels(plan, copies.get(1) as WorkingCopy);
  const ring = { width: 18, colour: '#a86a10' };
  const [red, green] = [0xa8, 0x6a];

  test.each([
    { where: 'outside', shown: side - 36 },
    { where: 'inside', shown: side },
  ] as const)('a ring lies $where; only then the picture is made smaller for it', async ({ where, shown }) => {
    for (const cutOut of [false, true]) {
      const { data, channels } = await draw(round({ ring: { ...ring, side: where }, cutOut }));
      expect(channels).toBe(cutOut ? 4 : 3);
      for (let y = 0; y < side; y += 5) {
        for (let x = 0; x < side; x += 5) {
          const away = Math.hypot(x + 0.5 - middle, y + 0.5 - middle);
          const pixel = data.subarray((y * side + x) * channels, (y * side + x + 1) * channels);
          const near = (a: number, b: number) => expect(Math.abs(a - b)).toBeLessThan(3.2);
          if (away < middle - 18 - 2) {
            const scale = 360 / shown;
            near(pixel[0] ?? 0, (255 * (450 + (x + 0.5 - middle) * scale - 1)) / width);
            near(pixel[1] ?? 0, (255 * (320 + (y + 0.5 - middle) * scale - 1)) / height);
          } else if (away > middle - 18 + 2 && (away < middle - 2 || !cutOut)) {
            near(pixel[0] ?? 0, red);
            near(pixel[1] ?? 0, green);
          } else if (away > middle + 2) expect(pixel[3]).toBe(0);
        }
      }
    }
  });

  test('a cut out circle has a circle’s area and soft edges; flattened, its corners have the colour that was chosen', async () => {
    const { data } = await draw(round({ cutOut: true }));
    const alphas = data.filter((_, at) => at % 4 === 3);
    const area = alphas.reduce((sum, alpha) => sum + alpha / 255, 0);
    expect(Math.abs(area / (Math.PI * middle ** 2) - 1)).toBeLessThan(0.002);
    expect(alphas.filter((alpha) => alpha > 0 && alpha < 255).length).toBeGreaterThan(side);
    const flat = await draw(round({ cutOut: true, format: 'jpeg', flatten: '#ff0000' }));
    expect(flat.channels).toBe(3);
    expect([...flat.data.subarray(0, 3)]).toEqual([255, 0, 0]);
    expect([...(await draw(round({ cutOut: true, format: 'jpeg' }))).data.subarray(0, 3)]).toEqual([255, 255, 255]);
  });

  test('the proof of a frame with a ring is the file scaled down', async () => {
    const plan = round({ ring: { ...ring, side: 'outside' } });
    const [whole, half] = await Promise.all([plan, scalePlan(plan, 0.5)].map(draw));
    if (!whole || !half) throw new Error('not rendered');
    expect(await difference(fromPixels(whole).resize(half.width), fromPixels(half))).toBeLessThan(0.5);
  });
});

test.each([0, 90, 12])('a stretch draws the picture wider than it is, turned by %s', async (turn) => {
  const stretch = 1.5;
  const original = sampleOriginal({ width, height });
  const window = { centreX: 450, centreY: 320, span: 300, turn };
  const settings = byHand(window, { format: 'png', stretch });
  const { data, channels } = await renderPixels(
    planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place: samplePlace(output), settings }),
    copies.get(1) as WorkingCopy,
  );
  for (let y = 5; y < output.height; y += 15) {
    for (let x = 5; x < output.width; x += 15) {
      // What lies half as far down in the file again lies there on the original.
      const at = source(window, x, (y + 0.5 - output.height / 2) * stretch + output.height / 2 - 0.5);
      const pixel = (y * output.width + x) * channels;
      expect(Math.abs((data[pixel] ?? 0) - (255 * (at.x - 1)) / width)).toBeLessThan(3.2);
      expect(Math.abs((data[pixel + 1] ?? 0) - (255 * (at.y - 1)) / height)).toBeLessThan(3.2);
    }
  }
});

test('what lies outside of a trim is never seen', async () => {
  const trim = { left: 200, top: 100, width: 500, height: 400 };
  const inside: Asked = { window: { centreX: 0, centreY: 0, span: 5000 }, trim };
  const { window } = planFor(inside);
  expectLaid(await rendered(inside), { window, trim });
  expect(window).toMatchObject({ span: 500, centreX: 450, centreY: 300 });
  const asked: Asked = { window: { span: 800, turn: 4 }, trim, backing: { kind: 'colour', colour: '#ff0000' } };
  expectLaid(await rendered(asked), asked, () => [255, 0, 0]);
});

test('the proof of a turned frame on a backing is the file scaled down', async () => {
  const plan = planFor({ window: { turn: 6, span: 1100 }, backing: { kind: 'echo' } });
  const copy = copies.get(1) as WorkingCopy;
  const [whole, third] = await Promise.all([plan, scalePlan(plan, 1 / 3)].map((one) => renderPixels(one, copy)));
  if (!whole || !third) throw new Error('not rendered');
  const scaled = fromPixels(whole).resize(third.width, third.height, { kernel: 'lanczos3' });
  expect(await difference(scaled, fromPixels(third))).toBeLessThan(1.5);
});
