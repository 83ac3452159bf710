import { mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import type { Backing, Window } from '@inkwell/core/model';
import { planFrame, scalePlan } from '@inkwell/core/planning';
import { byHand, samplePlace } from '@inkwell/core/testing';
import sharp from 'sharp';
import { describe, expect, inject, test } from 'vitest';
import { inspect } from '../imaging/inspect.ts';
import type { Pixels } from '../imaging/pixels.ts';
import { renderPixels } from '../imaging/renderPixels.ts';
import { makeWorkingCopy, type WorkingCopy } from '../imaging/workingCopy.ts';
import { chart, difference } from '../testing/pictures.ts';

const [width, height] = [900, 640];
const output = { width: 300, height: 240 };
const copies = new Map<number, WorkingCopy>();
for (const orientation of [1, 6]) {
  const folder = await mkdtemp(join(inject('dataFolder'), 'laid-'));
  const file = join(folder, 'chart.png');
  // Stored lying on its side where a tag stands it up again.
  const stored = orientation === 1 ? chart(width, height) : chart(width, height).rotate(-90);
  await stored.png().withMetadata({ orientation }).toFile(file);
  copies.set(orientation, await makeWorkingCopy(file, await inspect(file), join(folder, 'copy')));
}

interface Asked {
  window: Partial<Window>;
  backing?: Backing;
  trim?: { left: number; top: number; width: number; height: number };
  orientation?: 1 | 6;
}

function planFor({ window, backing, trim }: Asked) {
  const original = { sha256: 'x', width, height, hasAlpha: false, trim: trim ?? null, marks: [] };
  const settings = byHand(
    { centreX: 450, centreY: 320, span: 360, ...window },
    { backing: backing ?? null, format: 'png' },
  );
  return planFrame({ original, place: samplePlace(output), settings });
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
  const png = ({ data, ...raw }: Pixels) => sharp(data, { raw }).png();
  if (!whole || !third) throw new Error('not rendered');
  const scaled = sharp(await png(whole).toBuffer()).resize(third.width, third.height, { kernel: 'lanczos3' });
  expect(await difference(await scaled.png().toBuffer(), await png(third).toBuffer())).toBeLessThan(1.5);
});
