import {
  type Frame,
  FrameSettingsSchema,
  MeasuredSchema,
  type OpenProject,
  type Original,
  type Window,
} from '@inkwell/core/model';
import { samplePlace } from '@inkwell/core/testing';
import { afterAll, expect, test } from 'vitest';
import { z } from 'zod';
import { startServer } from '../start.ts';
import { work } from '../store/schema/index.ts';
import { planKey, queueProject } from '../tasks/plans/measuredFrames.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { Client } from '../testing/programs/client.ts';
import { testSettings } from '../testing/programs/program.ts';

// Without a worker nothing is measured: what there is to do can be looked at.
const { address, services, stop } = await startServer(await testSettings());
afterAll(stop);
const client = new Client(address);
/** What there is to do, by its keys. */
const toDo = async () => new Set((await services.db.select({ key: work.key }).from(work)).map(({ key }) => key));
const toMeasure = async () => [...(await toDo())].filter((key) => key.startsWith('measure ')).length;
const [pictures, placesEach] = [44, 7];

/** A project with more frames than are planned while somebody waits, all of them tiny. */
async function manyFrames(): Promise<OpenProject> {
  const places = Array.from({ length: placesEach }, (_, at) =>
    samplePlace({
      slug: `place-${at}`,
      width: 16 + at,
      height: 24 - at,
      ...(at === 0 ? { group: { kind: 'panels', min: 2, max: 4 } } : {}),
    }),
  );
  const originals: Original[] = [];
  for (let at = 0; at < pictures; at += 1) {
    originals.push(
      await client.original(
        await chart(60 + at, 40)
          .png()
          .toBuffer(),
        `${at}.png`,
      ),
    );
  }
  return client.project('Many', originals, await client.sheet('Tiny', places));
}

test('many frames are saved at once, each by itself, and all is measured anew by whoever works', async () => {
  const project = await manyFrames();
  expect(project.frames).toHaveLength(pictures * placesEach);
  const inOrder = project.frames.map(({ id }) => id);
  /** Whether everything is asked for that is to be measured of the frames as they are set. */
  const isAsked = async () => {
    const keys = await toDo();
    return (await client.weights(project.id)).every(({ planHash }) => keys.has(planKey(planHash)));
  };
  // So many are planned by whoever works; that two were asked for is one.
  expect([await toMeasure(), await isAsked()]).toEqual([1, false]);
  await client.ask('POST', `/projects/${project.id}/restore`);
  await queueProject(services.db, services.planner, project.id);
  expect([await toMeasure(), await isAsked()]).toEqual([0, true]);

  const plain = project.frames.filter(({ placeId }) => !placeId.endsWith('place-0'));
  const strip = project.frames.find(({ placeId }) => placeId.endsWith('place-0')) as Frame;
  const [elsewhere, ...rest] = plain as [Frame, ...Frame[]];
  await client.ask('PATCH', `/frames/${elsewhere.id}`, { version: 1, change: { stretch: 1.05 } });
  const turned = { ...(rest[0]?.window as Window), turn: 3 };
  const gone = '00000000-0000-4000-8000-000000000001';
  const asked = [
    // The first with all its settings, as the bench sends them: a window that is turned stays composed.
    ...rest.map(({ id, version: _, ...frame }, at) => ({
      id,
      version: 1,
      change: at === 0 ? FrameSettingsSchema.parse({ ...frame, format: 'png', window: turned }) : { format: 'png' },
    })),
    { id: elsewhere.id, version: 1, change: { format: 'png' } },
    { id: strip.id, version: 1, change: { grid: { columns: 9, rows: 1 } } },
    { id: gone, version: 1, change: { format: 'png' } },
  ];
  const { status, body } = await client.ask('PATCH', `/projects/${project.id}/frames`, { frames: asked });
  expect(status).toBe(200);
  const outcomes = z.array(z.looseObject({ id: z.string(), is: z.string() })).parse(body);
  expect(outcomes.map(({ id }) => id)).toEqual(asked.map(({ id }) => id));
  expect(outcomes.slice(rest.length)).toMatchObject([
    { is: 'elsewhere', frame: { version: 2, format: 'jpeg' } },
    { is: 'refused', reason: expect.stringContaining('2 to 4') },
    { is: 'gone' },
  ]);
  const after = await client.open(project.id);
  const now = new Map(after.frames.map((frame) => [frame.id, frame]));
  expect(rest.every(({ id }) => now.get(id)?.format === 'png' && now.get(id)?.version === 2)).toBe(true);
  expect(now.get(rest[0]?.id ?? '')).toMatchObject({ composed: true, window: { turn: 3 } });
  expect([elsewhere, strip].map(({ id }) => now.get(id)?.format)).toEqual(['jpeg', 'jpeg']);

  // One setting of the project holds for more frames than are planned at once.
  const change = { keeping: { ...after.keeping, profile: !after.keeping.profile } };
  await client.ask('PATCH', `/projects/${project.id}/settings`, { version: after.version, change });
  expect([await toMeasure(), await isAsked()]).toEqual([1, false]);
  await queueProject(services.db, services.planner, project.id);
  expect([await toMeasure(), await isAsked()]).toEqual([0, true]);
  const measured = new Map((await client.weights(project.id)).map((one) => [one.frameId, one]));
  expect([...measured.keys()]).toEqual(inOrder);
  const some = inOrder.slice(40, 60);
  const told = await client.ask('POST', `/projects/${project.id}/measured`, { frameIds: [...some].reverse() });
  expect(z.array(MeasuredSchema).parse(told.body)).toEqual(some.map((id) => measured.get(id)));
});

test('a frame is changed once in one request', async () => {
  const id = '00000000-0000-4000-8000-000000000002';
  const twice = [id, id].map((one) => ({ id: one, version: 1, change: {} }));
  const { status, body } = await client.ask('PATCH', `/projects/${id}/frames`, { frames: twice });
  expect([status, JSON.stringify(body)]).toEqual([
    400,
    expect.stringContaining('Every frame can only be changed once'),
  ]);
});
