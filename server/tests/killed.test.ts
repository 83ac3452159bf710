import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { type Delivery, DeliverySchema, OriginalSchema, plainWeighing } from '@inkwell/core/model';
import fc from 'fast-check';
import pg from 'pg';
import { afterAll, expect, test } from 'vitest';
import { z } from 'zod';
import { chart, noise } from '../testing/pictures/pictures.ts';
import { Client, until } from '../testing/programs/client.ts';
import { ServerProcess, WorkerProcess } from '../testing/programs/processes.ts';
import { testSettings } from '../testing/programs/program.ts';

const settings = await testSettings();
const env = { ...process.env, ...settings, PORT: String(settings.PORT) };
const processes = new Set<ServerProcess | WorkerProcess>();
afterAll(() => Promise.all([...processes].map((one) => one.end('SIGKILL'))));

async function begun<One extends ServerProcess | WorkerProcess>(one: Promise<One>): Promise<One> {
  const process = await one;
  processes.add(process);
  return process;
}

const incoming = () => readdirSync(join(settings.INKWELL_DATA, 'incoming'));
const deliveryOf = (client: Client, id: string) => async () =>
  DeliverySchema.parse((await client.ask('GET', `/deliveries/${id}`)).body);
const isOver = ({ state }: Delivery) => state !== 'waiting' && state !== 'working';

test('killed in the middle of an upload and of a delivery, the program goes on with everything whole', async () => {
  let server = await begun(ServerProcess.start(env));
  let worker = await begun(WorkerProcess.start(env));
  let client = new Client(server.address);
  const bytes = await noise(1300, 900).blur(2).png().toBuffer();
  const original = await client.original(bytes, 'before.png');
  const places = [
    'guildrow/profile-picture',
    'pipwire/profile-picture',
    'corkmoor/collection-cover',
    'sunpane/profile-picture',
    'hearthring/profile-picture',
    'candlecast/channel-picture',
  ];
  const project = await client.project('Before', [original], places);

  const listed = async () => OriginalSchema.array().parse((await client.ask('GET', '/originals')).body);
  const before = await listed();
  // Half an upload, then the end.
  const half = request(`${client.address}/api/v1/originals`, {
    method: 'POST',
    headers: { 'Content-Type': 'multipart/form-data; boundary=kites' },
  });
  half.on('error', () => undefined);
  half.write(`--kites\r\nContent-Disposition: form-data; name="file"; filename="half.png"\r\n\r\n`);
  half.write(bytes.subarray(0, bytes.length / 2));
  await until(
    async () => incoming().length,
    (count) => count === 1,
  );
  await server.end('SIGKILL');
  expect(incoming()).toHaveLength(1);

  server = await begun(ServerProcess.start(env));
  client = new Client(server.address);
  expect(incoming()).toEqual([]);
  expect(await listed()).toEqual(before);
  expect(before).toContainEqual(original);

  // Half a delivery, then the end of both.
  const { id } = DeliverySchema.parse((await client.askDelivery(project.id)).body);
  const broken = await until(deliveryOf(client, id), ({ doneCount }) => doneCount >= 2);
  expect(broken.state).toBe('working');
  await Promise.all([server.end('SIGKILL'), worker.end('SIGKILL')]);

  server = await begun(ServerProcess.start(env));
  worker = await begun(WorkerProcess.start(env));
  client = new Client(server.address);
  const finished = await until(deliveryOf(client, id), isOver);
  expect(finished.state).toBe('done');
  expect(finished.files).toHaveLength(places.length);
  expect(finished.files).toEqual(expect.arrayContaining(broken.files));
  expect((await client.bytes(`/deliveries/${id}/archive`)).length).toBeGreaterThan(finished.bytes);
  const back = await client.bytes(`/originals/${original.id}/file`);
  expect(createHash('sha256').update(back).digest('hex')).toBe(original.sha256);
  await Promise.all([server.end(), worker.end()]);
}, 480_000);

