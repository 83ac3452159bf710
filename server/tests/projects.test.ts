import { randomUUID } from 'node:crypto';
import {
  type Frame,
  FrameSchema,
  OpenProjectSchema,
  OriginalSchema,
  ProjectSchema,
  plainWeighing,
  SavedFrameSchema,
  TrimSchema,
} from '@inkwell/core/model';
import { plainPlan, planHash } from '@inkwell/core/planning';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { clearUnused } from '../store/library/clearing.ts';
import { blobs, deliveries, originals, work } from '../store/schema/index.ts';
import { chart, difference } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const TrimAnswer = z.object({ trim: TrimSchema.nullable() });

const { client, services, door } = await startProgram();
const open = async (id: string) => OpenProjectSchema.parse((await client.ask('GET', `/projects/${id}`)).body);
/** Frames that are neither measured nor to be measured: what nobody asks for is never measured. */
async function unasked(projectId: string) {
  const asked = (await services.db.select({ key: work.key }).from(work)).map(({ key }) => key);
  const all = await client.weights(projectId);
  return all.filter(({ weight, planHash }) => weight === null && !asked.includes(`plan ${planHash}`));
}
const frameIn = (frames: Frame[], placeId: string) => {
  const frame = frames.find((one) => one.placeId === placeId);
  if (!frame) throw new Error(`no frame for ${placeId}`);
  return frame;
};

test('a new frame shows the largest centred cut; frames are not doubled; a place of several pieces comes cut into them', async () => {
  const original = await client.original(await chart(1200, 800).png().toBuffer(), 'a.png');
  const project = await client.project(
    'One',
    [original],
    ['sunpane/square-post', 'pipwire/header', 'quillpost/inline-picture'],
  );
  expect(frameIn(project.frames, 'sunpane/square-post')).toMatchObject({
    window: { centreX: 600, centreY: 400, span: 800 },
    format: 'jpeg',
    version: 1,
  });
  expect(frameIn(project.frames, 'pipwire/header').window.span).toBe(1200);
  const add = [{ originalId: original.id, placeId: 'pipwire/header' }];
  expect(
    OpenProjectSchema.parse((await client.ask('POST', `/projects/${project.id}/frames`, { add })).body).frames,
  ).toHaveLength(3);
  const pieces = await client.ask('POST', `/projects/${project.id}/frames`, {
    add: [{ originalId: original.id, placeId: 'pipwire/four-up-block' }],
  });
  expect(frameIn(OpenProjectSchema.parse(pieces.body).frames, 'pipwire/four-up-block')).toMatchObject({
    grid: { columns: 2, rows: 2 },
    bridged: false,
    sharedQuality: true,
  });
});

test('a save on an old version is refused with what is there now; nothing is lost', async () => {
  const original = await client.original(await chart(1200, 800).png().toBuffer(), 'b.png');
  const { frames } = await client.project('Two tabs', [original], ['sunpane/square-post']);
  const frame = frameIn(frames, 'sunpane/square-post');
  const save = (version: number, centreX: number) =>
    client.ask('PATCH', `/frames/${frame.id}`, {
      version,
      change: { window: { ...frame.window, span: 500, centreX } },
    });
  expect(FrameSchema.parse((await save(1, 400)).body)).toMatchObject({ version: 2, window: { centreX: 400 } });
  expect(await save(1, 700)).toMatchObject({
    status: 409,
    body: { current: { version: 2, window: { centreX: 400 } } },
  });
  expect(FrameSchema.parse((await save(2, 99_999)).body).window.centreX).toBe(950);
  expect(
    await client.ask('PATCH', `/frames/${frame.id}`, { version: 3, change: { window: { span: -1 } } }),
  ).toMatchObject({ status: 400 });
});

