import { mkdir, mkdtemp, readdir, rm, utimes, writeFile } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { DeliverySchema, keepNothing, plainWeighing } from '@inkwell/core/model';
import { planFrame } from '@inkwell/core/planning';
import { byHand, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import { expect, inject, test } from 'vitest';
import { BoundedFolder } from '../imaging/copies/boundedFolder.ts';
import { renderAs, renderFiles } from '../imaging/encoding/render.ts';
import { inspect } from '../imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '../imaging/intake/makeCopy.ts';
import { originals } from '../store/schema/index.ts';
import { chart, difference, noise } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, settings, services, address } = await startProgram();
const cache = join(settings.INKWELL_DATA, 'cache');

test('when the cache vanishes, everything is made again from the stored bytes', async () => {
  const picture = chart(900, 700);
  const original = await client.original(await picture.png().toBuffer(), 'a.png');
  const before = await client.bytes(`/originals/${original.id}/preview?width=450`);
  for (const folder of ['working', 'proofs']) {
    for (const name of await readdir(join(cache, folder))) await rm(join(cache, folder, name), { recursive: true });
  }
  const [one, two] = await Promise.all([1, 2].map(() => client.bytes(`/originals/${original.id}/preview?width=450`)));
  expect(one?.equals(before)).toBe(true);
  expect(two?.equals(before)).toBe(true);
  expect((await readdir(join(cache, 'working'))).every((name) => !name.startsWith('unfinished'))).toBe(true);
});

test('a bounded folder lets go of what was used longest ago, and never of the newest', async () => {
  const path = await mkdtemp(join(inject('dataFolder'), 'bounded-'));
  const folder = await BoundedFolder.open(path, 250);
  const put = async (name: string, age: number, bytes = 100) => {
    await writeFile(join(path, name), Buffer.alloc(bytes));
    await utimes(join(path, name), new Date(Date.now() - age), new Date(Date.now() - age));
  };
  await put('old', 3000);
  await put('middle', 2000);
  await put('new', 1000);
  expect(await folder.touch('old')).toBe(true);
  await folder.noteAdded();
  expect((await readdir(path)).sort()).toEqual(['new', 'old']);
  await put('vast', -1000, 9999);
  await folder.noteAdded();
  expect(await readdir(path)).toEqual(['vast']);
  expect(await folder.touch('middle')).toBe(false);
  // A folder in it weighs what its files weigh, and goes as a whole.
  await mkdir(join(path, 'many'));
  for (const level of ['0', '1', '2']) await put(join('many', level), 0);
  await utimes(join(path, 'many'), new Date(Date.now() + 2000), new Date(Date.now() + 2000));
  await folder.noteAdded();
  expect(await readdir(path)).toEqual(['many']);
  await put('newest', -4000);
  await folder.noteAdded();
  expect(await readdir(path)).toEqual(['newest']);
});

test('the same plan gives the same bytes, searched for or encoded at the known quality', async () => {
  const folder = await mkdtemp(join(inject('dataFolder'), 'plan-'));
  const file = join(folder, 'picture.png');
  await noise(1300, 1000).blur(1).png().toFile(file);
  const copy = await makeWorkingCopy(await inspect(file), join(folder, 'copy'));
  const plan = planFrame({
    treatment: plainTreatment,
    keeping: keepNothing,
    original: sampleOriginal({ width: 1300, height: 1000 }),
    place: samplePlace({ width: 600, height: 500, limit: { bytes: 60_000, unit: 'kB' } }),
    settings: byHand({ centreX: 611.3, centreY: 480.7, span: 1003.9 }),
  });
  const first = await renderFiles(plan, copy);
  const again = await renderFiles(plan, copy);
  expect(first.weight).toMatchObject({ fits: true, quality: expect.any(Number) });
  const bytesOf = (pieces: { data: Buffer }[]) => Buffer.concat(pieces.map(({ data }) => data));
  expect(bytesOf(again.pieces).equals(bytesOf(first.pieces))).toBe(true);
  const { pieces: known } = await renderAs(plan, copy, first.weight.files);
  expect(bytesOf(known).equals(bytesOf(first.pieces))).toBe(true);
  const { pieces: better } = await renderAs(plan, copy, [
    { quality: (first.weight.quality ?? 0) + 1, chroma: first.weight.files[0]?.chroma ?? null },
  ]);
  expect(bytesOf(better).length).toBeGreaterThan(plan.encoding.budgetBytes);

  // Nor does it matter what was rendered of the picture before: where several qualities are good enough, always the same.
  const lighter = (level: 'flick' | 'look', centreX: number) =>
    planFrame({
      treatment: plainTreatment,
      keeping: keepNothing,
      original: sampleOriginal({ width: 1300, height: 1000 }),
      place: samplePlace({ width: 600, height: 500 }),
      settings: byHand(
        { centreX, centreY: 480.7, span: 1003.9 },
        { weighing: { ...plainWeighing, aim: { kind: 'no heavier than it needs', level } } },
      ),
    });
  const alone = await renderFiles(lighter('flick', 600), copy);
  for (const centreX of [560, 640]) await renderFiles(lighter('look', centreX), copy);
  const later = await renderFiles(lighter('flick', 600), copy);
  expect(later.weight).toEqual(alone.weight);
});

