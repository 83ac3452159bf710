import { createHash } from 'node:crypto';
import { ManifestSchema, plainWeighing } from '@inkwell/core/model';
import { planHash } from '@inkwell/core/planning';
import { byHand } from '@inkwell/core/testing';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { addDelivery, storedDelivery } from '../store/projects/deliveries.ts';
import { blobChunks } from '../store/schema/index.ts';
import { queueDelivery } from '../tasks/delivering/queueDelivery.ts';
import { chart, difference, noise } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';
import { fileNamed, unzip } from '../testing/unzip.ts';
import { orNotFound } from '../userError.ts';

const { client, services } = await startProgram();

test('every file of an archive has its place’s dimensions, format and weight, and shows the right part', async () => {
  const picture = chart(2600, 1700);
  const original = await client.original(await picture.png().toBuffer(), 'Chart one.png');
  const places = [
    'sunpane/story',
    'pipwire/profile-picture',
    'candlecast/video-thumbnail',
    'quillpost/preview-card',
    'quillpost/inline-picture',
  ];
  const project = await client.project('All right', [original], places);
  const delivery = await client.deliver(project.id);
  const archive = await client.bytes(`/deliveries/${delivery.id}/archive`);
  expect((await client.bytes(`/deliveries/${delivery.id}/archive`)).equals(archive)).toBe(true);

  const files = await unzip(archive);
  const manifest = ManifestSchema.parse(JSON.parse(files.get('manifest.json')?.toString() ?? ''));
  expect(manifest.leftOut).toEqual([]);
  expect([...files.keys()]).toEqual([
    ...manifest.files.map((one) => one.file),
    'manifest.json',
    'posting.csv',
    'posting.html',
  ]);
  expect(manifest.files.map((one) => one.file)).toContain(
    `Sunpane/1 Story/${delivery.files.find(({ place }) => place === 'Story')?.file}`,
  );
  expect(manifest.files).toHaveLength(places.length);
  for (const line of manifest.files) {
    const data = files.get(line.file) ?? Buffer.alloc(0);
    expect(data.length).toBe(line.bytes);
    expect(data.length).toBeLessThanOrEqual(line.limitBytes * 0.97);
    expect(createHash('sha256').update(data).digest('hex')).toBe(line.sha256);
    expect(await sharp(data).metadata()).toMatchObject({
      format: 'jpeg',
      width: line.width,
      height: line.height,
      hasProfile: false,
    });
    const { left, top, width, height } = line.window;
    const cut = { left: Math.round(left), top: Math.round(top), width: Math.round(width), height: Math.round(height) };
    const independent = await picture
      .clone()
      .extract(cut)
      .resize(line.width, line.height, { fit: 'fill' })
      .png()
      .toBuffer();
    expect(await difference(data, independent)).toBeLessThan(2.5);
  }
});

test('the proof at a third of the size is the delivered file scaled down', async () => {
  const original = await client.original(await chart(2400, 1800).png().toBuffer(), 'f.png');
  const project = await client.project('Proof and file', [original], ['guildrow/feed-image']);
  // The proof is no lighter than it needs to be, so the file must not be either.
  const weighing = { ...plainWeighing, aim: { kind: 'as good as fits' } };
  await client.ask('PATCH', `/frames/${project.frames[0]?.id}`, { version: 1, change: { weighing } });
  const delivery = await client.deliver(project.id);
  const [frame] = (await client.open(project.id)).frames;
  const plan = frame && (await services.planner.open()).planOf({ frame, original, project, seen: null });
  if (!frame || !plan) throw new Error('no plan');
  const archive = await unzip(await client.bytes(`/deliveries/${delivery.id}/archive`));
  const file = fileNamed(archive, delivery.files[0]?.file ?? '');
  const proof = await client.bytes(`/frames/${frame.id}/proof?plan=${planHash(plan)}&width=400`);
  expect(await difference(proof, await sharp(file).resize(400).png().toBuffer())).toBeLessThan(1.5);
});

test('a limit that binds is met with the highest quality that fits; what cannot fit is left out and says why', async () => {
  const original = await client.original(await noise(1400, 1400).png().toBuffer(), 'noise.png');
  const project = await client.project(
    'Heavy',
    [original],
    ['pipwire/profile-picture', 'quillpost/preview-card', 'stallfront/course-image'],
  );
  const png = project.frames.find((one) => one.placeId === 'stallfront/course-image');
  await client.ask('PATCH', `/frames/${png?.id}`, { version: 1, change: { format: 'png' } });
  const delivery = await client.deliver(project.id);
  expect(delivery.leftOut).toMatchObject([
    { place: 'Preview card', reasons: [expect.stringMatching(/only [\d.]+ of 100 would be left/)] },
    { place: 'Course image', reasons: [expect.stringContaining('970,000 bytes')] },
  ]);
  const archive = await unzip(await client.bytes(`/deliveries/${delivery.id}/archive`));
  expect(fileNamed(archive, delivery.leftOut[0]?.file ?? '')).toBeUndefined();

  const one = await client.measured(project.id);
  expect(one.find((weight) => weight.frameId === png?.id)?.weight?.fits).toBe(false);
});

