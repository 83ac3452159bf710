import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';

const root = join(import.meta.dirname, '..', '..');
const database = 'inkwell_e2e';

/** The real program with the demo in it, on a database of its own that is made anew. */
export default async function setup() {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('The end-to-end tests need PostgreSQL: run ./inkwell check, or set DATABASE_URL.');
  const data = join(process.env.INKWELL_CHECK ?? join(root, '.inkwell'), 'e2e');
  mkdirSync(data, { recursive: true });

  const admin = new pg.Client({ connectionString: url });
  await admin.connect();
  await admin.query(`drop database if exists ${database} with (force)`);
  await admin.query(`create database ${database}`);
  const own = new URL(url);
  own.pathname = `/${database}`;
  const env = { ...process.env, DATABASE_URL: own.href, INKWELL_DATA: data, PORT: '4650' };

  const seed = spawn(process.execPath, ['--import', 'tsx', 'demo/seed.ts'], { cwd: root, env, stdio: 'inherit' });
  const [code] = await once(seed, 'exit');
  if (code !== 0) throw new Error(`The demo could not be filled in: exit code ${code}.`);
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  process.env.INKWELL_ART = join(data, 'demo-art');
  process.env.INKWELL_ADDRESS = await addressOf(server);

  return async () => {
    const gone = once(server, 'exit');
    server.kill('SIGTERM');
    await gone;
    await admin.query(`drop database ${database} with (force)`);
    await admin.end();
  };
}

function addressOf(server: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    server.stdout?.on('data', (text: Buffer) => {
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(text.toString());
      if (found) resolve(found[0]);
    });
    server.once('exit', (code) => reject(new Error(`The program ended with ${code} before it served anything.`)));
  });
}
