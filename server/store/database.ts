import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import type pg from 'pg';
import { openPool, poolOf } from '../database/postgres.ts';
import { ensureFencedRole, raiseFence } from './fence.ts';
import * as schema from './schema/index.ts';
import { WorkspacePool } from './workspacePool.ts';

export type Database = NodePgDatabase<typeof schema>;
/** What queries run on: the database or a transaction of it. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface OpenDatabase {
  /** All rows of all workspaces: for the door, and to find what there is to do. Rows that belong to a workspace cannot be added here. */
  whole: Database;
  /** Behind `whole`. */
  pool: pg.Pool;
  /** The rows of one workspace, and what all workspaces share. @param personId for whom; null where nobody is known to ask */
  fenced(workspaceId: string, personId?: string | null): Database;
  close: () => Promise<void>;
}

/** Connections that are held at a time, at most: those that see everything are asked for little. */
const most = { whole: 5, fenced: 10 };

/** Connects and brings the schema up to date. @param onLost hears of connections that break while nobody uses them */
export async function openDatabase(
  url: string,
  onLost: (error: Error) => void = () => undefined,
): Promise<OpenDatabase> {
  const migrationsFolder = fileURLToPath(new URL('./migrations', import.meta.url));
  const around = { before: ensureFencedRole, after: raiseFence };
  const pool = await openPool(url, most.whole, { migrationsFolder }, onLost, around);
  const shared = poolOf(url, most.fenced, onLost);
  return {
    whole: drizzle(pool, { schema }),
    pool,
    fenced: (workspaceId, personId = null) => drizzle(new WorkspacePool(shared, workspaceId, personId), { schema }),
    close: async () => {
      await Promise.all([pool.end(), shared.end()]);
    },
  };
}
