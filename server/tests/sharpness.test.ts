import { mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import { sampling, scalePlan, sourceMappingOf, wholePlan } from '@inkwell/core/planning';
import { sampleOriginal } from '@inkwell/core/testing';
import sharp from 'sharp';
import { expect, inject, test } from 'vitest';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { renderPixels } from '../imaging/stages/renderPixels.ts';

const [width, height] = [1500, 1140];

/** Grain, hairlines at many slants and hard edges: what loses first when pixels are averaged. */
function fineDetail(): Buffer {
  const data = Buffer.alloc(width * height * 3);
  let state = 7;
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 3) {
      state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0;
      const grain = ((state >>> 24) - 128) / 6;
      const angle = Math.atan2(y - height / 2, x - width / 2);
      const line = Math.sin(angle * 120) > 0.6 ? 70 : 0;
      const edge = ((x >> 6) + (y >> 6)) & 1 ? 150 : 70;
      data.fill(Math.max(0, Math.min(255, edge + line + grain)), at, at + 3);
    }
  }
  return data;
}

/** Mean square of the differences of horizontal neighbours. */
function edgeEnergy(data: Buffer): number {
  let sum = 0;
  for (let at = 3; at < data.length; at += 1) sum += ((data[at] ?? 0) - (data[at - 3] ?? 0)) ** 2;
  return sum / data.length;
}

test('rendering from a halved level is as sharp as resampling the original, and nearly the same picture', async () => {
  const folder = await mkdtemp(join(inject('dataFolder'), 'sharp-'));
  const file = join(folder, 'detail.png');
  await sharp(fineDetail(), { raw: { width, height, channels: 3 } })
    .png()
    .toFile(file);
  const copy = await makeWorkingCopy(await inspect(file), join(folder, 'copy'));
  const whole = wholePlan(sampleOriginal({ width, height }));
  for (const scale of [2.7, 3, 3.6]) {
    const plan = scalePlan(whole, 1 / scale);
    const { output } = plan;
    expect(sampling(sourceMappingOf(plan).part, copy.levels).level).toBe(1);
    const ours = (await renderPixels(plan, copy)).data;
    const direct = await sharp(file)
      .resize(output.width, output.height, { fit: 'fill', kernel: 'lanczos3' })
      .raw()
      .toBuffer();
    let squares = 0;
    for (let at = 0; at < direct.length; at += 1) squares += ((direct[at] ?? 0) - (ours[at] ?? 0)) ** 2;
    expect(Math.sqrt(squares / direct.length)).toBeLessThan(1.5);
    const energy = edgeEnergy(ours) / edgeEnergy(direct);
    expect(energy).toBeGreaterThan(0.97);
    expect(energy).toBeLessThan(1.05);
  }
});
