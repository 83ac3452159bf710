import { type AddressInfo, connect, createServer } from 'node:net';
import { runCounts } from '@inkwell/core/dryRunning';
import {
  type DryRun,
  type DryRunFile,
  DryRunSchema,
  DryRunSummarySchema,
  SheetFindingSchema,
  SpecSheetSchema,
} from '@inkwell/core/model';
import sharp from 'sharp';
import { afterAll, expect, test } from 'vitest';
import { z } from 'zod';
import { type NetworkAccount, networksFile, writeAccounts } from '../networkAccounts.ts';
import { runSql } from '../testing/databases.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { networksWith, startNetworksOn } from '../testing/programs/networks.ts';
import { WorkerProcess } from '../testing/programs/processes.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, settings, worker } = await startProgram();
const sheets = networksWith();
let running = await startNetworksOn(settings.DATABASE_URL, sheets, settings.INKWELL_DATA);
afterAll(() => running.stop());

/** How a network behaves from now on: the service reads it for every request. */
const mannersOf = (slug: string) => {
  const sheet = sheets.find((one) => one.slug === slug);
  if (!sheet) throw new Error(slug);
  return sheet.manners;
};
const begun = async (body: object): Promise<DryRun> =>
  DryRunSchema.parse((await client.ask('POST', '/dry-runs', body)).body);
const runOf = async (id: string) => DryRunSchema.parse((await client.ask('GET', `/dry-runs/${id}`)).body);
const over = (id: string) =>
  until(
    () => runOf(id),
    ({ state }) => state !== 'waiting' && state !== 'working',
  );
const at = (run: DryRun, place: string): DryRunFile[] => run.files.filter(({ line }) => line.place === place);
const states = (files: readonly DryRunFile[]) => files.map(({ outcome }) => outcome?.state ?? null);
interface Posted {
  place: string;
  state: string;
  pieces: number;
  /** SHA-256 of its files, in the order in which they were uploaded. */
  files: string[];
}
/** What a network has, as it has it itself: the oldest first, what is not published last. */
const publishedAt = async (slug: string): Promise<Posted[]> =>
  (await runSql(
    settings.DATABASE_URL,
    `select place, state, pieces, array(
       select sha256 from standins.files where post_id = posts.id order by files.number) as files
     from standins.posts where network = '${slug}' order by number nulls last`,
  )) as unknown as Posted[];

/** A line to a network on which every other connection breaks, after 1 byte of either way, then 40, 1,600, and so on round again. */
async function brokenLine(accounts: readonly NetworkAccount[], slug: string) {
  const to = new URL(accounts.find((one) => one.slug === slug)?.address ?? '');
  const after = [1, 40, 300, 1600, 12_000, 60_000];
  let [connections, broken] = [0, 0];
  const server = createServer((here) => {
    connections += 1;
    const most = connections % 2 === 1 ? (after[(connections >> 1) % after.length] ?? 1) : Number.POSITIVE_INFINITY;
    const there = connect(Number(to.port), to.hostname);
    let bytes = 0;
    const count = (chunk: Buffer) => {
      bytes += chunk.length;
      if (bytes < most) return;
      broken += 1;
      here.destroy();
      there.destroy();
    };
    for (const [from, onto] of [
      [here, there],
      [there, here],
    ] as const) {
      from.on('data', count).on('error', () => onto.destroy());
      from.pipe(onto);
    }
  });
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    accounts: accounts.map((one) => (one.slug === slug ? { ...one, address } : one)),
    broken: () => broken,
    stop: () => server.close(),
  };
}

const empty = () => client.ask('POST', '/networks/empty');

const original = await client.original(await chart(4800, 1500).jpeg({ quality: 95 }).toBuffer(), 'Dunes.jpg');
const marks = [
  {
    id: '6f9619ff-8b86-4d01-b42d-00cf4fc964ff',
    name: 'Kite at the edge',
    role: 'keep',
    kind: null,
    priority: 'must',
    shape: 'rectangle',
    look: null,
    left: 1830,
    top: 300,
    width: 160,
    height: 300,
  },
];
await client.ask('PATCH', `/originals/${original.id}/settings`, { version: original.version, change: { marks } });
const project = await client.project(
  'Dry',
  [original],
  [
    'sunpane/portrait-post',
    'sunpane/profile-quilt',
    'pipwire/four-up-block',
    'guildrow/article-cover',
    'stallfront/shop-banner',
    'quillpost/preview-card',
  ],
);
const frameAt = (placeId: string) => project.frames.find((frame) => frame.placeId === placeId);
await client.ask('PATCH', `/frames/${frameAt('stallfront/shop-banner')?.id}`, {
  version: 1,
  change: { format: 'png' },
});
await client.ask('PATCH', `/frames/${frameAt('sunpane/portrait-post')?.id}`, {
  version: 1,
  change: { window: { centreX: 2430, centreY: 750, span: 1200, turn: 0, mirror: false } },
});
const delivery = await client.deliver(project.id);

