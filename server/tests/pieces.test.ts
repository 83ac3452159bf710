import { mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { piecesOf } from '@inkwell/core/geometry';
import { keepNothing, plainWeighing } from '@inkwell/core/model';
import { planFrame } from '@inkwell/core/planning';
import { byHand, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import sharp, { type Sharp } from 'sharp';
import { expect, inject, test } from 'vitest';
import { renderFiles } from '../imaging/encoding/render.ts';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { cutPieces } from '../imaging/stages/cutting.ts';
import { fromPixels } from '../imaging/stages/pixels.ts';
import { renderPixels } from '../imaging/stages/renderPixels.ts';
import { chart, difference, noise } from '../testing/pictures/pictures.ts';

async function copyOf(picture: Sharp) {
  const folder = await mkdtemp(join(inject('dataFolder'), 'pieces-'));
  const file = join(folder, 'picture.png');
  await picture.png().toFile(file);
  return makeWorkingCopy(await inspect(file), join(folder, 'copy'));
}
const panels = { kind: 'panels' as const, min: 2, max: 10 };
const block = { kind: 'block' as const, columns: 2, rows: 2, gap: 0.05, postingOrder: [0, 2, 1, 3] };
const original = sampleOriginal({ width: 1500, height: 600 });

test('a strip is resampled once and cut: put together, its pieces are the strip bit for bit', async () => {
  const copy = await copyOf(chart(1500, 600));
  for (const { place, grid, bridged, turn } of [
    {
      place: samplePlace({ width: 217, height: 260, group: panels }),
      grid: { columns: 5, rows: 1 },
      bridged: false,
      turn: 0,
    },
    {
      place: samplePlace({ width: 300, height: 150, group: block }),
      grid: { columns: 2, rows: 2 },
      bridged: true,
      turn: 3,
    },
  ]) {
    const settings = byHand({ centreX: 750, centreY: 300, span: 900, turn }, { grid, bridged, format: 'png' });
    const plan = planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place, settings });
    const whole = await renderPixels(plan, copy);
    expect(whole).toMatchObject(plan.output);
    if (!plan.grid) throw new Error('not cut');
    const pieces = await cutPieces(whole, plan.grid);
    const rects = piecesOf(plan.grid);
    for (const [index, piece] of pieces.entries()) {
      expect(piece).toMatchObject({ width: place.width, height: place.height });
      const { left, top, width, height } = rects[index] ?? { left: 0, top: 0, width: 0, height: 0 };
      for (let y = 0; y < height; y += 1) {
        const row = whole.data.subarray(
          ((top + y) * whole.width + left) * 3,
          ((top + y) * whole.width + left + width) * 3,
        );
        expect(row.equals(piece.data.subarray(y * width * 3, (y + 1) * width * 3))).toBe(true);
      }
    }
    const { pieces: files } = await renderFiles(plan, copy);
    for (const [index, { data }] of files.entries()) {
      const read = await sharp(data).removeAlpha().raw().toBuffer();
      expect(
        read.equals(
          await fromPixels(pieces[index] ?? whole)
            .raw()
            .toBuffer(),
        ),
      ).toBe(true);
    }
  }
});

test('a closing panel shows the whole picture on its backing and changes nothing of the strip before it', async () => {
  const copy = await copyOf(chart(1500, 600));
  const place = samplePlace({ width: 240, height: 300, group: panels });
  const settings = byHand(
    { centreX: 750, centreY: 300, span: 1440, mirror: true },
    { grid: { columns: 3, rows: 1 }, format: 'png' },
  );
  const closing = { kind: 'colour', colour: '#1f6f66' } as const;
  const strip = await renderFiles(
    planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place, settings }),
    copy,
  );
  const closed = await renderFiles(
    planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place, settings: { ...settings, closing } }),
    copy,
  );
  expect(closed.pieces).toHaveLength(4);
  for (const [index, { data }] of strip.pieces.entries()) expect(closed.pieces[index]?.data.equals(data)).toBe(true);
  const last = await sharp(closed.pieces[3]?.data).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect(last.info).toMatchObject({ width: 240, height: 300 });
  const whole = await chart(1500, 600).flop().resize(240, 96).extend({ top: 102, bottom: 102, background: '#1f6f66' });
  expect(await difference(sharp(await whole.png().toBuffer()), sharp(closed.pieces[3]?.data))).toBeLessThan(2);
});

test('pieces share the lowest quality that any of them needs, or have their own; the step at a seam is measured', async () => {
  const calm = await chart(750, 600).png().toBuffer();
  const wild = await noise(750, 600).png().toBuffer();
  const halves = sharp({ create: { width: 1500, height: 600, channels: 3, background: '#000' } }).composite([
    { input: calm, left: 0, top: 0 },
    { input: wild, left: 750, top: 0 },
  ]);
  const copy = await copyOf(halves);
  const place = samplePlace({ width: 750, height: 600, group: panels, limit: { bytes: 150_000, unit: 'kB' } });
  const made = (sharedQuality: boolean) => {
    const settings = byHand(
      { centreX: 750, centreY: 300, span: 1500 },
      { grid: { columns: 2, rows: 1 }, sharedQuality },
    );
    return renderFiles(planFrame({ treatment: plainTreatment, keeping: keepNothing, original, place, settings }), copy);
  };
  const own = await made(false);
  expect(own.pieces[0]?.quality).toBe(95);
  const lowest = own.pieces[1]?.quality ?? 0;
  expect(lowest).toBeLessThan(80);
  expect(own.weight).toMatchObject({ quality: lowest, fits: true });

  const shared = await made(true);
  expect(shared.pieces.map(({ quality }) => quality)).toEqual([lowest, lowest]);
  expect(shared.weight.bytes).toBe(Math.max(...shared.pieces.map(({ data }) => data.length)));
  expect(shared.weight.bytes).toBeLessThanOrEqual(150_000 * 0.97);
  const [seam] = (await shared.seams()).get(0) ?? [];
  // Between a calm picture and noise lies a step, cut or not.
  expect(seam).toMatchObject({ next: 1 });
  expect(Math.min(seam?.step ?? 0, seam?.undivided ?? 0)).toBeGreaterThan(10);
  const smooth = await renderFiles(
    planFrame({
      treatment: plainTreatment,
      keeping: keepNothing,
      original,
      place: samplePlace({ width: 217, height: 260, group: panels }),
      settings: byHand(
        { centreX: 750, centreY: 300, span: 1500 },
        { grid: { columns: 3, rows: 1 }, weighing: { ...plainWeighing, aim: { kind: 'as good as fits' } } },
      ),
    }),
    await copyOf(chart(1500, 600)),
  );
  const steps = [...(await smooth.seams()).values()].flat();
  expect(steps).toHaveLength(2);
  for (const { step, undivided } of steps) expect(Math.abs(step - undivided)).toBeLessThan(2);
});