test('a worker that is told to stop leaves what it does to others, and that does not count against it', async () => {
  const server = await begun(ServerProcess.start(env));
  const client = new Client(server.address);
  const original = await client.original(await noise(2400, 1350).png().toBuffer(), 'long.png');
  const project = await client.project('Long', [original], ['candlecast/channel-banner']);
  const weighing = { ...plainWeighing, aim: { kind: 'no heavier than it needs', level: 'flick' }, colours: 'palette' };
  const change = { format: 'png', weighing };
  await client.ask('PATCH', `/frames/${project.frames[0]?.id}`, { version: 1, change });
  const database = new pg.Client({ connectionString: settings.DATABASE_URL });
  await database.connect();
  const work = async () => (await database.query('select state, attempts from work')).rows;
  for (let stop = 0; stop < 2; stop += 1) {
    const worker = await begun(WorkerProcess.start(env));
    await until(work, (rows) => rows.some(({ state }) => state === 'working'));
    await worker.end();
    expect(await work()).toContainEqual({ state: 'waiting', attempts: 0 });
  }
  // Nobody wants it measured any more: whoever starts next would begin with that.
  await client.ask('DELETE', `/projects/${project.id}`);
  await database.query('delete from work');
  await database.end();
  await server.end();
}, 480_000);

/** How often a worker is killed: a few times in the check, fifty with `npm run faults`. */
const kills = Number(process.env.INKWELL_FAULTS ?? 3);

test(`two workers, killed ${kills} times at random moments: every delivery ends right, none twice, nothing stays claimed`, async () => {
  const server = await begun(ServerProcess.start(env));
  const client = new Client(server.address);
  let workers = [await begun(WorkerProcess.start(env)), await begun(WorkerProcess.start(env))];
  // Small, and in pieces: what is tried is how work is handed on, not how heavy it is.
  const place = {
    name: 'Small pair',
    purpose: 'post',
    width: 160,
    height: 200,
    formats: ['jpeg'],
    limit: { bytes: 100_000, unit: 'kB' },
    shownWidths: [80],
    group: { kind: 'block', columns: 2, rows: 1, gap: 0, postingOrder: [0, 1] },
  };
  const own = await client.ask('POST', '/sheets/places', { place, keptIn: { kind: 'sheet', name: 'Tried' } });
  const { placeId } = z.object({ placeId: z.string() }).parse(own.body);
  const places = ['pipwire/profile-picture', placeId, 'guildrow/profile-picture'];
  const mark = {
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Kite',
    role: 'keep',
    left: 300,
    top: 200,
    width: 90,
    height: 80,
  };
  const [random] = fc.sample(fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), { numRuns: 1, seed: 20 });
  const next = () => Number(random?.next().value);
  const deliveries: { id: string; files: number }[] = [];
  for (let kill = 0; kill < kills; kill += 1) {
    // Each round has pictures of its own: to be measured, looked at small, cut and delivered.
    const original = await client.original(
      await chart(1500 + kill, 800)
        .png()
        .toBuffer(),
      `round ${kill}.png`,
    );
    await client.ask('PATCH', `/originals/${original.id}/settings`, {
      version: original.version,
      change: { marks: [mark] },
    });
    const project = await client.project(`Round ${kill}`, [original], places);
    const { id, frameCount } = DeliverySchema.parse((await client.askDelivery(project.id)).body);
    deliveries.push({ id, files: frameCount });
    // At a random moment of the delivery's life, told by what it has come to and not by the clock.
    const moment = Math.floor(next() * frameCount);
    await until(deliveryOf(client, id), (delivery) => delivery.doneCount >= moment || isOver(delivery));
    const victim = workers[next() < 0.5 ? 0 : 1];
    await victim?.end('SIGKILL');
    workers = [...workers.filter((one) => one !== victim), await begun(WorkerProcess.start(env))];
  }
  for (const { id, files } of deliveries) {
    const { state, files: made, leftOut } = await until(deliveryOf(client, id), isOver, 1800);
    expect([state, made.length, leftOut]).toEqual(['done', files, []]);
    expect(new Set(made.map(({ file }) => file)).size).toBe(files);
    expect((await client.bytes(`/deliveries/${id}/archive`)).length).toBeGreaterThan(0);
  }
  for (const { id } of await client.projects()) await client.measured(id);
  const database = new pg.Client({ connectionString: settings.DATABASE_URL });
  await database.connect();
  const left = await until(
    async () => (await database.query('select key, state, failure from work')).rows,
    (rows) => rows.length === 0,
  );
  expect(left).toEqual([]);
  await database.end();
  await Promise.all([server, ...workers].map((one) => one.end()));
}, 3_600_000);
