import { OpenProjectSchema, PlaceSetSchema } from '@inkwell/core/model';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { chart } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client } = await startProgram();
const weekly = {
  name: 'Weekly clip',
  placeIds: ['candlecast/video-thumbnail', 'sunpane/story', 'gone/place'],
  pattern: '{place}_{name}',
  finishId: 'crisp',
  aim: { kind: 'as good as fits' },
};

test('a set gives a project its places with all that goes with them, to pictures that come later as well', async () => {
  const [first, second] = [
    await client.original(await chart(900, 700).png().toBuffer(), 'a.png'),
    await client.original(await chart(800, 900).png().toBuffer(), 'b.png'),
  ];
  const set = PlaceSetSchema.parse((await client.ask('POST', '/place-sets', weekly)).body);
  const project = await client.project('Week 12', [first], ['sunpane/story']);
  const apply = (version: number) =>
    client.ask('POST', `/place-sets/${set.id}/apply`, { projectId: project.id, version });
  const { body } = await apply(project.version);
  const { missing, project: applied } = z
    .object({ project: OpenProjectSchema, missing: z.array(z.string()) })
    .parse(body);
  expect(missing).toEqual(['gone/place']);
  expect(applied).toMatchObject({
    finishId: 'crisp',
    pattern: '{place}_{name}',
    usualAim: { kind: 'as good as fits' },
  });
  expect(applied.frames.map(({ placeId, weighing }) => [placeId, weighing.aim?.kind ?? null])).toEqual([
    ['candlecast/video-thumbnail', 'as good as fits'],
    ['sunpane/story', null],
  ]);
  expect((await apply(project.version)).status).toBe(409);
  const later = OpenProjectSchema.parse(
    (await client.ask('POST', `/projects/${project.id}/originals`, { add: [second.id] })).body,
  );
  expect(later.frames).toHaveLength(4);
});

test('a set goes out and comes in as a file; one on an old version, of a later format or without a place is refused', async () => {
  const set = PlaceSetSchema.parse(
    (await client.ask('POST', '/place-sets', { ...weekly, name: 'Autumn launch' })).body,
  );
  const file: unknown = JSON.parse((await client.bytes(`/place-sets/${set.id}/file`)).toString('utf8'));
  const { id: _, version: __, ...settings } = set;
  expect((await client.ask('POST', '/place-sets/import', file)).body).toMatchObject(settings);
  const next = { ...(file as object), placeSet: 2 };
  expect(await client.ask('POST', '/place-sets/import', next)).toMatchObject({
    status: 400,
    body: { message: expect.stringContaining('version 1 of their format') },
  });
  const save = (version: number, change: object) =>
    client.ask('PATCH', `/place-sets/${set.id}`, { version, change: { ...settings, ...change } });
  expect((await save(1, { name: 'Spring launch' })).status).toBe(200);
  expect(await save(1, { name: 'Late' })).toMatchObject({ status: 409, body: { current: { name: 'Spring launch' } } });
  expect((await save(2, { placeIds: [] })).status).toBe(400);
  expect((await save(2, { pattern: '{nothing}' })).status).toBe(422);
  expect((await client.ask('DELETE', `/place-sets/${set.id}`)).status).toBe(204);
  expect((await client.ask('POST', `/place-sets/${set.id}/restore`)).status).toBe(204);
});
