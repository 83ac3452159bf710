import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import type pg from 'pg';
import { openPool } from '../database/postgres.ts';
import * as schema from './schema/index.ts';

export type Database = NodePgDatabase<typeof schema>;
/** What queries run on: the database or a transaction of it. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface OpenDatabase {
  db: Database;
  pool: pg.Pool;
  close: () => Promise<void>;
}

/** Connects and brings the schema up to date. @param onLost hears of connections that break while nobody uses them */
export async function openDatabase(
  url: string,
  onLost: (error: Error) => void = () => undefined,
): Promise<OpenDatabase> {
  const migrationsFolder = fileURLToPath(new URL('./migrations', import.meta.url));
  const pool = await openPool(url, 10, { migrationsFolder }, onLost);
  return { db: drizzle(pool, { schema }), pool, close: () => pool.end() };
}