test('an enlarged window falls where it was asked for, to half an output pixel', async () => {
  const folder = await mkdtemp(join(inject('dataFolder'), 'small-'));
  const file = join(folder, 'picture.png');
  const picture = chart(90, 70);
  await picture.clone().png().toFile(file);
  const copy = await makeWorkingCopy(await inspect(file), join(folder, 'copy'));
  const plan = planFrame({
    treatment: plainTreatment,
    keeping: keepNothing,
    original: sampleOriginal({ width: 90, height: 70 }),
    place: samplePlace({ width: 400, height: 400, limit: { bytes: 900_000, unit: 'kB' } }),
    settings: byHand({ centreX: 40.5, centreY: 35.25, span: 40 }, { format: 'png' }),
  });
  const [{ data } = { data: Buffer.alloc(0) }] = (await renderFiles(plan, copy)).pieces;
  // Ten output pixels for one original pixel: the cut starts 205 output pixels from the left, 152.5 from the top.
  const independent = await picture
    .clone()
    .resize(900, 700)
    .extract({ left: 205, top: 152, width: 400, height: 400 })
    .png()
    .toBuffer();
  expect(await difference(data, independent)).toBeLessThan(1.5);
});

test('an upload that is cancelled on the way leaves nothing behind', async () => {
  const before = await services.db.select().from(originals);
  const bytes = await noise(700, 700).png().toBuffer();
  const upload = request(`${address}/api/v1/originals`, {
    method: 'POST',
    headers: { 'Content-Type': 'multipart/form-data; boundary=kites' },
  });
  upload.on('error', () => undefined);
  upload.write('--kites\r\nContent-Disposition: form-data; name="file"; filename="half.png"\r\n\r\n');
  upload.write(bytes.subarray(0, 500_000));
  const incoming = async () => (await readdir(join(settings.INKWELL_DATA, 'incoming'))).length;
  await until(incoming, (count) => count === 1);
  upload.destroy();
  await until(incoming, (count) => count === 0);
  expect(await services.db.select().from(originals)).toEqual(before);
});

test.each([
  ['something that is no form', { 'Content-Type': 'image/png' }, 'kites', /form with a part named file/],
  [
    'a form without a picture',
    { 'Content-Type': 'multipart/form-data; boundary=k' },
    '--k--\r\n',
    /No picture came|broke off/,
  ],
  [
    'a form that breaks off',
    { 'Content-Type': 'multipart/form-data; boundary=k' },
    '--k\r\nContent-Disp',
    /broke off|No picture/,
  ],
])('%s is answered with a sentence', async (_, headers, body, sentence) => {
  const response = await fetch(`${address}/api/v1/originals`, { method: 'POST', headers, body });
  expect(response.status).toBe(400);
  expect(await response.json()).toMatchObject({ message: expect.stringMatching(sentence) });
});

test.each([
  ['GET', '/projects/nonsense', undefined, 404],
  ['GET', '/nothing/here', undefined, 404],
  ['GET', '/deliveries/00000000-0000-4000-8000-000000000000', undefined, 404],
  ['POST', '/projects', { name: 'x'.repeat(121) }, 400],
  ['POST', '/projects', undefined, 400],
  ['POST', '/deliveries', { projectId: 'nonsense' }, 400],
])('%s %s with bad input gets a sentence and no trace of the program’s inside', async (method, path, body, status) => {
  const answer = await client.ask(method, path, body);
  expect(answer.status).toBe(status);
  expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|at .*\.ts|select |zod/i);
  expect(answer.body).toMatchObject({ message: expect.stringMatching(/^[A-Z].*[.!]$/) });
});

test('a project without frames, a wrong pattern and an unfinished archive are refused in words', async () => {
  const original = await client.original(await chart(300, 300).png().toBuffer(), 'b.png');
  const empty = await client.project('Empty', [original], []);
  expect((await client.askDelivery(empty.id)).body).toMatchObject({
    message: expect.stringContaining('no frame to deliver'),
  });
  const project = await client.project('Pattern', [original], ['quillpost/preview-card', 'stallfront/course-image']);
  expect((await client.askDelivery(project.id, '{when}')).body).toMatchObject({
    message: expect.stringContaining('{when} is not known'),
  });
  const { id } = DeliverySchema.parse((await client.askDelivery(project.id)).body);
  expect(await client.ask('GET', `/deliveries/${id}/archive`)).toMatchObject({ status: 409 });
  await until(
    async () => DeliverySchema.parse((await client.ask('GET', `/deliveries/${id}`)).body).state,
    (state) => state === 'done',
  );
});
