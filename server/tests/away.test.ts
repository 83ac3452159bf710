import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { type AddressInfo, connect, createServer, type Socket } from 'node:net';
import { join } from 'node:path';
import { DeliverySchema } from '@inkwell/core/model';
import pg from 'pg';
import { afterAll, expect, test } from 'vitest';
import { isDatabaseAway } from '../database/postgresFailures.ts';
import { openLog } from '../running/log.ts';
import { start } from '../start.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { Client, until } from '../testing/programs/client.ts';
import { testSettings } from '../testing/programs/program.ts';

const direct = await testSettings();
const database = new URL(direct.DATABASE_URL);

/** A way to the database that can be cut: as if it had been stopped, and started again. */
class Way {
  private readonly sockets = new Set<Socket>();
  private isCut = false;
  private readonly server = createServer((client) => {
    if (this.isCut) {
      client.destroy();
      return;
    }
    const there = connect(Number(database.port), database.hostname);
    for (const one of [client, there]) {
      this.sockets.add(one);
      one.on('error', () => undefined);
      one.on('close', () => this.sockets.delete(one));
    }
    client.pipe(there).pipe(client);
  });

  async open(): Promise<string> {
    this.server.listen(0, '127.0.0.1');
    await once(this.server, 'listening');
    const through = new URL(database);
    through.port = String((this.server.address() as AddressInfo).port);
    return through.href;
  }

  cut(): void {
    this.isCut = true;
    for (const one of this.sockets) one.destroy();
  }

  mend(): void {
    this.isCut = false;
  }

  close(): void {
    this.cut();
    this.server.close();
  }
}

const way = new Way();
const running = await start({ ...direct, DATABASE_URL: await way.open() });
const client = new Client(running.address);
afterAll(async () => {
  await running.stop();
  way.close();
});

test('connections that the database breaks cost at most a request or two, and no work', async () => {
  const original = await client.original(await chart(1400, 900).png().toBuffer(), 'chart.png');
  const project = await client.project(
    'Broken off',
    [original],
    ['sunpane/story', 'guildrow/feed-image', 'corkmoor/tall-card'],
  );
  const { id } = DeliverySchema.parse((await client.askDelivery(project.id)).body);
  const admin = new pg.Client({ connectionString: database.href });
  await admin.connect();
  const breakAll =
    'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()';
  for (let round = 0; round < 5; round += 1) {
    await admin.query(breakAll);
    expect([200, 503]).toContain((await client.ask('GET', '/projects')).status);
  }
  await admin.end();
  const delivery = await until(
    async () => {
      const { status, body } = await client.ask('GET', `/deliveries/${id}`);
      return status === 200 ? DeliverySchema.parse(body) : null;
    },
    (one) => one?.state === 'done',
  );
  expect(delivery?.files).toHaveLength(project.frames.length);
});

test('while the database is away the program says so, and goes on when it is back', async () => {
  const picture = await chart(1300, 800).png().toBuffer();
  const original = await client.original(picture, 'chart.png');
  const project = await client.project('Away', [original], ['sunpane/square-post', 'sunpane/wide-post']);
  const { id } = DeliverySchema.parse((await client.askDelivery(project.id)).body);
  way.cut();
  for (const [method, path, body] of [
    ['GET', '/projects', undefined],
    ['GET', `/deliveries/${id}`, undefined],
    ['POST', '/projects', { name: 'Not now' }],
    ['GET', '/spec-book', undefined],
  ] as const) {
    const answer = await fetch(`${running.address}/api/v1${path}`, {
      method,
      ...(body ? { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } } : {}),
    });
    expect([answer.status, answer.headers.get('retry-after')]).toEqual([503, '2']);
    expect(await answer.json()).toMatchObject({ message: expect.stringContaining('database does not answer') });
  }
  expect((await client.upload(picture, 'again.png')).status).toBe(503);
  way.mend();
  await until(
    () => client.ask('GET', '/projects'),
    ({ status }) => status === 200,
  );
  const delivery = await until(
    async () => DeliverySchema.parse((await client.ask('GET', `/deliveries/${id}`)).body),
    ({ state }) => state === 'done',
  );
  expect(delivery.files).toHaveLength(2);
  expect((await client.projects()).some(({ name }) => name === 'Not now')).toBe(false);
});

test('a log that cannot be written keeps nothing waiting and ends nothing', async () => {
  // Always full.
  const log = openLog('/dev/full', 'info');
  for (let line = 0; line < 20_000; line += 1) log.info({ line }, 'nobody reads this');
  const gone = openLog(join(direct.INKWELL_DATA, 'no', 'such', 'folder.log'), 'info');
  gone.info('nor this');
  await new Promise((resolve) => setImmediate(resolve));
  const fine = join(direct.INKWELL_DATA, 'fine.log');
  openLog(fine, 'info').info('this');
  expect(
    await until(
      async () => readFileSync(fine, { encoding: 'utf8', flag: 'a+' }),
      (text) => text.includes('this'),
    ),
  ).toContain('this');
});

test('a connection that the database ended for a reason of its own counts as away; what it refuses does not', () => {
  // Of a query, as it arrives: wrapped in what was asked.
  const failed = (severity: string, code: string) =>
    new Error('Failed query', { cause: Object.assign(new Error('could not write init file'), { severity, code }) });
  expect(isDatabaseAway(failed('FATAL', 'XX000'))).toBe(true);
  expect(isDatabaseAway(failed('FATAL', '58030'))).toBe(true);
  expect(isDatabaseAway(failed('ERROR', 'XX000'))).toBe(false);
  expect(isDatabaseAway(failed('FATAL', '28P01'))).toBe(false);
});
