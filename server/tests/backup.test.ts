import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import { gunzipSync } from 'node:zlib';
import { shippedFinishes } from '@inkwell/core/finishing';
import { BackupsSchema, type Delivery, OriginalSchema } from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest';
import { bundled } from '../bundling/bundle.ts';
import { readBackupSettings } from '../settings/backupSettings.ts';
import type { Settings } from '../settings/settings.ts';
import { readWorkerSettings } from '../settings/settings.ts';
import { start, startServer, startWorker } from '../start.ts';
import { openDatabase } from '../store/database.ts';
import { backUp, inFile, targetOf } from '../tasks/backup/backUp.ts';
import { makeBackup } from '../tasks/backup/makeBackup.ts';
import { checkBackup } from '../tasks/backup/readBackup.ts';
import { restoreBackup } from '../tasks/backup/restoreBackup.ts';
import { ownCluster } from '../testing/cluster.ts';
import { databaseAt, runSql } from '../testing/databases.ts';
import { fixtureFolder } from '../testing/fixtures/fixtures.ts';
import { chart, noise } from '../testing/pictures/pictures.ts';
import { Client, until } from '../testing/programs/client.ts';
import { bareDatabase, testSettings } from '../testing/programs/program.ts';

const root = join(import.meta.dirname, '..', '..');
const folder = await mkdtemp(join(inject('dataFolder'), 'backups-'));
const passphrase = 'quilted lantern over marsh';

