import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as schema from './schema.ts';

export type Database = NodePgDatabase<typeof schema>;
/** What queries run on: the database or a transaction of it. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>;

/** Held while migrating, so that two processes that start together do not migrate twice. Any fixed number does. */
const migrationLock = 7_220_411;

/** Connects and brings the schema up to date. */
export async function openDatabase(url: string): Promise<{ db: Database; close: () => Promise<void> }> {
  const pool = new pg.Pool({ connectionString: url, max: 10 });
  const db = drizzle(pool, { schema });
  const connection = await pool.connect();
  try {
    await connection.query('select pg_advisory_lock($1)', [migrationLock]);
    await migrate(drizzle(connection), { migrationsFolder: fileURLToPath(new URL('./migrations', import.meta.url)) });
    await connection.query('select pg_advisory_unlock($1)', [migrationLock]);
  } finally {
    connection.release();
  }
  return { db, close: () => pool.end() };
}