test('a delivery is uploaded, in order, and what comes back is measured: scaled, cut, encoded anew, refused', async () => {
  const run = await over((await begun({ deliveryId: delivery.id })).id);
  expect(run).toMatchObject({ state: 'done', deliveryId: delivery.id, waiting: null });
  expect(run.files).toHaveLength(delivery.files.length);

  // Sunpane shows 3:4 where the spec book says 4:5: from the middle, and the mark at the edge is cut.
  const [portrait] = at(run, 'Portrait post');
  if (portrait?.outcome?.state !== 'shown') throw new Error('not shown');
  const { back } = portrait.outcome;
  expect(back.kept).toMatchObject({ width: 810, height: 1080, format: 'jpeg', chroma: '4:2:0', quality: 76 });
  expect(back.lost).toMatchObject({ top: 0, bottom: 0 });
  for (const edge of [back.lost.left, back.lost.right]) expect(Math.abs(edge - 33.75)).toBeLessThan(2.5);
  expect(back.cut).toMatchObject([{ name: 'Kite at the edge', isMust: true }]);
  const [shown] = back.shown;
  expect(shown).toMatchObject({ shownWidth: 360, width: 360, height: 480 });
  expect(shown?.similarity).toBeGreaterThan(85);
  expect(shown?.similarity).toBeLessThan(100);
  expect(shown?.worst.similarity).toBeLessThanOrEqual(shown?.similarity ?? 0);
  expect(shown?.colourShift.mean).toBeLessThan(2);
  const picture = await client.bytes(`/dry-runs/${run.id}/pictures/${shown?.sha256}`);
  expect(await sharp(picture).metadata()).toMatchObject({ width: 360, height: 480 });

  // A block is one post: uploaded down the columns, and looked at across its seams.
  const block = at(run, 'Four-up block');
  expect(new Set(block.map(({ post }) => post)).size).toBe(1);
  const [tile] = block.flatMap(({ outcome }) => (outcome?.state === 'shown' ? [outcome.back] : []));
  expect(tile?.gap).toBeCloseTo(0.016, 2);
  const screen = await client.bytes(`/dry-runs/${run.id}/pictures/${tile?.shown[0]?.screen}`);
  expect(await sharp(screen).metadata()).toMatchObject({ format: 'png' });
  expect(block.map(({ outcome }) => (outcome?.state === 'shown' ? outcome.back.seams.length : -1))).toEqual([
    2, 1, 1, 0,
  ]);
  expect(at(run, 'Article cover')[0]?.outcome).toMatchObject({
    back: { kept: { width: 1800, height: 1013 }, lost: { left: 0, top: 0 } },
  });

  // Stallfront takes no PNG for its banner, whatever the spec book says; Quillpost less than 300 kB.
  expect(at(run, 'Shop banner')[0]?.outcome).toMatchObject({
    state: 'refused',
    refusal: { code: 'format', isNews: true, rule: 'the format', fix: expect.stringContaining('JPEG') },
  });

  // A quilt is many posts, the last tile first, which is how they lie on the network.
  const quilt = at(run, 'Profile quilt');
  expect(new Set(quilt.map(({ post }) => post)).size).toBe(quilt.length);
  const tiles = (await publishedAt('sunpane')).filter(({ place }) => place === 'profile-quilt');
  expect(tiles.map(({ files }) => files[0])).toEqual(quilt.map(({ line }) => line.sha256));
  expect(quilt.map(({ line }) => line.piece?.index)).toEqual([5, 4, 3, 2, 1, 0]);
  // What came back stays when the networks are emptied.
  expect((await empty()).status).toBe(204);
  expect(await publishedAt('sunpane')).toEqual([]);
  expect((await client.bytes(`/dry-runs/${run.id}/pictures/${shown?.sha256}`)).equals(picture)).toBe(true);
});

