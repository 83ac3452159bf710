import { OpenProjectSchema, type OwnPlace, SpecSheetSchema } from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { chart } from '../testing/pictures.ts';
import { startProgram } from '../testing/program.ts';
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
  client.ask('POST', '/own-places', { place: place(values as Partial<OwnPlace>), keptIn });
const made = async (values: Partial<OwnPlace>, keptIn?: unknown) =>
  z.object({ id: z.string(), placeId: z.string() }).parse((await add(values, keptIn)).body);
const book = async () => z.array(SpecSheetSchema).parse((await client.ask('GET', '/spec-book')).body);

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

test('a place for one project stands in a sheet that says so; one that is used is not removed', async () => {
  const original = await client.original(await chart(500, 400).png().toBuffer(), 'd.png');
  const project = await client.project('Once', [original], []);
  const { id, placeId } = await made({ name: 'Course page' }, { kind: 'project', projectId: project.id });
  expect((await book()).find((sheet) => sheet.projectId === project.id)?.places).toMatchObject([
    { name: 'Course page', own: { id, version: 1 } },
  ]);
  const { frames } = OpenProjectSchema.parse(
    (await client.ask('POST', `/projects/${project.id}/frames`, { add: [{ originalId: original.id, placeId }] })).body,
  );
  expect(await client.ask('DELETE', `/own-places/${id}`)).toMatchObject({
    status: 409,
    body: { message: '1 frame is made for Course page. Take it out of its project first.' },
  });
  await client.ask('POST', `/projects/${project.id}/frames`, { remove: frames.map((frame) => frame.id) });
  expect((await client.ask('DELETE', `/own-places/${id}`)).status).toBe(204);
  expect((await book()).some((sheet) => sheet.projectId === project.id)).toBe(false);
  expect((await client.ask('POST', `/own-places/${id}/restore`)).status).toBe(204);
  expect((await book()).some((sheet) => sheet.projectId === project.id)).toBe(true);
});

test('a change reaches the frames that are made for a place, and one on an old version is refused', async () => {
  const original = await client.original(await chart(900, 900).png().toBuffer(), 'e.png');
  const { id, placeId } = await made({ name: 'Shop tile', width: 300, height: 300 });
  const project = await client.project('Changed', [original], [placeId]);
  const save = (version: number, width: number) =>
    client.ask('PATCH', `/own-places/${id}`, { version, place: place({ name: 'Shop tile', width, height: 300 }) });
  expect((await save(1, 450)).status).toBe(200);
  expect(await save(1, 500)).toMatchObject({ status: 409 });
  const { files } = await client.deliver(project.id);
  expect(files).toMatchObject([{ width: 450, height: 300, window: { width: 900, height: 600 } }]);
});