test('the proof is the cut that the window asks for, and belongs to one plan', async () => {
  const picture = chart(2000, 1500);
  const original = await client.original(await picture.png().toBuffer(), 'c.png');
  const project = await client.project('Proof', [original], ['hearthring/link-image']);
  const frame = frameIn(project.frames, 'hearthring/link-image');
  const window = { centreX: 1300, centreY: 700, span: 1200 };
  const { planned, ...saved } = SavedFrameSchema.parse(
    (await client.ask('PATCH', `/frames/${frame.id}`, { version: 1, change: { window } })).body,
  );
  const plan = (await services.planner.open()).planOf({ frame: saved, original, project, seen: null });
  if (!plan) throw new Error('no plan');
  // Whoever asks is told the same name of the plan, and what it was made from.
  expect(planned).toMatchObject({ planHash: planHash(plan), plainHash: planHash(plainPlan(plan)) });
  expect(await client.weights(project.id)).toMatchObject([planned]);
  const listed = z.array(ProjectSchema).parse((await client.ask('GET', '/projects')).body);
  expect(listed.find(({ id }) => id === project.id)?.cover).toMatchObject([{ planHash: planHash(plan) }]);
  const basis = async () => (await client.weights(project.id))[0]?.basis;
  await client.ask('PATCH', `/projects/${project.id}/settings`, { version: 1, change: { finishId: 'crisp' } });
  expect(await basis()).not.toBe(planned?.basis);
  await client.ask('PATCH', `/projects/${project.id}/settings`, { version: 2, change: { finishId: 'plain' } });
  const proof = await client.bytes(`/frames/${frame.id}/proof?plan=${planHash(plan)}&width=600`);
  const independent = picture.clone().extract({ left: 700, top: 385, width: 1200, height: 630 }).resize(600, 315);
  expect(await sharp(proof).metadata()).toMatchObject({ width: 600, height: 315 });
  expect(await difference(proof, await independent.png().toBuffer())).toBeLessThan(1.5);
  expect((await client.ask('GET', `/frames/${frame.id}/proof?plan=old&width=600`)).status).toBe(409);
});

test('marks compose the frames that no hand has moved; they are saved on a version, and refused outside of the picture', async () => {
  const original = await client.original(await chart(1200, 800).png().toBuffer(), 'm.png');
  const project = await client.project('Marked', [original], ['sunpane/square-post', 'pipwire/header']);
  const save = (version: number, change: unknown) =>
    client.ask('PATCH', `/originals/${original.id}/settings`, { version, change });
  const mark = { id: randomUUID(), name: 'Kite', role: 'keep', left: 20, top: 300, width: 150, height: 150 };
  const saved = OriginalSchema.parse((await save(1, { marks: [mark] })).body);
  expect(saved).toMatchObject({ version: 2, trim: null, marks: [{ ...mark, priority: 'must', shape: 'rectangle' }] });
  expect(await save(1, { marks: [] })).toMatchObject({ status: 409, body: { current: { version: 2 } } });
  expect(await save(2, { marks: [{ ...mark, left: 1100 }] })).toMatchObject({
    status: 422,
    body: { message: 'Kite reaches past the picture, which is 1200 × 800 px. Draw it inside.' },
  });

  const frame = frameIn((await open(project.id)).frames, 'sunpane/square-post');
  const plan = (await services.planner.open()).planOf({ frame, original: saved, project, seen: null });
  expect(frame.composed).toBe(true);
  expect((plan?.window.centreX ?? 0) - (plan?.window.span ?? 0) / 2).toBeLessThanOrEqual(20);
  await client.ask('PATCH', `/frames/${frame.id}`, { version: 1, change: { window: { ...frame.window, span: 500 } } });
  const moved = frameIn((await open(project.id)).frames, 'sunpane/square-post');
  expect(moved).toMatchObject({ composed: false, window: { span: 500, turn: 0 } });
  expect(
    (await services.planner.open()).planOf({ frame: moved, original: saved, project, seen: null })?.window.centreX,
  ).toBe(600);
});

test('a frame and its picture that change at the same moment are measured as both are set then', async () => {
  const original = await client.original(await chart(500, 400).png().toBuffer(), 'both.png');
  const { id, frames } = await client.project('Both', [original], ['pipwire/profile-picture']);
  const [frame] = frames;
  if (!frame) throw new Error('no frame');
  const mark = { id: randomUUID(), name: 'Kite', role: 'keep', top: 20, width: 90, height: 80 };
  const levels = ['flick', 'look', 'glance'];
  for (let round = 1; round <= 12; round += 1) {
    const marks = [{ ...mark, left: 10 * round }];
    const weighing = { ...plainWeighing, aim: { kind: 'no heavier than it needs', level: levels[round % 3] } };
    const both = await Promise.all([
      client.ask('PATCH', `/originals/${original.id}/settings`, { version: round, change: { marks } }),
      client.ask('PATCH', `/frames/${frame.id}`, { version: round, change: { weighing } }),
    ]);
    expect(both).toMatchObject([{ status: 200 }, { status: 200 }]);
    expect(await unasked(id)).toEqual([]);
  }
});

