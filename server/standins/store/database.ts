import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { openPool } from '../../database/postgres.ts';
import * as schema from './schema.ts';

export type StandInDatabase = NodePgDatabase<typeof schema>;

const connections = 4;

/** Connects to where the simulated networks keep what was posted to them, and brings that up to date. */
export async function openStandInDatabase(
  url: string,
  onLost: (error: Error) => void,
): Promise<{ db: StandInDatabase; close: () => Promise<void> }> {
  const migrationsFolder = fileURLToPath(new URL('./migrations', import.meta.url));
  const migrations = { migrationsFolder, migrationsTable: 'standin_migrations' };
  const pool = await openPool(url, connections, migrations, onLost);
  return { db: drizzle(pool, { schema }), close: () => pool.end() };
}
