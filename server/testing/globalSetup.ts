import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type {} from 'vitest';
import type { TestProject } from 'vitest/node';
import { bundle } from '../bundling/bundle.ts';
import { openDatabase } from '../store/database.ts';
import { databaseAt, databaseServer, dropDatabase, ownDatabase, runSql } from './databases.ts';

declare module 'vitest' {
  interface ProvidedContext {
    /** Where databases are made. */
    databaseUrl: string;
    /** The name of a database that is up to date and empty, of which others are copies. */
    emptyDatabase: string;
    /** What the names of the databases of this run begin with. */
    databasePrefix: string;
    dataFolder: string;
  }
}

/** Databases of the tests, one for each file that asks, and a folder for all; removed when the run is over. */
export default async function setup(project: TestProject) {
  await bundle();
  const url = databaseServer();
  const prefix = `inkwell_test_${randomBytes(4).toString('hex')}`;
  const dataFolder = mkdtempSync(join(tmpdir(), 'inkwell-test-'));
  const empty = await ownDatabase(url, prefix);
  const { close } = await openDatabase(empty);
  await close();
  project.provide('databaseUrl', url);
  project.provide('emptyDatabase', new URL(empty).pathname.slice(1));
  project.provide('databasePrefix', prefix);
  project.provide('dataFolder', dataFolder);
  return async () => {
    const made = await runSql(url, `select datname as name from pg_database where datname like '${prefix}%'`);
    for (const { name } of made) await dropDatabase(databaseAt(url, String(name)));
    rmSync(dataFolder, { recursive: true, force: true });
  };
}
