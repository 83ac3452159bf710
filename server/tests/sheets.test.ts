import {
  OpenProjectSchema,
  type OwnPlace,
  type SheetContent,
  SheetContentSchema,
  SheetEffectsSchema,
  type SpecSheet,
  SpecSheetSchema,
} from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { chart } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';
import { unzip } from '../testing/unzip.ts';

const { client } = await startProgram();
const place = (values: Partial<OwnPlace>) => ({
  name: 'Blog header',
  purpose: 'cover',
  width: 1237,
  height: 411,
  formats: ['jpeg', 'png'],
  limit: { bytes: 300_000, unit: 'kB' },
  ...values,
});
const inSheet = { kind: 'sheet', name: 'Workshop site' };
const add = (values: Partial<OwnPlace> | Record<string, unknown>, keptIn: unknown = inSheet) =>
  client.ask('POST', '/sheets/places', { place: place(values as Partial<OwnPlace>), keptIn });
const made = async (values: Partial<OwnPlace>, keptIn?: unknown) =>
  z.object({ placeId: z.string() }).parse((await add(values, keptIn)).body);
const book = async (project = '') =>
  z.array(SpecSheetSchema).parse((await client.ask('GET', `/spec-book${project && `?project=${project}`}`)).body);
const words = { savedBy: 'Ada', note: '' };
const content = (values: Partial<SheetContent>): SheetContent =>
  SheetContentSchema.parse({ name: 'Dunepost', kind: 'messages', checkedOn: '2026-11-02', places: [], ...values });
const makeSheet = async (values: Partial<SheetContent>) =>
  SpecSheetSchema.parse((await client.ask('POST', '/sheets', { content: content(values), words })).body);
const save = ({ own }: SpecSheet, version: number, changed: SheetContent) =>
  client.ask('PATCH', `/sheets/${own?.id}`, { version, change: { content: changed, words } });
const versions = async ({ own }: SpecSheet) => (await client.ask('GET', `/sheets/${own?.id}/versions`)).body;

test('places of one’s own are delivered to the pixel: odd sides, slivers, a free height', async () => {
  const original = await client.original(await chart(1400, 1000).png().toBuffer(), 'c.png');
  const sides: [OwnPlace['width'], OwnPlace['height']][] = [
    [1237, 411],
    [8, 1003],
    [4001, 8],
    [333, { min: 200, max: 237 }],
  ];
  const ids: string[] = [];
  for (const [width, height] of sides) ids.push((await made({ width, height })).placeId);
  expect(ids).toEqual(['', '-2', '-3', '-4'].map((number) => `own-workshop-site/blog-header${number}`));
  const project = await client.project('Own', [original], ids);
  const { id } = await client.deliver(project.id);
  const files = await unzip(await client.bytes(`/deliveries/${id}/archive`));
  const found: string[] = [];
  for (const [name, data] of files) {
    if (!name.includes('/')) continue;
    const { width, height } = await sharp(data).metadata();
    expect(data.length).toBeLessThanOrEqual(300_000 * 0.97);
    found.push(`${width} x ${height}`);
  }
  expect(found.sort()).toEqual(['1237 x 411', '333 x 237', '4001 x 8', '8 x 1003']);
});

test('what a place cannot be is refused in words', async () => {
  for (const [values, words] of [
    [{ width: 7 }, 'from 8 to 20,000'],
    [{ height: 20_001 }, 'from 8 to 20,000'],
    [{ width: 800.5 }, 'from 8 to 20,000'],
    [{ height: { min: 500, max: 400 } }, 'below the greatest'],
    [{ formats: [] }, 'at least one format'],
    [{ name: '' }, 'needs a name'],
  ] as const) {
    expect(await add(values)).toMatchObject({ status: 400, body: { message: expect.stringContaining(words) } });
  }
});

