import { setTimeout } from 'node:timers/promises';
import pg from 'pg';
import { type Around, bringUpToDate, type Migrations } from './migrating.ts';
import { isStarting } from './postgresFailures.ts';

/** How long a request waits for a connection before it is told that the database does not answer. */
const connectionTimeoutMs = 5000;

/** A database that is starting, or recovering from a crash, is waited for this long. */
const startingMs = 60_000;

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

/**
 * Statements here take milliseconds. To compile one takes PostgreSQL a tenth of a second, and it does so whenever a statement could, by its estimate, meet many
 * rows.
 */
const options = '-c jit=off';

/** Connections to a database. @param most that are held at a time @param onLost hears of those that break while nobody uses them */
export function poolOf(url: string, most: number, onLost: (error: Error) => void): pg.Pool {
  const pool = new pg.Pool({ connectionString: url, max: most, connectionTimeoutMillis: connectionTimeoutMs, options });
  // Without a listener a broken connection would end the program, also where it is lent and breaks between two queries of a transaction. The
  // next query opens another.
  pool.on('connect', (client) => client.on('error', onLost));
  // What breaks while it is idle has been heard of just so.
  pool.on('error', () => undefined);
  return pool;
}

/**
 * Connects and brings a schema up to date, which its migrations describe.
 *
 * @param most connections that are held at a time
 * @param onLost hears of connections that break while nobody uses them
 * @throws UnfitDatabase
 */
export async function openPool(
  url: string,
  most: number,
  migrations: Migrations,
  onLost: (error: Error) => void,
  around: Around = {},
): Promise<pg.Pool> {
  const pool = poolOf(url, most, onLost);
  let connection: pg.PoolClient | null = null;
  try {
    connection = await connected(pool);
    await bringUpToDate(connection, migrations, around);
  } catch (error) {
    connection?.release(true);
    await pool.end();
    throw error;
  }
  connection.release();
  return pool;
}
