import { EncodedFileSchema, plainWeighing, SimilaritySchema, WeightSchema } from '@inkwell/core/model';
import { planHash } from '@inkwell/core/planning';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { chart, difference } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, services } = await startProgram();
const TrialSchema = EncodedFileSchema.extend({ similarity: SimilaritySchema.nullable() });
const WaysSchema = z.array(z.object({ key: z.string(), weight: WeightSchema.nullable() }));

async function framed(placeId: string) {
  const original = await client.original(await chart(1300, 900).png().toBuffer(), 'tried.png');
  const project = await client.project('Tried', [original], [placeId]);
  const [frame] = project.frames;
  const plan = frame && (await services.planner.open()).planOf({ frame, original, project, seen: null });
  if (!frame || !plan) throw new Error('no frame');
  return { project, frame, plan, hash: planHash(plan) };
}

test('an encoding is tried with its true bytes, opened as what it says, and refused in words where it cannot be', async () => {
  const { frame, plan, hash } = await framed('quillpost/header');
  const path = (format: string, quality: number, rest = '') =>
    `/frames/${frame.id}/trial${rest}?plan=${hash}&format=${format}&quality=${quality}`;
  const uncompressed = await client.bytes(`/frames/${frame.id}/uncompressed?plan=${hash}`);
  expect(await sharp(uncompressed).metadata()).toMatchObject({ format: 'png', ...plan.output });
  for (const format of ['jpeg', 'webp', 'avif'] as const) {
    const file = await client.bytes(path(format, 70, '/file'));
    const trial = TrialSchema.parse((await client.ask('GET', path(format, 70))).body);
    expect(trial.bytes).toBe(file.length);
    expect(trial.similarity?.overall).toBeGreaterThan(97);
    expect(await sharp(file).metadata()).toMatchObject({ format: format === 'avif' ? 'heif' : format, ...plan.output });
    expect(await difference(file, uncompressed)).toBeLessThan(3);
  }
  const quick = await client.ask('GET', `${path('jpeg', 30)}&similarity=no`);
  expect(TrialSchema.parse(quick.body).similarity).toBeNull();
  for (const [asked, status, sentence] of [
    [path('jpeg', 70).replace(hash, 'f'.repeat(64)), 409, /has changed since/],
    [`${path('jpeg', 70)}&piece=3`, 404, /has 1 file; there is none with number 4/],
    [path('jpeg', 170), 400, /quality/],
    [path('gif', 70), 400, /format/],
  ] as const) {
    const { status: answered, body } = await client.ask('GET', asked);
    expect([answered, JSON.stringify(body)]).toEqual([status, expect.stringMatching(sentence)]);
  }
});

test('a press on a way out gives what was measured for it', async () => {
  const { project, frame, hash } = await framed('pipwire/profile-picture');
  const ask = async (plan: string) =>
    WaysSchema.parse((await client.ask('GET', `/frames/${frame.id}/ways?plan=${plan}&about=ways`)).body);
  // Looking asks for nothing; what is wanted is asked for.
  expect((await ask(hash)).every(({ weight }) => weight === null)).toBe(true);
  expect(await client.ask('POST', `/frames/${frame.id}/ways`, { plan: hash, about: 'ways' })).toMatchObject({
    status: 202,
  });
  const ways = await until(
    () => ask(hash),
    (all) => all.every(({ weight }) => weight),
  );
  expect(ways.map(({ key }) => key)).toEqual(['png', 'palette', 'dithered palette', 'chroma', 'quality']);
  const palette = ways.find(({ key }) => key === 'palette')?.weight;
  expect(palette?.files[0]?.colours).toBeLessThanOrEqual(256);
  const coarse = ways.find(({ key }) => key === 'chroma')?.weight;
  const change = { weighing: { ...plainWeighing, chroma: '4:2:0' } };
  await client.ask('PATCH', `/frames/${frame.id}`, { version: frame.version, change });
  const delivery = await client.deliver(project.id);
  const [file] = coarse?.files ?? [];
  expect(delivery.files[0]).toMatchObject({ bytes: file?.bytes, quality: file?.quality, chroma: '4:2:0' });
  expect(delivery.files[0]?.similarity).toBe(file?.similarity.overall);
});