test('what the networks do otherwise than the spec book says is noted on their sheets, and taken over with one press', async () => {
  const listed = async () => z.array(SheetFindingSchema).parse((await client.ask('GET', '/sheet-findings')).body);
  const placeOf = async (slug: string) =>
    z
      .array(SpecSheetSchema)
      .parse((await client.ask('GET', '/spec-book')).body)
      .flatMap((sheet) => sheet.places.map((place) => ({ place, sheet })))
      .find(({ place }) => place.slug === slug);
  expect(
    (await listed()).map(({ network, place, said, measured, state }) => [network, place, said, measured, state]),
  ).toEqual([
    ['guildrow', null, '2048 px', '1800 px', 'open'],
    ['quillpost', null, 'JPEG 82, 4:2:0', 'JPEG 82, 4:4:4', 'open'],
    ['stallfront', 'shop-banner', 'JPEG, PNG', 'JPEG', 'open'],
    ['sunpane', 'portrait-post', '1080 × 1350 px', '1080 × 1440 px', 'open'],
  ]);
  const ratio = (await listed()).find(({ network }) => network === 'sunpane');
  const set = (state: string, version: number) =>
    client.ask('PATCH', `/sheet-findings/${ratio?.id}`, { version, change: { state } });
  expect(await set('taken over', 1)).toMatchObject({ status: 200, body: { state: 'taken over', version: 2 } });
  expect(await set('dismissed', 1)).toMatchObject({ status: 409, body: { current: { state: 'taken over' } } });
  expect((await placeOf('portrait-post'))?.place).toMatchObject({ height: 1440, measured: { version: 2 } });
  // Its frames have the new dimensions, and are measured anew: so delivered, nothing is cut any more.
  await client.measured(project.id);
  const again = await client.deliver(project.id);
  expect(again.files.find(({ place }) => place === 'Portrait post')).toMatchObject({ width: 1080, height: 1440 });
  const run = await over((await begun({ deliveryId: again.id })).id);
  expect(at(run, 'Portrait post')[0]?.outcome).toMatchObject({
    back: { lost: { left: 0, right: 0, top: 0, bottom: 0 }, kept: { width: 810, height: 1080 } },
  });
  expect(await set('open', 2)).toMatchObject({ body: { state: 'open', version: 3 } });
  expect((await placeOf('portrait-post'))?.place).toMatchObject({ height: 1350 });
  await client.measured(project.id);
  await empty();
});

test('busy, broken, slow and dropping networks: everything is posted once, in order, and what is said is true', async () => {
  // Every other connection to Pipwire breaks, each after more bytes than the one before.
  const line = await brokenLine(running.networks, 'pipwire');
  await writeAccounts(networksFile(settings.INKWELL_DATA), line.accounts);
  Object.assign(mannersOf('sunpane'), { requests: { most: 4, perSeconds: 1 } });
  Object.assign(mannersOf('pipwire'), { dropsOnceIn: 5, slowMs: 20 });
  Object.assign(mannersOf('guildrow'), { failsOnceIn: 1 });
  const { id } = await begun({ deliveryId: delivery.id });
  const broken = await until(
    () => runOf(id),
    ({ waiting }) => waiting?.includes('Guildrow answers 500.') ?? false,
  );
  expect(broken.state).toBe('working');
  await until(
    () => runOf(id),
    (now) => at(now, 'Four-up block').every(({ outcome }) => outcome),
  );
  Object.assign(mannersOf('guildrow'), { failsOnceIn: 0 });
  // All networks are started again meanwhile, at other addresses.
  await running.stop();
  running = await startNetworksOn(settings.DATABASE_URL, sheets, settings.INKWELL_DATA);
  const run = await over(id);
  line.stop();
  expect(line.broken()).toBeGreaterThan(2);
  expect(run.state).toBe('done');
  expect(states(run.files).filter((state) => state !== 'shown' && state !== 'refused')).toEqual([]);
  for (const slug of ['sunpane', 'pipwire', 'guildrow']) {
    const posts = await publishedAt(slug);
    expect(posts.every(({ state, pieces, files }) => state === 'published' && files.length === pieces)).toBe(true);
    const wanted = run.files.filter(({ line }) => line.placeThen?.sheet.slug === slug).map(({ line }) => line.sha256);
    expect(posts.flatMap(({ files }) => files)).toEqual(wanted);
  }
  for (const slug of ['sunpane', 'pipwire']) {
    Object.assign(mannersOf(slug), { requests: { most: 10_000, perSeconds: 1 }, dropsOnceIn: 0, slowMs: 0 });
  }
  await empty();
});