/** The command as a process of its own, so that it can be killed. */
function command(words: readonly string[], env: Record<string, string | undefined>) {
  const line = [bundled('commandLine'), ...words];
  const child = spawn(process.execPath, line, {
    cwd: root,
    env: { ...process.env, INKWELL_CALLER: folder, ...env } as NodeJS.ProcessEnv,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = once(child, 'exit');
  const said = Promise.all([text(child.stdout), text(child.stderr)]);
  return {
    child,
    async end(): Promise<{ code: number | null; said: string }> {
      const [[code], [out, wrong]] = await Promise.all([ended, said]);
      return { code: code as number | null, said: `${out}${wrong}`.trim() };
    },
  };
}

/** All that somebody sees and has of what stands still: settings as the API tells them, and the bytes of every file. */
async function standing(client: Client, deliveries: readonly Delivery[], named: readonly string[]) {
  const originals = OriginalSchema.array()
    .parse((await client.ask('GET', '/originals')).body)
    .filter(({ name }) => named.includes(name));
  const files = originals.map(async ({ id, sha256 }) => {
    const bytes = await client.bytes(`/originals/${id}/file`);
    return [sha256, createHash('sha256').update(bytes).digest('hex')];
  });
  const archives = deliveries.map(async ({ id }) =>
    createHash('sha256')
      .update(await client.bytes(`/deliveries/${id}/archive`))
      .digest('hex'),
  );
  const project = deliveries[0]?.projectId ?? '';
  const paths = [`/projects/${project}`, `/deliveries/${deliveries[0]?.id}`, '/spec-book', '/finishes', '/place-sets'];
  const settings = await Promise.all(paths.map(async (path) => (await client.ask('GET', path)).body));
  return { originals, files: await Promise.all(files), archives: await Promise.all(archives), settings };
}

let settings: Settings;
let running: Awaited<ReturnType<typeof start>>;
let deliveries: Delivery[];
const named = ['One', 'Two', 'Three'];

beforeAll(async () => {
  settings = await testSettings();
  running = await start(settings);
  const client = new Client(running.address);
  const places = await client.sheet('Marram Board', [
    {
      slug: 'notice',
      name: 'Notice',
      purpose: 'post',
      width: 400,
      height: 240,
      formats: ['jpeg'],
      limit: { bytes: 90_000, unit: 'kB' },
      shownWidths: [320],
    },
  ]);
  const pictures = [noise(1500, 1200), noise(1400, 1300), chart(900, 700)];
  const originals = [];
  for (const [at, picture] of pictures.entries())
    originals.push(await client.original(await picture.png().toBuffer(), `${named[at]}.png`));
  const finish = { name: 'Dune light', description: 'Ours', treatment: shippedFinishes[1]?.treatment };
  await client.ask('POST', '/finishes', finish);
  await client.ask('POST', '/place-sets', { name: 'Every week', placeIds: places });
  const project = await client.project('Festival week', originals, places);
  deliveries = [await client.deliver(project.id)];
  expect(deliveries[0]).toMatchObject({ state: 'done', leftOut: [] });
}, 120_000);
afterAll(() => running.stop());

test('made while people work, it is of one moment; its cluster is destroyed, and on a fresh one all is as it was', async () => {
  const [old, fresh] = await Promise.all([1, 2].map(() => ownCluster(inject('databaseUrl'))));
  if (!old || !fresh) throw new Error('There are two.');
  const path = join(folder, 'whole.tar');
  await makeBackup(settings.DATABASE_URL, inFile(path), { passphrase: null });
  await restoreBackup(old.url, path, { passphrase: null });
  // A backup of what was restored has the same rows, table by table, but for a number that counts changes.
  const twice = join(folder, 'twice.tar');
  await makeBackup(old.url, inFile(twice), { passphrase: null });
  const [once, again] = [(await checkBackup(path, null)).end, (await checkBackup(twice, null)).end];
  const rowsOf = ({ tables }: typeof once) => tables.filter(({ name }) => name !== 'library_versions');
  expect(rowsOf(again)).toEqual(rowsOf(once));
  expect(again.blobs).toEqual(once.blobs);
  const busy = await start({ ...(await testSettings()), DATABASE_URL: old.url });
  const client = new Client(busy.address);
  const before = await standing(client, deliveries, named);
  expect(before).toEqual(await standing(new Client(running.address), deliveries, named));
  // Five people add pictures, projects and deliveries, and delete some of it again.
  let isWorking = true;
  const work = Array.from({ length: 5 }, async (_, person) => {
    for (let turn = 0; isWorking; turn += 1) {
      const picture = await noise(60 + person, 50 + turn)
        .png()
        .toBuffer();
      const original = await client.original(picture, `busy ${person}-${turn}.png`);
      const project = await client.project(`Busy ${person}-${turn}`, [original], ['sunpane/story']);
      await client.askDelivery(project.id);
      if (turn % 2 === 0) await client.ask('DELETE', `/originals/${original.id}`);
    }
  });
  const underLoad = join(folder, 'under load.tar');
  const opened = await openDatabase(old.url);
  await backUp({ url: old.url, whole: opened.whole, passphrase }, { file: underLoad });
  isWorking = false;
  await Promise.all(work);
  await opened.close();
  await busy.stop();
  await old.destroy();

  await restoreBackup(fresh.url, underLoad, { passphrase });
  const later = await start({ ...(await testSettings()), DATABASE_URL: fresh.url });
  const restored = new Client(later.address);
  expect(await standing(restored, deliveries, named)).toEqual(before);
  // Of what came meanwhile everything fits together: no frame without its picture, no picture without its bytes.
  for (const { id, sha256 } of OriginalSchema.array().parse((await restored.ask('GET', '/originals')).body)) {
    const bytes = await restored.bytes(`/originals/${id}/file`);
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(sha256);
  }
  // Work goes on where it was, and numbers go on behind those that are there.
  expect(await restored.deliver(deliveries[0]?.projectId ?? '')).toMatchObject({ state: 'done', leftOut: [] });
  await later.stop();
  await fresh.destroy();
}, 300_000);

describe('broken off', () => {
  test('while it is made, it goes on with what it has; killed while it is restored, nothing is there', async () => {
    const env = { DATABASE_URL: settings.DATABASE_URL, INKWELL_DATA: settings.INKWELL_DATA };
    const secret = { ...env, INKWELL_BACKUP_PASSPHRASE: passphrase };
    const path = join(folder, 'killed.tar');
    const first = command(['backup', 'killed.tar'], secret);
    const sizeOf = () => (existsSync(`${path}.unfinished`) ? statSync(`${path}.unfinished`).size : 0);
    await until(
      async () => sizeOf(),
      (size) => size > 1_500_000 || first.child.exitCode !== null,
      60,
      5,
    );
    first.child.kill('SIGKILL');
    await first.end();
    expect(existsSync(path)).toBe(false);
    const had = sizeOf();
    // Cut in the middle of an entry, as a machine that loses its power leaves it.
    await writeFile(`${path}.unfinished`, (await readFile(`${path}.unfinished`)).subarray(0, had - 700));
    const piece = (await readFile(`${path}.unfinished`)).subarray(0, 1_000_000);
    const again = await command(['backup', 'killed.tar'], secret).end();
    expect(again).toMatchObject({ code: 0, said: expect.stringMatching(/killed\.tar: \d+ files, .* encrypted\./) });
    expect((await readFile(path)).subarray(0, 1_000_000).equals(piece)).toBe(true);
    expect(existsSync(`${path}.unfinished`)).toBe(false);
    // What was begun with another passphrase is begun anew.
    const anew = join(folder, 'anew.tar');
    await writeFile(`${anew}.unfinished`, piece);
    await makeBackup(settings.DATABASE_URL, inFile(anew), { passphrase: 'seven kites and a rope' });
    await checkBackup(anew, 'seven kites and a rope');
    // Without a database, and with the passphrase alone.
    const bare = { INKWELL_BACKUP_PASSPHRASE: passphrase, DATABASE_URL: undefined };
    expect(await command(['backup', '--check', 'killed.tar'], bare).end()).toMatchObject({
      code: 0,
      said: expect.stringContaining('killed.tar is whole'),
    });

    const url = await bareDatabase();
    const data = await mkdtemp(join(inject('dataFolder'), 'data-'));
    const into = { DATABASE_URL: url, INKWELL_DATA: data, INKWELL_BACKUP_PASSPHRASE: passphrase };
    const restoring = command(['restore', 'killed.tar'], into);
    const name = new URL(url).pathname.slice(1);
    const atWork = `select from pg_stat_activity where datname = '${name}' and backend_xid is not null and query ~* '^insert into "blob'`;
    const isAtRows = () => runSql(inject('databaseUrl'), atWork);
    await until(isAtRows, (rows) => rows.length > 0 || restoring.child.exitCode !== null, 60, 5);
    restoring.child.kill('SIGKILL');
    await restoring.end();
    expect(await runSql(url, 'select from originals union all select from projects')).toEqual([]);
    expect(await command(['restore', 'killed.tar'], into).end()).toMatchObject({ code: 0 });
    const restored = await startServer({ ...(await testSettings()), DATABASE_URL: url });
    const expected = await standing(new Client(running.address), deliveries, named);
    expect(await standing(new Client(restored.address), deliveries, named)).toEqual(expected);
    // What is not empty is not restored into, running or not.
    const refused = restoreBackup(url, path, { passphrase });
    await expect(refused).rejects.toThrow('Stop it before');
    await restored.stop();
    await expect(restoreBackup(url, path, { passphrase })).rejects.toThrow('not empty');
  }, 180_000);
});

/** Where the middle of an entry lies: of the first, of the last, and of some between. */
function middles(archive: Buffer): number[] {
  const all: number[] = [];
  for (let at = 0; archive[at]; ) {
    const size = Number.parseInt(archive.toString('latin1', at + 124, at + 135), 8);
    all.push(at + 512 + Math.floor(size / 2));
    at += 512 + Math.ceil(size / 512) * 512;
  }
  return all.filter((_, index) => index % 5 === 0 || index === all.length - 1);
}

test('what is damaged, cut off, no backup or closed by another passphrase is refused in words, and restores nothing', async () => {
  const path = join(folder, 'whole.tar');
  const bytes = await readFile(path);
  const odd = join(folder, 'odd.tar');
  const url = await bareDatabase();
  const refusal = async (data: Buffer | string) => {
    await writeFile(odd, data);
    const said = await checkBackup(odd, null).then(
      () => 'taken',
      (error: Error) => error.message,
    );
    // Whatever is refused when it is looked at is refused when it is restored.
    await expect(restoreBackup(url, odd, { passphrase: null })).rejects.toThrow();
    return said;
  };
  for (const at of middles(bytes)) {
    const flipped = Buffer.from(bytes);
    flipped[at] = (flipped[at] ?? 0) ^ 0x40;
    expect(await refusal(flipped)).toMatch(/is damaged|no backup/);
  }
  for (const length of [0, 100, 512, Math.floor(bytes.length / 3), bytes.length - 3000])
    expect(await refusal(bytes.subarray(0, length))).toMatch(/ends in the middle|damaged|no backup/);
  expect(await refusal('a letter')).toMatch(/damaged|no backup/);
  const { rows } = await openDatabase(url).then(async (opened) => {
    const found = await opened.whole.execute(sql`select from originals union all select from blobs`);
    await opened.close();
    return found;
  });
  expect(rows).toEqual([]);
  await expect(checkBackup(join(folder, 'killed.tar'), 'another passphrase')).rejects.toThrow('not the one of this');
  await expect(checkBackup(join(folder, 'killed.tar'), null)).rejects.toThrow('is encrypted');
  await rm(odd);
}, 120_000);

test('a backup of an older version is restored, and opened by this one', async () => {
  const [url, other] = [await bareDatabase(), await bareDatabase()];
  const dump = gunzipSync(await readFile(join(fixtureFolder, 'schema-0037.sql.gz'))).toString();
  await runSql(url, dump);
  const path = join(folder, 'older.tar');
  await makeBackup(url, inFile(path), { passphrase: null });
  await restoreBackup(other, path, { passphrase: null });
  const opened = await openDatabase(other);
  const { rows } = await opened.whole.execute<{ name: string; workspace: string }>(
    sql`select projects.name, workspaces.name as workspace from projects join workspaces on workspaces.id = workspace_id`,
  );
  expect(rows).toEqual([{ name: 'Festival week', workspace: 'Studio' }]);
  await opened.close();
});

test('a worker makes them by itself, keeps as many as were said, and people are warned where the last good one is old', async () => {
  const url = await bareDatabase();
  const to = join(folder, 'kept');
  const own = { ...(await testSettings()), DATABASE_URL: url };
  const server = await startServer(own);
  const client = new Client(server.address, { 'Sec-Fetch-Site': 'same-origin' });
  const known = async () => BackupsSchema.parse((await client.ask('GET', '/backups')).body);
  expect(await known()).toMatchObject({ plan: null, isLate: false, backups: [] });
  expect(await client.ask('POST', '/backups')).toMatchObject({ status: 409 });
  const planned = {
    INKWELL_BACKUP: to,
    INKWELL_BACKUP_KEEP: '2',
    INKWELL_BACKUP_HOURS: '24',
    INKWELL_BACKUP_WARN: '30',
  };
  const worker = await startWorker(own, readWorkerSettings({}), readBackupSettings(planned));
  const done = (count: number) =>
    until(known, ({ backups }) => backups.filter(({ state }) => state === 'done').length === count);
  expect(await done(1)).toMatchObject({ plan: { folder: to, keep: 2, everyHours: 24, warnHours: 30 }, isLate: false });
  for (const count of [2, 3]) {
    // Names say the second.
    await until(
      async () => Date.now() / 1000,
      () => true,
    );
    expect((await client.ask('POST', '/backups')).status).toBe(202);
    await done(count);
  }
  expect(readdirSync(to)).toHaveLength(2);
  await runSql(url, `update backups set taken_at = now() - interval '31 hours'`);
  expect(await known()).toMatchObject({ isLate: true });
  await worker.stop();
  // One that cannot be made says why, and what was there stays.
  await writeFile(join(folder, 'no folder'), '');
  const opened = await openDatabase(url);
  const target = await targetOf(join(folder, 'no folder', 'in it', 'x.tar'), null);
  await expect(backUp({ url, whole: opened.whole, passphrase: null }, target)).rejects.toThrow();
  expect((await known()).backups[0]).toMatchObject({ state: 'failed', failure: expect.stringContaining('ENOTDIR') });
  await opened.close();
  await server.stop();
}, 120_000);

test('the database of a program that was never started has nothing to back up', async () => {
  const url = databaseAt(await bareDatabase(), 'postgres');
  await expect(makeBackup(url, inFile(join(folder, 'none.tar')), { passphrase: null })).rejects.toThrow(
    'nothing in this database',
  );
});
