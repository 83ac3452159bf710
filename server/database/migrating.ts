import { sql } from 'drizzle-orm';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import type pg from 'pg';

/** Held while migrating, so that two processes that start together do not migrate twice. Any fixed number does. */
export const migrationLock = 7_220_411;

type Connection = pg.Client | pg.PoolClient;

export type Migrations = Exclude<Parameters<typeof migrate>[1], string>;

/** What is done before and after, while no other process does it. */
export interface Around {
  before?: (connection: pg.ClientBase) => Promise<void>;
  after?: (connection: pg.ClientBase) => Promise<void>;
}

/** A database that this version of the program cannot work on. The message is a plain sentence: what is wrong, and what to do. */
export class UnfitDatabase extends Error {}

/**
 * Brings a schema up to date, all of it or nothing.
 *
 * @throws UnfitDatabase where a newer version of the program has brought it further, or it cannot be done: then it is as it was
 */
export async function bringUpToDate(
  connection: Connection,
  migrations: Migrations,
  { before, after }: Around = {},
): Promise<void> {
  await connection.query('select pg_advisory_lock($1)', [migrationLock]);
  try {
    await refuseNewer(connection, migrations);
    await before?.(connection);
    await migrate(drizzle(connection), migrations).catch((error: unknown) => {
      const { cause } = error instanceof Error ? error : {};
      const said = cause instanceof Error ? cause.message : String(error);
      const words = `The database could not be brought up to date, and is as it was: ${said.replace(/\.?$/, '.')} Start the version of the program from before, and tell its makers.`;
      throw Object.assign(new UnfitDatabase(words), { cause: error });
    });
    await after?.(connection);
  } finally {
    await connection.query('select pg_advisory_unlock($1)', [migrationLock]);
  }
}

/** An older program would read what a newer one has written as if it were its own. */
async function refuseNewer(connection: Connection, migrations: Migrations): Promise<void> {
  const { migrationsTable = '__drizzle_migrations', migrationsSchema = 'drizzle' } = migrations;
  const db = drizzle(connection);
  const known = Math.max(...readMigrationFiles(migrations).map(({ folderMillis }) => folderMillis));
  const { rows: tables } = await db.execute<{ is: boolean }>(
    sql`select to_regclass(${`"${migrationsSchema}"."${migrationsTable}"`}) is not null as is`,
  );
  if (!tables[0]?.is) return;
  const { rows } = await db.execute<{ last: string | null }>(
    sql`select max(created_at)::text as last from ${sql.identifier(migrationsSchema)}.${sql.identifier(migrationsTable)}`,
  );
  if (Number(rows[0]?.last ?? 0) > known) {
    throw new UnfitDatabase(
      'A newer version of the program has worked on this database. This one would damage what it does not know. Start the newer version, or restore a backup from before.',
    );
  }
}