test('what was put aside is measured when it is taken back, for nobody wanted it meanwhile', async () => {
  const original = await client.original(await chart(2000, 1500).png().toBuffer(), 'aside.png');
  const places = ['sunpane/story', 'pipwire/single-image', 'guildrow/article-cover', 'hearthring/event-cover'];
  for (const path of ['projects', 'originals']) {
    const { id } = await client.project(`Put aside: ${path}`, [original], places);
    const aside = `/${path}/${path === 'projects' ? id : original.id}`;
    await client.ask('DELETE', aside);
    await until(
      () => services.db.select({ key: work.key }).from(work),
      (left) => left.length === 0,
    );
    expect(await client.ask('POST', `${aside}/restore`)).toMatchObject({ status: 204 });
    expect(await client.weights(id)).toHaveLength(places.length);
    expect(await unasked(id)).toEqual([]);
  }
});

test('an empty margin is found from the pixels, trimmed away on request, and no stored byte changes', async () => {
  const art = await sharp({ create: { width: 900, height: 700, channels: 3, background: '#f4f1ea' } })
    .composite([{ input: await chart(400, 300).png().toBuffer(), left: 250, top: 150 }])
    .png()
    .toBuffer();
  const original = await client.original(art, 'margin.png');
  const found = TrimAnswer.parse((await client.ask('GET', `/originals/${original.id}/trim?tolerance=6`)).body);
  expect(found.trim).toEqual({ left: 250, top: 150, width: 400, height: 300 });
  expect(await client.ask('GET', `/originals/${original.id}/trim?tolerance=999`)).toMatchObject({ status: 400 });
  const project = await client.project('Trimmed', [original], ['sunpane/square-post']);
  const { body } = await client.ask('PATCH', `/originals/${original.id}/settings`, {
    version: 1,
    change: { trim: found.trim },
  });
  const plan = (await services.planner.open()).planOf({
    frame: frameIn(project.frames, 'sunpane/square-post'),
    original: OriginalSchema.parse(body),
    project,
    seen: null,
  });
  expect(plan?.window).toMatchObject({ centreX: 450, centreY: 300, span: 300 });
  expect((await client.bytes(`/originals/${original.id}/file`)).equals(art)).toBe(true);
});

test('projects are renamed, duplicated with their windows, begun anew, deleted and taken back', async () => {
  const original = await client.original(await chart(300, 200).png().toBuffer(), 'd.png');
  const project = await client.project('Mine', [original], ['sunpane/square-post']);
  await client.ask('PATCH', `/projects/${project.id}`, { name: 'Renamed' });
  const copy = OpenProjectSchema.parse((await client.ask('POST', `/projects/${project.id}/duplicate`)).body);
  expect(copy).toMatchObject({
    name: 'Renamed copy',
    frames: [{ placeId: 'sunpane/square-post', window: { span: 200 } }],
  });
  // The next one has all but the pictures; those that are chosen get the places at once.
  const next = OpenProjectSchema.parse((await client.ask('POST', `/projects/${project.id}/next`)).body);
  expect(next).toMatchObject({ name: 'Renamed 2', originals: [], usualPlaces: ['sunpane/square-post'] });
  const { body: begun } = await client.ask('POST', `/projects/${next.id}/originals`, {
    add: [original.id],
    remove: [],
  });
  expect(begun).toMatchObject({ frames: [{ placeId: 'sunpane/square-post' }] });
  expect((await client.ask('DELETE', `/projects/${project.id}`)).status).toBe(204);
  expect((await client.ask('GET', `/projects/${project.id}`)).status).toBe(404);
  await client.ask('POST', `/projects/${project.id}/restore`);
  expect((await open(project.id)).frames).toHaveLength(1);
});