test('a sheet keeps every version; a change is refused on an older one, with what it is now', async () => {
  const square = { ...place({ name: 'Square', width: 300, height: 300 }), slug: 'square' };
  const sheet = await makeSheet({ places: [square, { ...square, slug: 'other' }] as SheetContent['places'] });
  const wider = content({
    places: [
      { ...square, width: 450 },
      { ...square, slug: 'other' },
    ] as SheetContent['places'],
  });
  const saved = SpecSheetSchema.parse((await save(sheet, 1, wider)).body);
  expect(saved).toMatchObject({ slug: sheet.slug, own: { version: 2 } });
  // Only what has changed is another place now.
  expect(saved.places.map(({ own }) => own?.version)).toEqual([2, 1]);
  expect(await save(sheet, 1, content({ name: 'Late' }))).toMatchObject({
    status: 409,
    body: { message: expect.stringContaining('changed in another window'), current: { number: 2, content: wider } },
  });
  // Saved without a change, it is no version more.
  await save(sheet, 2, wider);
  expect(await versions(sheet)).toMatchObject([
    { number: 2, savedBy: 'Ada', content: { places: [{ width: 450 }, { width: 300 }] } },
    { number: 1, content: { places: [{ width: 300 }, { width: 300 }] } },
  ]);
  // Two who save at once: one of them is told.
  const both = await Promise.all([3, 4].map((number) => save(sheet, 2, content({ name: `Dunepost ${number}` }))));
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
});

test('a change reaches the frames of projects that follow a sheet, and not those that stay on a version', async () => {
  const original = await client.original(await chart(900, 900).png().toBuffer(), 'e.png');
  const tile = { ...place({ name: 'Shop tile', width: 300, height: 300 }), slug: 'tile' };
  const sheet = await makeSheet({ name: 'Shop', places: [tile] as SheetContent['places'] });
  const [follows, stays] = [
    await client.project('Follows', [original], [`${sheet.slug}/tile`, 'pipwire/profile-picture']),
    await client.project('Stays', [original], [`${sheet.slug}/tile`]),
  ];
  const pin = (pins: Record<string, number>) =>
    client.ask('PATCH', `/projects/${stays.id}/settings`, { version: stays.version, change: { pins } });
  expect(await pin({ [sheet.slug]: 2 })).toMatchObject({ status: 422 });
  expect((await pin({ [sheet.slug]: 1 })).status).toBe(200);
  await save(sheet, 1, content({ name: 'Shop', places: [{ ...tile, width: 450 }] as SheetContent['places'] }));
  const tiles = async ({ id, frames }: typeof follows) => {
    const only = frames.flatMap((frame) => (frame.placeId === `${sheet.slug}/tile` ? [frame.id] : []));
    const seen = (await client.seen(id)).filter(({ frameId }) => only.includes(frameId));
    const { files } = await client.delivered(await client.ask('POST', '/deliveries', { projectId: id, seen, only }));
    return files.map(({ width, placeThen }) => [width, placeThen?.sheet.version]);
  };
  // Only these are delivered again, by the version that the project has.
  expect([await tiles(follows), await tiles(stays)]).toEqual([[[450, 2]], [[300, 1]]]);
  const at = async (project?: string) => (await book(project)).find(({ slug }) => slug === sheet.slug);
  expect(await at()).toMatchObject({ own: { version: 2 }, places: [{ width: 450 }] });
  expect(await at(stays.id)).toMatchObject({ own: { version: 1 }, newest: 2, places: [{ width: 300 }] });
});

