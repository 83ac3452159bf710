import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { isStarting } from './failures.ts';
import * as schema from './schema.ts';

export type Database = NodePgDatabase<typeof schema>;
/** What queries run on: the database or a transaction of it. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>;

/** Held while migrating, so that two processes that start together do not migrate twice. Any fixed number does. */
const migrationLock = 7_220_411;

/** How long a request waits for a connection before it is told that the database does not answer. */
const connectionTimeoutMs = 5000;

/** A database that is starting, or recovering from a crash, is waited for this long. */
const startingMs = 60_000;

export interface OpenDatabase {
  db: Database;
  pool: pg.Pool;
  close: () => Promise<void>;
}

/** A first connection. @throws where there is no database, or where it does not get ready */
async function connected(pool: pg.Pool): Promise<pg.PoolClient> {
  const end = Date.now() + startingMs;
  for (;;) {
    try {
      return await pool.connect();
    } catch (error) {
      if (!isStarting(error) || Date.now() > end) throw error;
      await setTimeout(500);
    }
  }
}

/** Connects and brings the schema up to date. @param onLost hears of connections that break while nobody uses them */
export async function openDatabase(
  url: string,
  onLost: (error: Error) => void = () => undefined,
): Promise<OpenDatabase> {
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: connectionTimeoutMs });
  // Without a listener a broken connection would end the program. The next query opens another.
  pool.on('error', onLost);
  const db = drizzle(pool, { schema });
  const connection = await connected(pool);
  connection.on('error', onLost);
  try {
    await connection.query('select pg_advisory_lock($1)', [migrationLock]);
    await migrate(drizzle(connection), { migrationsFolder: fileURLToPath(new URL('./migrations', import.meta.url)) });
    await connection.query('select pg_advisory_unlock($1)', [migrationLock]);
  } finally {
    connection.off('error', onLost);
    connection.release();
  }
  return { db, pool, close: () => pool.end() };
}