test('bytes go only when nothing needs them: no original, no copy, no delivery to be made', async () => {
  const original = await client.original(await chart(311, 207).png().toBuffer(), 'e.png');
  const copy = (await client.ask('POST', `/originals/${original.id}/duplicate`)).body as { id: string };
  const kept = async () => (await services.db.select().from(blobs).where(eq(blobs.sha256, original.sha256))).length;
  const age = (id: string) =>
    services.db
      .update(originals)
      .set({ deletedAt: new Date(Date.now() - 8 * 86_400_000) })
      .where(and(eq(originals.id, id)));

  await client.ask('DELETE', `/originals/${original.id}`);
  expect(await clearUnused(door.whole)).not.toContain(original.sha256);
  await age(original.id);
  await clearUnused(door.whole);
  expect(await kept()).toBe(1);

  const project = await client.project('Needs it', [], []);
  const plan = { original: { sha256: original.sha256 } };
  const [waiting] = await services.db
    .insert(deliveries)
    // Only what the clearing looks at; no worker takes it up, for it was not asked for.
    .values({
      projectId: project.id,
      projectName: 'x',
      pattern: 'x',
      items: [{ plan }] as never,
      fileCount: 1,
    })
    .returning();
  await client.ask('DELETE', `/originals/${copy.id}`);
  await age(copy.id);
  await clearUnused(door.whole);
  expect(await kept()).toBe(1);
  await services.db
    .update(deliveries)
    .set({ state: 'done' })
    .where(eq(deliveries.id, waiting?.id ?? ''));
  expect(await clearUnused(door.whole)).toContain(original.sha256);
  expect(await kept()).toBe(0);
});

test('what is left of a mark at the audience’s widths is measured: fine detail goes, coarse detail stays', async () => {
  const stripes = (period: number) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="1000"><defs><pattern id="p" width="${period}" height="${period}" patternUnits="userSpaceOnUse"><rect width="${period}" height="${period}" fill="#ddd"/><rect width="${period / 2}" height="${period}" fill="#333"/></pattern></defs><rect width="1000" height="1000" fill="url(#p)"/></svg>`,
      ),
    )
      .png()
      .toBuffer();
  const kept: number[] = [];
  for (const period of [20, 250]) {
    const original = await client.original(await stripes(period), `stripes ${period}.png`);
    const region = { left: 250, top: 250, width: 500, height: 500 };
    const mark = { id: randomUUID(), name: 'Stripes', shape: 'rectangle', role: 'keep', priority: 'must', ...region };
    await client.ask('PATCH', `/originals/${original.id}/settings`, { version: 1, change: { marks: [mark] } });
    const { id } = await client.project('Small', [original], ['sunpane/profile-picture']);
    const [frame] = await client.measured(id);
    // Shown 96 wide the mark is 48 pixels, which is enough for anything.
    expect(frame?.detail?.map((one) => one.shownWidth)).toEqual([40]);
    kept.push(frame?.detail?.[0]?.kept ?? Number.NaN);
  }
  expect(kept[0]).toBeLessThan(0.2);
  expect(kept[1]).toBeGreaterThan(0.6);
});

test('colours stand out from the pixels, and one is taken from the very pixel; there is none where it is transparent', async () => {
  const drawing =
    '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="200" fill="#d6be96"/><rect width="40" height="40" x="180" y="80" fill="#c81e28"/></svg>';
  const original = await client.original(await sharp(Buffer.from(drawing)).png().toBuffer(), 'kite.png');
  const colours = await client.ask('GET', `/originals/${original.id}/colours`);
  expect(
    z
      .object({ colours: z.array(z.string()) })
      .parse(colours.body)
      .colours.slice(0, 2),
  ).toEqual(['#d6be96', '#c81e28']);
  const at = async (x: number, y: number) => await client.ask('GET', `/originals/${original.id}/colour?x=${x}&y=${y}`);
  expect(await at(200, 100)).toMatchObject({ status: 200, body: { colour: '#c81e28' } });
  expect(await at(179, 100)).toMatchObject({ body: { colour: '#d6be96' } });
  expect(await at(10, 299)).toMatchObject({ body: { colour: null } });
  expect(await at(400, 0)).toMatchObject({ status: 422, body: { message: expect.stringContaining('400 × 300 px') } });
});
