import { mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { frameToOriginal } from '@inkwell/core/geometry';
import { type Backing, keepNothing, type Window } from '@inkwell/core/model';
import { planContentArea, planFrame, type RenderPlan, scalePlan } from '@inkwell/core/planning';
import { byHand, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import sharp from 'sharp';
import { describe, expect, inject, test } from 'vitest';
import type { WorkingCopy } from '../imaging/copies/workingCopy.ts';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { renderPixels } from '../imaging/stages/renderPixels.ts';

const [width, height] = [1733, 1301];
/**
 * Smooth pictures that are known everywhere. The coarse one is slow enough that resampling it ideally is just looking it up; the
 * fine one changes fast enough for whole levels to say where it lies when it is not scaled down.
 */
const picture = (slowness: number) => (x: number, y: number) =>
  128 + 50 * Math.sin(x / (11 * slowness) + 0.3) + 40 * Math.cos(y / (10 * slowness) + x / (27 * slowness));

async function copyOf(level: (x: number, y: number) => number): Promise<WorkingCopy> {
  const folder = await mkdtemp(join(inject('dataFolder'), 'registered-'));
  const file = join(folder, 'smooth.png');
  const data = Buffer.alloc(width * height * 3);
  for (let y = 0, at = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1, at += 3) data.fill(Math.round(level(x + 0.5, y + 0.5)), at, at + 3);
  await sharp(data, { raw: { width, height, channels: 3 } })
    .png()
    .toFile(file);
  return makeWorkingCopy(await inspect(file), join(folder, 'copy'));
}
const [fine, coarse] = await Promise.all(
  [1, 3].map(async (slowness) => ({ level: picture(slowness), copy: await copyOf(picture(slowness)) })),
);

function planOf(window: Pick<Window, 'centreX' | 'centreY' | 'span'> & Partial<Window>, backing?: Backing): RenderPlan {
  return planFrame({
    original: sampleOriginal({ width, height }),
    place: samplePlace({ width: 360, height: 300 }),
    settings: byHand(window, { format: 'png', backing: backing ?? null }),
    treatment: plainTreatment,
    keeping: keepNothing,
  });
}

/**
 * By how many output pixels the picture of a plan lies right of and below where the geometry of `meant` says: the shift that
 * fits best (least squares), over the pixels that show the picture.
 */
async function shiftOf(plan: RenderPlan, meant = plan): Promise<number> {
  const seen = plan.window.span > 1.4 * plan.output.width ? coarse : fine;
  if (!seen) throw new Error('There is no picture.');
  const { level, copy } = seen;
  const { data: pixels, channels } = await renderPixels(plan, copy);
  const { output } = plan;
  const opening = planContentArea(meant).window;
  const times = { x: opening.width / output.width, y: opening.height / output.height };
  const lookUp = (x: number, y: number) => {
    const at = frameToOriginal(meant.window, opening, { x: (x + 0.5) * times.x, y: (y + 0.5) * times.y });
    const edge = (6 * meant.window.span) / output.width;
    const isInside = at.x > edge && at.y > edge && at.x < width - edge && at.y < height - edge;
    return isInside ? level(at.x, at.y) : null;
  };
  let [xx, xy, yy, xd, yd] = [0, 0, 0, 0, 0];
  for (let y = 2; y < output.height - 2; y += 1) {
    for (let x = 2; x < output.width - 2; x += 1) {
      const [here, right, below] = [lookUp(x, y), lookUp(x + 0.01, y), lookUp(x, y + 0.01)];
      if (here === null || right === null || below === null) continue;
      const [dx, dy] = [(right - here) / 0.01, (below - here) / 0.01];
      const difference = here - (pixels[(y * output.width + x) * channels] ?? 0);
      xx += dx * dx;
      xy += dx * dy;
      yy += dy * dy;
      xd += dx * difference;
      yd += dy * difference;
    }
  }
  const determinant = xx * yy - xy * xy;
  return Math.hypot((yy * xd - xy * yd) / determinant, (xx * yd - xy * xd) / determinant);
}

/** Positions at fractions of a pixel, as a hand leaves them. */
const positions = [
  { centreX: 700.3, centreY: 610.7 },
  { centreX: 811.85, centreY: 555.15 },
];

describe('an output pixel lies where the geometry says', () => {
  const down = [360, 361, 397.2, 480, 537.4, 720, 821, 1001.3, 1080];
  test.each(down)('scaled down from %d px to 360', async (span) => {
    for (const position of positions) expect(await shiftOf(planOf({ ...position, span }))).toBeLessThan(0.1);
  });

  test.each([120, 179.5, 180, 240, 301.7, 356.4])('enlarged from %d px to 360', async (span) => {
    for (const position of positions) expect(await shiftOf(planOf({ ...position, span }))).toBeLessThan(0.15);
  });

  test.each([3.3, -7.5, 31, 93])('turned by %d degrees', async (turn) => {
    for (const span of [200, 360, 533.3, 801])
      expect(await shiftOf(planOf({ centreX: 866.4, centreY: 650.1, span, turn }))).toBeLessThan(0.15);
  });

  test.each(['echo', 'mirrored edges'] as const)('on a backing of %s', async (kind) => {
    for (const span of [1990.7, 2333.3])
      for (const turn of [0, 5])
        expect(await shiftOf(planOf({ centreX: 843.3, centreY: 655.2, span, turn }, { kind }))).toBeLessThan(0.15);
  });

  test('in a proof at another scale as in the file', async () => {
    const frames = [
      planOf({ centreX: 700.3, centreY: 610.7, span: 801 }),
      planOf({ centreX: 866.4, centreY: 650.1, span: 533.3, turn: 4 }),
      planOf({ centreX: 843.3, centreY: 655.2, span: 2100.7 }, { kind: 'echo' }),
    ];
    for (const plan of frames)
      for (const factor of [0.29, 0.4, 0.613]) expect(await shiftOf(scalePlan(plan, factor), plan)).toBeLessThan(0.15);
  });
});