test('a place that frames are made for is put away, not taken out; a sheet is put away and moved', async () => {
  const original = await client.original(await chart(500, 400).png().toBuffer(), 'd.png');
  const project = await client.project('Once', [original], []);
  const { placeId } = await made({ name: 'Course page' }, { kind: 'project', projectId: project.id });
  const ofProject = async () => (await book()).find((sheet) => sheet.projectId === project.id);
  const sheet = await ofProject();
  if (!sheet) throw new Error('The sheet of the project is not in the book.');
  const asked = { add: [{ originalId: original.id, placeId }] };
  OpenProjectSchema.parse((await client.ask('POST', `/projects/${project.id}/frames`, asked)).body);
  const empty = content({ name: sheet.name, kind: sheet.kind, places: [] });
  expect(await save(sheet, 1, empty)).toMatchObject({
    status: 409,
    body: { message: expect.stringContaining('1 frame is made for Course page. Put the place away') },
  });
  const away = { ...empty, places: content(sheet).places.map((one) => ({ ...one, isAway: true })) };
  expect((await save(sheet, 1, away)).status).toBe(200);
  expect((await client.deliver(project.id)).files).toHaveLength(1);
  await client.ask('POST', '/sheets/away', { slug: 'sunpane', isAway: true });
  await client.ask('POST', '/sheets/order', { slug: 'quillpost', before: 'sunpane' });
  const [first, second] = await book();
  expect([first?.slug, second?.slug, second?.isAway]).toEqual(['quillpost', 'sunpane', true]);
  await client.ask('POST', '/sheets/away', { slug: 'sunpane', isAway: false });
  expect((await book())[1]?.isAway).toBeUndefined();
});

test('what a change would do is told before it is saved, without anything being rendered; a hand’s window is carried over', async () => {
  const original = await client.original(await chart(1200, 900).png().toBuffer(), 'f.png');
  const tile = {
    ...place({ name: 'Tile', width: 300, height: 300, limit: { bytes: 900_000, unit: 'kB' } }),
    slug: 'tile',
  };
  const places = (change: object) =>
    content({ name: 'Told', places: [{ ...tile, ...change }] as SheetContent['places'] });
  const sheet = await makeSheet({ ...places({}), name: 'Told' });
  const placeId = `${sheet.slug}/tile`;
  const project = await client.project('Told', [original], [placeId]);
  const [frame] = project.frames;
  const moved = { centreX: 500, centreY: 400, span: 400, turn: 0, mirror: false };
  await client.ask('PATCH', `/frames/${frame?.id}`, { version: 1, change: { window: moved } });
  await client.measured(project.id);
  const effects = async (change: object) =>
    (await client.ask('POST', `/sheets/${sheet.own?.id}/effects`, { content: places(change) })).body;
  expect(await effects({ note: 'New words' })).toMatchObject({ projects: [], reshaped: 0, pairs: [] });
  expect(await effects({ limit: { bytes: 1000, unit: 'kB' } })).toMatchObject({
    projects: [{ name: 'Told', frames: 1 }],
    reshaped: 0,
    tooHeavy: [{ placeId, budgetBytes: 970 }],
  });
  expect(await effects({ formats: ['png'] })).toMatchObject({ formatLost: [{ format: 'jpeg' }] });
  const wider = { width: 400, height: 225 };
  const told = SheetEffectsSchema.parse(await effects(wider));
  expect(told).toMatchObject({ reshaped: 1, carried: 1, pairs: [{ isByHand: true, after: { dimensions: wider } }] });
  await save(sheet, 1, places(wider));
  const { frames } = await client.open(project.id);
  // About the same point, as large an area of the picture, and marked for a look.
  expect(frames[0]).toMatchObject({ carriedFrom: { width: 300, height: 300 }, window: told.pairs[0]?.after.window });
  const { centreX, centreY, span } = frames[0]?.window ?? moved;
  expect([centreX, centreY, (span * span * 225) / 400]).toEqual([500, 400, expect.closeTo(400 * 400, 3)]);
  expect(
    (await client.ask('PATCH', `/frames/${frame?.id}`, { version: 3, change: { carriedFrom: null } })).status,
  ).toBe(200);
});

test('what is wrong with a sheet is named as its form names it', async () => {
  const tile = { ...place({ name: 'Tile' }), slug: 'tile' };
  const wrong = { ...content({}), places: [{ ...tile, limit: { bytes: 0, unit: 'kB' } }] };
  const answer = await client.ask('POST', '/sheets', { content: wrong, words });
  expect(answer).toMatchObject({ status: 400, body: { message: expect.stringMatching(/^“Tile”, Upload limit: /) } });
});
