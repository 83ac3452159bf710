import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { cp, mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { bundle, bundled } from '@inkwell/server/bundling/bundle.ts';
import { databaseAt, databaseServer, dropDatabase, runSql } from '@inkwell/server/testing/databases.ts';
import { startNetworksProcess, startProcesses } from '@inkwell/server/testing/programs/processes.ts';

const root = join(import.meta.dirname, '..', '..');
const home = join(process.env.INKWELL_CHECK ?? join(root, '.inkwell'), 'e2e');
/** The first port that is tried. */
const wantedPort = '4650';
const filledDatabase = 'inkwell_e2e';
const filledFolder = join(home, 'filled');

/** Where the demo's pictures lie as files. */
export const art = join(filledFolder, 'demo-art');

/** Where a program keeps everything. */
const environment = (database: string, folder: string): NodeJS.ProcessEnv => ({
  ...process.env,
  DATABASE_URL: database,
  INKWELL_DATA: folder,
});

/**
 * Fills in the demo once, has its originals looked at and its frames measured, into a database and a folder that every program of the tests begins with a
 * copy of.
 */
export default async function fillIn(): Promise<() => Promise<void>> {
  await bundle();
  const database = databaseAt(databaseServer(), filledDatabase);
  await dropDatabase(database);
  await runSql(databaseServer(), `create database ${filledDatabase}`);
  await mkdir(filledFolder, { recursive: true });
  const env = environment(database, filledFolder);
  const seed = spawn(process.execPath, [bundled('seed')], { env, stdio: 'inherit' });
  const [code] = await once(seed, 'exit');
  if (code !== 0) throw new Error(`The demo could not be filled in: exit code ${code}.`);
  const { client, ...server } = await startProcesses({ ...env, PORT: wantedPort });
  for (const { id } of await client.projects()) {
    // Frames follow from what is seen.
    await client.looked(id);
    await client.measured(id);
  }
  await server.stop();
  return () => dropDatabase(database);
}

export interface Program {
  address: string;
  /** What it runs with: a command of the same program meets it in the database. */
  env: NodeJS.ProcessEnv;
  stop(): Promise<void>;
}

/**
 * The real program with the demo in it, on a database and in a folder of its own.
 *
 * @param name no other running one has
 * @param hasNetworks whether the simulated networks run beside it
 * @param more settings
 */
export async function startProgram(
  name: string,
  hasNetworks = false,
  more: Record<string, string> = {},
): Promise<Program> {
  const database = databaseAt(databaseServer(), `${filledDatabase}_${name}`);
  const folder = join(home, name);
  await dropDatabase(database);
  await runSql(databaseServer(), `create database ${filledDatabase}_${name} template ${filledDatabase}`);
  await rm(folder, { recursive: true, force: true });
  await cp(filledFolder, folder, { recursive: true });
  const env = { ...environment(database, folder), PORT: wantedPort, ...more };
  const server = await startProcesses(env);
  const endNetworks = hasNetworks ? await startNetworksProcess(env) : async () => undefined;
  return {
    address: server.client.address,
    env,
    async stop() {
      await endNetworks();
      await server.stop();
      await dropDatabase(database);
      await rm(folder, { recursive: true, force: true });
    },
  };
}
