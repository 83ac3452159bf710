import { cp, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Writable } from 'node:stream';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { drizzle } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { z } from 'zod';
import { bringUpToDate, migrationLock, UnfitDatabase } from '../../database/migrating.ts';
import { keepFile } from '../blobs/blobs.ts';
import * as tables from '../schema/index.ts';
import { type CopiedTable, quoted } from './snapshot.ts';

/** Where one of these has a row, somebody has worked on the database. */
const telling = ['originals', 'projects', 'people', 'deliveries', 'sheets', 'finishes', 'letter_styles', 'webhooks'];

const JournalSchema = z.looseObject({ entries: z.array(z.looseObject({ when: z.number() })) });
const migrationsHere = fileURLToPath(new URL('../migrations', import.meta.url));

/** Does something with the migrations up to one of them. @throws UnfitDatabase where this program does not know it */
async function withMigrationsUpTo(schema: number, task: (folder: string) => Promise<void>): Promise<void> {
  const journalPath = join('meta', '_journal.json');
  const journal = JournalSchema.parse(JSON.parse(await readFile(join(migrationsHere, journalPath), 'utf8')));
  if (!journal.entries.some(({ when }) => when === schema)) {
    throw new UnfitDatabase(
      'This backup was made by a version of the program that this one does not know. Restore it with that version, or a newer one.',
    );
  }
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-migrations-'));
  try {
    await cp(migrationsHere, folder, { recursive: true });
    await mkdir(join(folder, 'meta'), { recursive: true });
    const entries = journal.entries.filter(({ when }) => when <= schema);
    await writeFile(join(folder, journalPath), JSON.stringify({ ...journal, entries }));
    await task(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** A database that a backup is being restored into: all of it or nothing. */
export interface Restoring {
  /** Keeps the bytes of a file. @param bytes how many */
  keepBlob(path: string, sha256: string, bytes: number): Promise<void>;
  /** Takes the rows of a table, in the text format of COPY. */
  rowsOf(table: CopiedTable): Writable;
  /** Ends it well: all is there from then on. */
  keep(): Promise<void>;
  /** Ends it in any case; what was not kept is gone. */
  close(): Promise<void>;
}

/**
 * Makes an empty database what it was for a backup, by its schema.
 *
 * @throws UnfitDatabase where the database is not empty, or somebody restores into it
 */
export async function openRestoring(url: string, schema: number): Promise<Restoring> {
  const client = new pg.Client({ connectionString: url, keepAlive: true });
  client.on('error', () => undefined);
  await client.connect();
  try {
    // Whoever starts the program waits until this is over.
    const { rows } = await client.query<{ is: boolean }>('select pg_try_advisory_lock($1) as is', [migrationLock]);
    if (!rows[0]?.is)
      throw new UnfitDatabase('Somebody is restoring into this database already. Wait until that is done.');
    await refuseUsed(client);
    await refuseFull(client);
    await withMigrationsUpTo(schema, async (migrationsFolder) => {
      // An earlier try may have ended in the middle, or a newer program may have been started on the empty database.
      await client.query('drop schema public cascade; create schema public; drop schema if exists drizzle cascade');
      await bringUpToDate(client, { migrationsFolder });
    });
    await client.query('begin');
    // What comes brings its history along.
    await client.query("set local inkwell.restoring = 'on'");
    const { rows: all } = await client.query<{ name: string }>(
      `select relname::text as name from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r'`,
    );
    await client.query(`truncate ${all.map(({ name }) => quoted(name)).join(', ')}`);
  } catch (error) {
    await client.end().catch(() => undefined);
    throw error;
  }
  const db = drizzle(client, { schema: tables });
  return {
    keepBlob: (path, sha256, bytes) => keepFile(db, path, sha256, bytes),
    rowsOf: ({ name, columns }) =>
      client.query(copyFrom(`copy ${quoted(name)} (${columns.map(quoted).join(', ')}) from stdin`)),
    keep: async () => {
      await countOn(client);
      await client.query('commit');
      await client.query('analyze');
    },
    close: () => client.end(),
  };
}

/** The connections of a program that was stopped just now are there for a moment. */
const leavingMs = 3000;

/** @throws UnfitDatabase where a program runs on a database */
async function refuseUsed(client: pg.Client): Promise<void> {
  const end = Date.now() + leavingMs;
  for (;;) {
    const { rows } = await client.query(
      `select from pg_stat_activity
      where datname = current_database() and backend_type = 'client backend' and pid <> pg_backend_pid() limit 1`,
    );
    if (rows.length === 0) return;
    if (Date.now() > end)
      throw new UnfitDatabase('The program runs on this database. Stop it before something is restored.');
    await setTimeout(100);
  }
}

/** @throws UnfitDatabase where somebody has worked on a database */
async function refuseFull(client: pg.Client): Promise<void> {
  for (const name of telling) {
    const { rows } = await client.query<{ is: boolean }>('select to_regclass($1) is not null as is', [
      `public.${name}`,
    ]);
    if (!rows[0]?.is) continue;
    const { rows: some } = await client.query(`select from ${quoted(name)} limit 1`);
    if (some.length > 0) {
      throw new UnfitDatabase(
        'This database is not empty. A backup is restored into an empty one alone: make one, and name it by DATABASE_URL; or start from a fresh folder.',
      );
    }
  }
}

/** Numbers that count rows go on behind those that were restored. */
async function countOn(client: pg.Client): Promise<void> {
  const { rows } = await client.query<{ name: string; column: string }>(
    `select relname::text as name, attname::text as column from pg_attribute join pg_class on pg_class.oid = attrelid
    where relnamespace = 'public'::regnamespace and relkind = 'r' and attidentity <> ''`,
  );
  for (const { name, column } of rows) {
    await client.query(
      `select setval(pg_get_serial_sequence($1, $2), coalesce(max(${quoted(column)}), 0) + 1, false) from ${quoted(name)}`,
      [`public.${quoted(name)}`, column],
    );
  }
}