test('where one panel of a strip is refused, nothing of it is posted, and the others say why', async () => {
  const strip = await client.project('Strip', [original], ['sunpane/swipe-panels-portrait']);
  const { files } = await client.deliver(strip.id);
  const sunpane = sheets.find(({ slug }) => slug === 'sunpane');
  const place = sunpane?.places.find(({ slug }) => slug === 'swipe-panels-portrait');
  const third = files[2];
  if (!place || !third) throw new Error('no strip');
  // The network takes all panels but the heaviest.
  const heaviest = files.reduce((most, file) => (file.bytes > most.bytes ? file : most), third);
  place.limit = { bytes: heaviest.bytes - 1, unit: 'MB' };
  const deliveries = (await client.ask('GET', `/deliveries?project=${strip.id}`)).body as { id: string }[];
  const run = await over((await begun({ deliveryId: deliveries[0]?.id })).id);
  const at = files.indexOf(heaviest);
  expect(states(run.files)).toEqual(files.map((_, index) => (index === at ? 'refused' : 'held back')));
  expect(run.files[at]?.outcome).toMatchObject({
    refusal: {
      code: 'too heavy',
      said: 'That picture is too much for us. Try a lighter one.',
      isNews: true,
      fix: expect.stringMatching(/^The spec book says 8 MB, the network takes .* Take that over/),
    },
  });
  const other = run.files[at === 0 ? 1 : 0]?.outcome;
  expect(other).toMatchObject({
    why: `Its post was not published, because file ${at + 1} of ${files.length} was refused.`,
  });
  expect(await publishedAt('sunpane')).toEqual([]);
});

test('one frame can be run without a delivery, as it was seen; a run can be cancelled, and leaves nothing half', async () => {
  const frame = frameAt('guildrow/article-cover');
  const plan = (await client.seen(project.id)).find(({ frameId }) => frameId === frame?.id)?.plan;
  const run = await over((await begun({ frameId: frame?.id, plan })).id);
  expect(run).toMatchObject({ state: 'done', deliveryId: null, files: [{ outcome: { state: 'shown' } }] });
  // Files are kept for a while only. One that is gone is made again, and is the same.
  await runSql(settings.DATABASE_URL, 'delete from encodings');
  const again = await over((await begun({ frameId: frame?.id, plan })).id);
  expect(again.files[0]?.line.sha256).toBe(run.files[0]?.line.sha256);
  expect(await client.ask('POST', '/dry-runs', { frameId: frame?.id, plan: 'another' })).toMatchObject({ status: 409 });
  expect(await client.ask('POST', '/dry-runs', { deliveryId: frame?.id })).toMatchObject({ status: 404 });
  expect(await client.ask('POST', '/dry-runs', {})).toMatchObject({ status: 400 });
  expect(await client.ask('GET', `/dry-runs/${run.id}/pictures/${'0'.repeat(64)}`)).toMatchObject({ status: 404 });

  await empty();
  Object.assign(mannersOf('pipwire'), { slowMs: 400 });
  const { id } = await begun({ deliveryId: delivery.id });
  await until(
    () => publishedAt('pipwire'),
    (posts) => posts.length > 0,
  );
  expect(await client.ask('POST', `/dry-runs/${id}/cancel`)).toMatchObject({ body: { state: 'cancelled' } });
  expect(await client.ask('POST', `/dry-runs/${id}/cancel`)).toMatchObject({ status: 409 });
  // What was open goes; what is published already would stay.
  await until(
    () => publishedAt('pipwire'),
    (posts) => posts.every(({ state }) => state === 'published'),
  );
  Object.assign(mannersOf('pipwire'), { slowMs: 0 });
  // In a list runs are told in numbers, and they are those of their files.
  const { body } = await client.ask('GET', `/dry-runs?project=${project.id}`);
  const listed = z.array(DryRunSummarySchema).parse(body);
  expect(listed).toHaveLength(6);
  for (const one of listed) expect(one.counts).toEqual(runCounts(await runOf(one.id)));
});

test('a worker that is killed in the middle, again and again, posts nothing twice, out of order or half', async () => {
  await empty();
  await worker.stop();
  Object.assign(mannersOf('sunpane'), { slowMs: 150 });
  const env = { ...process.env, ...settings, PORT: `${settings.PORT}` };
  const { id } = await begun({ deliveryId: delivery.id });
  for (const posts of [1, 4]) {
    const killed = await WorkerProcess.start(env);
    await until(
      () => publishedAt('sunpane'),
      (found) => found.length >= posts,
    );
    await killed.end('SIGKILL');
  }
  const last = await WorkerProcess.start(env);
  const run = await over(id);
  await last.end();
  expect(states(run.files).filter((state) => state !== 'shown' && state !== 'refused')).toEqual([]);
  const wanted = run.files
    .filter(({ line }) => line.placeThen?.sheet.slug === 'sunpane')
    .map(({ line }) => line.sha256);
  const posts = await publishedAt('sunpane');
  expect(posts.map(({ state }) => state)).toEqual(wanted.map(() => 'published'));
  expect(posts.flatMap(({ files }) => files)).toEqual(wanted);
});
