import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import type {} from 'vitest';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
    dataFolder: string;
  }
}

/** A database and a folder of their own for one run of the integration tests, both removed afterwards. */
export default async function setup(project: TestProject) {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('Integration tests need PostgreSQL: run ./inkwell check, or set DATABASE_URL.');
  const name = `inkwell_test_${randomBytes(4).toString('hex')}`;
  const admin = new pg.Client({ connectionString: url });
  await admin.connect();
  await admin.query(`create database ${name}`);
  const own = new URL(url);
  own.pathname = `/${name}`;
  const dataFolder = mkdtempSync(join(tmpdir(), 'inkwell-test-'));
  project.provide('databaseUrl', own.href);
  project.provide('dataFolder', dataFolder);
  return async () => {
    await admin.query(`drop database ${name} with (force)`);
    await admin.end();
    rmSync(dataFolder, { recursive: true, force: true });
  };
}
