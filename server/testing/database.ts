import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import type {} from 'vitest';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  interface ProvidedContext {
    /** Where databases are made, and what their names begin with. */
    databaseUrl: string;
    dataFolder: string;
  }
}

const admin = async <Result>(url: string, use: (client: pg.Client) => Promise<Result>): Promise<Result> => {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await use(client);
  } finally {
    await client.end();
  }
};

/** Databases of the tests, one for each file that asks, and a folder for all; removed when the run is over. */
export default async function setup(project: TestProject) {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('Integration tests need PostgreSQL: run ./inkwell check, or set DATABASE_URL.');
  const run = `inkwell_test_${randomBytes(4).toString('hex')}`;
  const named = new URL(url);
  named.searchParams.set('application_name', run);
  const dataFolder = mkdtempSync(join(tmpdir(), 'inkwell-test-'));
  project.provide('databaseUrl', named.href);
  project.provide('dataFolder', dataFolder);
  return async () => {
    await admin(url, async (client) => {
      const { rows } = await client.query<{ datname: string }>(
        'select datname from pg_database where datname like $1',
        [`${run}%`],
      );
      for (const { datname } of rows) await client.query(`drop database ${datname} with (force)`);
    });
    rmSync(dataFolder, { recursive: true, force: true });
  };
}

/** Makes a database that no other test has: test files run side by side. Returns its address. */
export async function ownDatabase(url: string): Promise<string> {
  const own = new URL(url);
  const name = `${own.searchParams.get('application_name')}_${randomBytes(4).toString('hex')}`;
  await admin(url, (client) => client.query(`create database ${name}`));
  own.pathname = `/${name}`;
  return own.href;
}
