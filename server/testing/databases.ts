import { randomBytes } from 'node:crypto';
import pg from 'pg';

/** Where tests and benches find PostgreSQL. */
export function databaseServer(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('This needs PostgreSQL: run ./inkwell check or ./inkwell bench, or set DATABASE_URL.');
  return url;
}

/** Runs statements one after the other. Returns the rows of the last one. */
export async function runSql(url: string, ...statements: string[]): Promise<Record<string, unknown>[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    let rows: Record<string, unknown>[] = [];
    for (const statement of statements) ({ rows } = await client.query(statement));
    return rows;
  } finally {
    await client.end();
  }
}

/** The address of a database on the same server. */
export function databaseAt(url: string, name: string): string {
  const own = new URL(url);
  own.pathname = `/${name}`;
  return own.href;
}

/**
 * Makes a database that nobody else has. Returns its address.
 *
 * @param prefix what its name begins with
 * @param of the name of the one that it is a copy of; nobody may be connected to that
 */
export async function ownDatabase(url: string, prefix: string, of = 'template1'): Promise<string> {
  const name = `${prefix}_${randomBytes(4).toString('hex')}`;
  await runSql(url, `create database ${name} template ${of}`);
  return databaseAt(url, name);
}

export const dropDatabase = async (url: string): Promise<void> => {
  const name = new URL(url).pathname.slice(1);
  await runSql(databaseAt(url, 'postgres'), `drop database if exists ${name} with (force)`);
};