test('what another version of the program planned is left out of a delivery, in words; the rest is delivered', async () => {
  const original = await client.original(await chart(800, 700).png().toBuffer(), 'old.png');
  const places = ['sunpane/square-post', 'pipwire/profile-picture', 'guildrow/profile-picture'];
  const project = await client.project('From before', [original], places);
  const { db } = services;
  const stored = orNotFound(await storedDelivery(db, (await client.deliver(project.id)).id), 'The delivery');
  const old = { engine: 1, picture: 'planned in a way that nobody knows any more' };
  const items = stored.items.map((item, index) => {
    if (index === 0) return { ...item, plan: old, blocked: ['It was blocked then.'] };
    return index === 1 ? { ...item, plan: old } : item;
  });
  const again = await db.transaction(async (tx) => {
    const added = await addDelivery(tx, {
      projectId: project.id,
      projectName: project.name,
      pattern: stored.pattern,
      items,
    });
    await queueDelivery(tx, added.stored);
    return added.delivery;
  });
  expect(await client.delivered({ status: 200, body: again })).toMatchObject({
    state: 'done',
    files: [{ planHash: expect.stringMatching(/^[0-9a-f]{64}$/) }],
    leftOut: [
      { reasons: ['It was blocked then.'] },
      { reasons: [expect.stringContaining('planned by another version of the program')] },
    ],
  });
});

test('a file whose kept bytes are damaged is left out of a delivery, in words; the rest is delivered', async () => {
  const original = await client.original(await chart(820, 710).png().toBuffer(), 'damaged.png');
  const project = await client.project('Damaged', [original], ['sunpane/square-post', 'pipwire/profile-picture']);
  const { files } = await client.deliver(project.id);
  await services.db
    .update(blobChunks)
    .set({ data: Buffer.from('not these') })
    .where(eq(blobChunks.sha256, files[0]?.sha256 ?? ''));
  expect(await client.deliver(project.id)).toMatchObject({
    state: 'done',
    files: [{ sha256: files[1]?.sha256 }],
    leftOut: [{ file: files[0]?.file, reasons: [expect.stringContaining('It could not be put into the delivery')] }],
  });
});

test('a frame that somebody leaves out is not delivered; where all are, that is said', async () => {
  const original = await client.original(await chart(600, 500).png().toBuffer(), 'left.png');
  const project = await client.project(
    'Looked over',
    [original],
    ['pipwire/profile-picture', 'guildrow/profile-picture'],
  );
  const [first, second] = project.frames.map(({ id }) => id);
  const seen = await client.seen(project.id);
  const say = async (id: string | undefined, is: string) => {
    const plan = seen.find(({ frameId }) => frameId === id)?.plan;
    expect((await client.ask('PATCH', `/frames/${id}`, { version: 1, change: { verdict: { is, plan } } })).status).toBe(
      200,
    );
  };
  await say(first, 'leave out');
  expect((await client.askDelivery(project.id)).status).toBe(409);
  const rest = seen.filter(({ frameId }) => frameId === second);
  const { files } = await client.delivered(await client.askDelivery(project.id, undefined, rest));
  expect(files.map(({ placeThen }) => placeThen?.id)).toEqual([project.frames[1]?.placeId]);
  // What was said changed nothing about the pixels: nothing is made again.
  expect(await client.seen(project.id)).toEqual(seen);
  await say(second, 'leave out');
  const { body } = await client.askDelivery(project.id, undefined, []);
  expect(body).toMatchObject({ message: expect.stringContaining('Every frame is left out') });
});

test('later changes and even the deletion of the project leave a delivery as it was', async () => {
  const original = await client.original(await chart(900, 900).png().toBuffer(), 'g.png');
  const project = await client.project('Kept', [original], ['sunpane/square-post']);
  const delivery = await client.deliver(project.id, 'x/{name}');
  expect(delivery.files[0]).toMatchObject({
    file: 'x-g.jpg',
    width: 1080,
    height: 1080,
  });
  const before = await client.bytes(`/deliveries/${delivery.id}/archive`);
  await client.ask('PATCH', `/frames/${project.frames[0]?.id}`, {
    version: 1,
    change: byHand({ centreX: 300, centreY: 300, span: 200 }),
  });
  await client.ask('DELETE', `/projects/${project.id}`);
  await client.ask('DELETE', `/originals/${original.id}`);
  expect((await client.bytes(`/deliveries/${delivery.id}/archive`)).equals(before)).toBe(true);
  expect(await client.ask('POST', '/deliveries', { projectId: project.id, seen: [] })).toMatchObject({ status: 404 });
});
