import type { Readable } from 'node:stream';
import { asc } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import { UnfitDatabase } from '../../database/migrating.ts';
import { readBlob } from '../blobs/blobs.ts';
import { isUsed } from '../library/clearing.ts';
import * as schema from '../schema/index.ts';
import { backupLock } from './backupLock.ts';

/**
 * Tables that no backup has: those of bytes, which come by themselves; what is made again when it is needed; what there is to do, which
 * follows from the rest; who is signed in; and which backups there are.
 */
const leftOut = [
  'blobs',
  'blob_chunks',
  'unneeded_objects',
  'encodings',
  'work',
  'turns',
  'sessions',
  'throttles',
  'backups',
  'backup_plans',
];

/** A table as it is copied: in the text format of COPY. */
export interface CopiedTable {
  name: string;
  columns: string[];
}

/** All tables that a backup has, each after those that it refers to. */
const tablesInOrder = `
  with recursive kept as (
    select oid, relname::text as name from pg_class
    where relnamespace = 'public'::regnamespace and relkind = 'r' and relname <> all ($1)
  ), depth (oid, at) as (
    select oid, 0 from kept
    union
    select conrelid, at + 1 from depth join pg_constraint on confrelid = depth.oid and contype = 'f' and conrelid <> confrelid
    where at < 20
  )
  select kept.name, array(
    select attname::text from pg_attribute
    where attrelid = kept.oid and attnum > 0 and not attisdropped and attgenerated = '' order by attnum) as columns
  from kept order by (select max(at) from depth where depth.oid = kept.oid), kept.name`;

/** The database at one moment, as long as it is open: whatever is changed meanwhile. */
export interface Snapshot {
  takenAt: Date;
  /** By which migration the schema is as it is. */
  schema: number;
  tables: CopiedTable[];
  /** What has bytes that are needed, in the order of their hashes. */
  blobs: { sha256: string; bytes: number }[];
  copy(table: CopiedTable): Readable;
  blob(sha256: string): Readable;
  close(): Promise<void>;
}

/** @param to where the backup is being made: one at a time @throws UnfitDatabase where there is nothing to look at, or it is made already */
export async function openSnapshot(url: string, to: string): Promise<Snapshot> {
  const client = new pg.Client({ connectionString: url, keepAlive: true });
  // A connection that breaks is told of by whatever is asked over it next.
  client.on('error', () => undefined);
  await client.connect();
  try {
    const { rows: alone } = await client.query<{ is: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 0)) as is',
      [`backup ${to}`],
    );
    if (!alone[0]?.is) throw new UnfitDatabase('This backup is being made already. Wait until that is done.');
    await client.query('select pg_advisory_lock_shared($1)', [backupLock]);
    await client.query('begin transaction isolation level repeatable read read only');
    const db = drizzle(client, { schema });
    const { rows: there } = await client.query<{ is: boolean }>(
      `select to_regclass('drizzle.__drizzle_migrations') is not null and to_regclass('public.blobs') is not null as is`,
    );
    if (!there[0]?.is) throw new UnfitDatabase('There is nothing in this database yet that a backup could be made of.');
    const { rows: state } = await client.query<{ schema: string; at: Date }>(
      'select max(created_at)::text as schema, transaction_timestamp() as at from drizzle.__drizzle_migrations',
    );
    const { rows: tables } = await client.query<CopiedTable>(tablesInOrder, [leftOut]);
    const needed = await db
      .select({ sha256: schema.blobs.sha256, bytes: schema.blobs.bytes })
      .from(schema.blobs)
      .where(isUsed)
      .orderBy(asc(schema.blobs.sha256));
    return {
      takenAt: state[0]?.at ?? new Date(),
      schema: Number(state[0]?.schema),
      tables,
      blobs: needed,
      copy: ({ name, columns }) =>
        client.query(copyTo(`copy ${quoted(name)} (${columns.map(quoted).join(', ')}) to stdout`)),
      blob: (sha256) => readBlob(db, sha256),
      close: () => client.end(),
    };
  } catch (error) {
    await client.end().catch(() => undefined);
    throw error;
  }
}

export const quoted = (name: string): string => pg.escapeIdentifier(name);
