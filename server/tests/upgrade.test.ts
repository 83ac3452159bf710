import { createHash } from 'node:crypto';
import { cpSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { DeliverySchema, OriginalSchema, PlaceSetSchema, SpecSheetSchema } from '@inkwell/core/model';
import { expect, inject, test } from 'vitest';
import { z } from 'zod';
import { runCommand } from '../commandLine/commands/index.ts';
import { UnfitDatabase } from '../database/migrating.ts';
import { openPool } from '../database/postgres.ts';
import { start } from '../start.ts';
import { runSql } from '../testing/databases.ts';
import { fixtureFolder, fixturePassword } from '../testing/fixtures/fixtures.ts';
import { Browser } from '../testing/programs/browser.ts';
import { Client } from '../testing/programs/client.ts';
import { bareDatabase, testSettings } from '../testing/programs/program.ts';
import { unzip } from '../testing/unzip.ts';

const sha256 = (data: Buffer) => createHash('sha256').update(data).digest('hex');
const migrations = join(import.meta.dirname, '..', 'store', 'migrations');

test.each(readdirSync(fixtureFolder))(
  'a database of %s opens in this version with everything there',
  async (name) => {
    const settings = { ...(await testSettings()), DATABASE_URL: await bareDatabase() };
    await runSql(settings.DATABASE_URL, gunzipSync(readFileSync(join(fixtureFolder, name))).toString());
    const alone = await start(settings);
    try {
      const client = new Client(alone.address, { 'Sec-Fetch-Site': 'same-origin' });
      const read = async <Schema extends z.ZodType>(schema: Schema, path: string) =>
        schema.parse((await client.ask('GET', path)).body);
      const originals = await read(z.array(OriginalSchema), '/originals');
      expect(originals.map((one) => one.name).sort()).toEqual(['dunes', 'kites']);
      for (const original of originals) {
        expect(sha256(await client.bytes(`/originals/${original.id}/file`))).toBe(original.sha256);
      }
      const [{ id = '' } = {}] = await client.projects();
      const project = await client.open(id);
      expect(project).toMatchObject({ name: 'Festival week' });
      expect(project.frames).toHaveLength(4);
      const [delivery] = await read(z.array(DeliverySchema), `/deliveries?project=${id}`);
      expect(delivery).toMatchObject({ state: 'done', leftOut: [] });
      const files = await unzip(await client.bytes(`/deliveries/${delivery?.id}/archive`));
      const manifest = z
        .object({ files: z.array(z.object({ file: z.string(), sha256: z.string() })) })
        .parse(JSON.parse(files.get('manifest.json')?.toString() ?? ''));
      expect(manifest.files).toHaveLength(4);
      for (const { file, sha256: said } of manifest.files)
        expect(sha256(files.get(file) ?? Buffer.alloc(0))).toBe(said);
      const book = await read(z.array(SpecSheetSchema), '/spec-book');
      expect(book.map((sheet) => sheet.name)).toContain('Marram Board');
      expect((await read(z.array(PlaceSetSchema), '/place-sets')).map((set) => set.name)).toEqual(['Every week']);
      expect((await client.ask('GET', '/letter-styles')).body).toMatchObject([{ name: 'Ours' }]);
      expect((await client.ask('GET', '/tokens')).body).toMatchObject([{ name: 'Night script' }]);
      // The work goes on where it was.
      expect(await client.deliver(id)).toMatchObject({ state: 'done', leftOut: [] });
    } finally {
      await alone.stop();
    }
    const studio = await start({ ...settings, INKWELL_ACCOUNTS: 'on' });
    try {
      expect(studio.firstLink).toBeNull();
      const runa = new Browser(studio.address);
      await runa.signIn('runa@saltmarsh.example', fixturePassword);
      expect(await runa.door()).toMatchObject({
        person: { name: 'Runa Holm' },
        workspaces: [{ name: 'Studio', role: 'owner' }],
      });
      expect((await runa.ask('GET', '/projects')).body).toMatchObject([{ name: 'Festival week' }]);
    } finally {
      await studio.stop();
    }
  },
  300_000,
);

test('an older program refuses a newer database in words, on the command line as well', async () => {
  const settings = { ...(await testSettings()), DATABASE_URL: await bareDatabase() };
  const running = await start(settings);
  await running.stop();
  await runSql(
    settings.DATABASE_URL,
    `insert into drizzle.__drizzle_migrations (hash, created_at) values ('newer', 9e15)`,
  );
  await expect(start(settings)).rejects.toThrow('A newer version of the program has worked on this database');
  const complaints: unknown[] = [];
  const code = await runCommand(['account', 'list'], {
    caller: settings.INKWELL_DATA,
    environment: { ...process.env, ...settings, PORT: String(settings.PORT) },
    say: (line) => complaints.push(line),
  });
  expect([code, complaints]).toEqual([2, []]);
});

test('a migration that fails leaves what was, and is done by the next start that can', async () => {
  const DATABASE_URL = await bareDatabase();
  const open = (migrationsFolder: string) => openPool(DATABASE_URL, 2, { migrationsFolder }, () => undefined);
  await (await open(migrations)).end();
  const broken = mkdtempSync(join(inject('dataFolder'), 'migrations-'));
  cpSync(migrations, broken, { recursive: true });
  const journalPath = join(broken, 'meta', '_journal.json');
  const journal = z
    .object({ entries: z.array(z.looseObject({ idx: z.number() })) })
    .loose()
    .parse(JSON.parse(readFileSync(journalPath, 'utf8')));
  const entry = { idx: journal.entries.length, version: '7', when: 8e15, tag: '9999_broken', breakpoints: true };
  writeFileSync(journalPath, JSON.stringify({ ...journal, entries: [...journal.entries, entry] }));
  const write = (last: string) =>
    writeFileSync(
      join(broken, '9999_broken.sql'),
      `drop table webhook_calls;--> statement-breakpoint\ncreate table feathers (id int);--> statement-breakpoint\n${last}`,
    );
  const tables = async () =>
    (await runSql(DATABASE_URL, `select tablename as name from pg_tables where schemaname = 'public' order by 1`)).map(
      (row) => row.name,
    );
  const before = await tables();
  write('select no_such_column from projects;');
  const both = await Promise.allSettled([open(broken), open(broken)]);
  for (const one of both) {
    expect(one).toMatchObject({ status: 'rejected', reason: expect.any(UnfitDatabase) });
    expect(String('reason' in one && one.reason)).toMatch(
      /is as it was: column "no_such_column" does not exist\. Start/,
    );
  }
  expect(await tables()).toEqual(before);
  write('select 1;');
  const opened = await Promise.all([open(broken), open(broken)]);
  await Promise.all(opened.map((pool) => pool.end()));
  expect(await tables()).toEqual([...before.filter((one) => one !== 'webhook_calls'), 'feathers'].sort());
});
