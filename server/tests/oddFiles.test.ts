import { ManifestSchema, type OwnPlace, plainWeighing } from '@inkwell/core/model';
import { planHash } from '@inkwell/core/planning';
import { similarityOf } from '@inkwell/core/seeing';
import sharp, { type Sharp } from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { decoded } from '../imaging/measuring/opening.ts';
import { chart, noise } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';
import { unzip } from '../testing/unzip.ts';

const { client, services } = await startProgram();

const budget = 12_000;
const ways = [
  ['jpeg', 'full'],
  ['webp', 'full'],
  ['avif', 'full'],
  ['png', 'full'],
  ['png', 'palette'],
  ['png', 'dithered palette'],
] as const;

const shapes: [string, Pick<OwnPlace, 'width' | 'height'>][] = [
  ['upright', { width: 96, height: 120 }],
  ['free', { width: 160, height: { min: 40, max: 200 } }],
  ['line', { width: 200, height: 8 }],
];

interface WayPlace {
  placeId: string;
  format: (typeof ways)[number][0];
  colours: (typeof ways)[number][1];
}

/** A place for every way to make a file and every shape, so small that all are tried quickly. */
async function makePlaces(): Promise<WayPlace[]> {
  const made: WayPlace[] = [];
  for (const [format, colours] of ways) {
    for (const [shape, size] of shapes) {
      const { body } = await client.ask('POST', '/sheets/places', {
        place: {
          name: `${shape} ${format} ${colours}`,
          purpose: 'post',
          formats: ['jpeg', 'png', 'webp', 'avif'],
          limit: { bytes: budget, unit: 'kB' },
          ...size,
        },
        keptIn: { kind: 'sheet', name: 'Odd' },
      });
      made.push({ placeId: z.object({ placeId: z.string() }).parse(body).placeId, format, colours });
    }
  }
  return made;
}
const places = await makePlaces();

test.each<[string, () => Sharp]>([
  ['one pixel', () => chart(1, 1)],
  ['a sliver', () => noise(3, 900)],
  ['a strip', () => chart(4000, 30)],
  ['grey with 16 bits', () => chart(90, 70).toColourspace('grey16')],
  ['nothing but transparency', () => sharp({ create: { width: 50, height: 40, channels: 4, background: '#0000' } })],
  ['a picture with half of it clear', () => chart(300, 200).ensureAlpha(0.5)],
])('%s comes out right in every format, with what its files say of themselves', async (name, picture) => {
  const original = await client.original(await picture().png().toBuffer(), `${name}.png`);
  const made = await client.project(
    name,
    [original],
    places.map(({ placeId }) => placeId),
  );
  for (const { id, placeId } of made.frames) {
    const way = places.find((one) => one.placeId === placeId);
    const change = { format: way?.format, weighing: { ...plainWeighing, colours: way?.colours } };
    expect(await client.ask('PATCH', `/frames/${id}`, { version: 1, change })).toMatchObject({ status: 200 });
  }
  const { id } = await client.deliver(made.id);
  const archive = await unzip(await client.bytes(`/deliveries/${id}/archive`));
  const { files, leftOut } = ManifestSchema.parse(JSON.parse(archive.get('manifest.json')?.toString() ?? ''));
  expect(files.length + leftOut.length).toBe(places.length);
  // Only what PNG cannot bring under the limit, or not without losing too much in a palette, stays behind, and says so; and what
  // has to be enlarged beyond all measure.
  for (const { place, reasons } of leftOut) {
    if (/Enlarged/.test(reasons.join())) continue;
    expect(place).toContain(' png ');
    expect(reasons.join()).toMatch(/weighs [\d,]+ bytes|of 100 would be left/);
  }
  expect(files.length > 0 || name === 'one pixel' || name === 'a sliver').toBe(true);
  const project = await client.open(made.id);
  const planning = await services.planner.open();
  const uncompressed = new Map<string, Buffer>();
  for (const frame of project.frames) {
    const plan = planning.planOf({ frame, original, project, seen: null });
    if (!plan) throw new Error('A frame has no plan.');
    const hash = planHash(plan);
    uncompressed.set(hash, await client.bytes(`/frames/${frame.id}/uncompressed?plan=${hash}`));
  }
  for (const line of files) {
    const data = archive.get(line.file) ?? Buffer.alloc(0);
    const { width, height, hasAlpha } = await sharp(data).metadata();
    expect({ width, height }).toEqual({ width: line.width, height: line.height });
    expect(data.length).toBe(line.bytes);
    expect(line.bytes).toBeLessThanOrEqual(budget * 0.97);
    if (line.format === 'jpeg') expect(hasAlpha).toBe(false);
    const isPalette = line.place.endsWith('palette');
    if (isPalette) expect(line.colours).toBeLessThanOrEqual(256);
    const meant = uncompressed.get(line.planHash);
    if (!meant) throw new Error(`No frame of this project has the plan of ${line.file}.`);
    const seen = similarityOf(await decoded(meant), await decoded(data));
    expect({ similarity: seen.overall, worstSpot: seen.worst }).toEqual({
      similarity: line.similarity,
      worstSpot: line.worstSpot,
    });
    if (line.format === 'png' && !isPalette) expect(line.similarity).toBe(100);
  }
});
