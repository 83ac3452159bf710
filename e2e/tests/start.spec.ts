import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';

const root = join(import.meta.dirname, '..', '..');
const home = join(process.env.INKWELL_CHECK ?? join(root, '.inkwell'), 'start');
const wantedPort = 4670;

interface Started {
  launcher: ChildProcess;
  address: string;
  said: string;
}

/** `./inkwell serve` with a folder and a database cluster of its own, in a process group of its own like at a terminal. */
async function serve(): Promise<Started> {
  const { DATABASE_URL: _, ...env } = process.env;
  const launcher = spawn(join(root, 'inkwell'), ['serve'], {
    env: { ...env, INKWELL_DATA: home, PORT: String(wantedPort) },
    detached: true,
  });
  let said = '';
  const address = await new Promise<string>((resolve, reject) => {
    launcher.stdout.on('data', (text: Buffer) => {
      said += text.toString();
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(said);
      if (found) resolve(found[0]);
    });
    launcher.stderr.on('data', (text: Buffer) => {
      said += text.toString();
    });
    launcher.once('exit', () => reject(new Error(said)));
  });
  return { launcher, address, said };
}

const projects = async (address: string) =>
  (await (await fetch(`${address}/api/v1/projects`)).json()) as { name: string }[];
const isRunning = (pid: number) =>
  existsSync(`/proc/${pid}`) && !readFileSync(`/proc/${pid}/status`, 'utf8').includes('State:\tZ');
/** Of the cluster that serves this folder, wherever it lies: root keeps it elsewhere where the folder is closed to others. */
const postgresPid = () => {
  const cluster = readFileSync(join(home, 'cluster'), 'utf8').trim();
  return Number(readFileSync(join(cluster, 'data', 'postmaster.pid'), 'utf8').split('\n')[0]);
};

const built = join(root, 'web', 'dist');
/** What the page of the interface asks for first, and is not there. */
function missingFiles(): string[] {
  const page = readFileSync(join(built, 'index.html'), 'utf8');
  return [...page.matchAll(/assets\/[\w.-]+/g)].map(([file]) => file).filter((file) => !existsSync(join(built, file)));
}

test('the start command takes the next free port, keeps the data, survives SIGKILL and stops all that it started', async () => {
  rmSync(home, { recursive: true, force: true });
  mkdirSync(home, { recursive: true });
  const occupant = createServer().listen(wantedPort, '127.0.0.1');
  await once(occupant, 'listening');

  // The interface has changed, as far as this start knows. What is built anew is whole for every server that runs already.
  rmSync(join(built, '.built'), { force: true });
  const seen = new Set<string>();
  const watching = setInterval(() => {
    for (const file of missingFiles()) seen.add(file);
  }, 5);
  const first = await serve();
  clearInterval(watching);
  expect(first.said).toContain('Building the interface');
  expect([...seen]).toEqual([]);
  expect(existsSync(join(built, '.built'))).toBe(true);
  expect(first.said).toContain(`Port ${wantedPort} is taken; trying ${wantedPort + 1}.`);
  expect(first.address).toBe(`http://127.0.0.1:${wantedPort + 1}`);
  await fetch(`${first.address}/api/v1/projects`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: '{"name":"Kept"}',
  });
  expect((await fetch(first.address)).headers.get('content-type')).toContain('text/html');
  // A second start from the same folder is told so and does no harm.
  await expect(serve()).rejects.toThrow(/running already/);

  // The launcher is killed: the server it leaves behind is ended by the next start.
  const server = Number(readFileSync(join(home, 'server.pid'), 'utf8'));
  const gone = once(first.launcher, 'exit');
  first.launcher.kill('SIGKILL');
  await gone;
  expect(isRunning(server)).toBe(true);
  const second = await serve();
  expect(second.said).toContain('left over');
  expect(isRunning(server)).toBe(false);
  expect(await projects(second.address)).toMatchObject([{ name: 'Kept' }]);

  // Server, launcher and database are killed at once, as when the power fails.
  const database = postgresPid();
  const allGone = once(second.launcher, 'exit');
  process.kill(-(second.launcher.pid ?? 0), 'SIGKILL');
  process.kill(database, 'SIGKILL');
  await allGone;
  const third = await serve();
  expect(await projects(third.address)).toMatchObject([{ name: 'Kept' }]);

  // Ctrl-C, as a terminal sends it: to the whole group.
  const last = Number(readFileSync(join(home, 'server.pid'), 'utf8'));
  const lastDatabase = postgresPid();
  const stopped = once(third.launcher, 'exit');
  process.kill(-(third.launcher.pid ?? 0), 'SIGINT');
  await stopped;
  expect(isRunning(last)).toBe(false);
  expect(isRunning(lastDatabase)).toBe(false);
  occupant.close();
});
