import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isAllMeasured, type Original } from '@inkwell/core/model';
import { databaseServer, dropDatabase, ownDatabase } from '@inkwell/server/testing/databases.ts';
import { Client, until } from '@inkwell/server/testing/programs/client.ts';
import { ServerProcess, WorkerProcess } from '@inkwell/server/testing/programs/processes.ts';
import sharp from 'sharp';
import { memoryOf } from './program.ts';

const places = ['sunpane/portrait-post', 'sunpane/story', 'pipwire/single-image', 'quillpost/inline-picture'];
const pictures = 10;
/** Whoever asks more often takes time of the cores that is measured. */
const askedMs = 2000;

/** Coarse noise: a picture of so many million pixels that takes its time to draw and encode. */
async function picture(megapixels: number, seed: number): Promise<Buffer> {
  const height = Math.round(Math.sqrt((megapixels * 1e6) / 1.5) / 8) * 8;
  const width = Math.round((height * 1.5) / 8) * 8;
  const create = { width: width / 8, height: height / 8, channels: 3 as const, background: '#7a8' };
  const noise = { type: 'gaussian' as const, mean: 110 + seed, sigma: 35 };
  const small = await sharp({ create: { ...create, noise } })
    .png({ compressionLevel: 1 })
    .toBuffer();
  return sharp(small).resize(width, height, { kernel: 'cubic' }).jpeg({ quality: 88 }).toBuffer();
}

interface Workload {
  client: Client;
  env: NodeJS.ProcessEnv;
  originals: Original[];
}

/** A server with pictures in it and nobody who works, with an empty database; stopped when the task is done. */
async function withServer<Result>(
  megapixels: number,
  count: number,
  task: (workload: Workload) => Promise<Result>,
): Promise<Result> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  const database = await ownDatabase(databaseServer(), 'inkwell_bench');
  const env = { ...process.env, DATABASE_URL: database, INKWELL_DATA: folder, PORT: '4690', INKWELL_LOOK: 'off' };
  const server = await ServerProcess.start(env);
  try {
    const client = new Client(server.address);
    const originals: Original[] = [];
    for (let index = 0; index < count; index += 1) {
      originals.push(await client.original(await picture(megapixels, index), `${index}.jpg`));
    }
    return await task({ client, env, originals });
  } finally {
    await server.end();
    await dropDatabase(database);
    await rm(folder, { recursive: true, force: true });
  }
}

const isMeasured = async (client: Client, projectId: string) => (await client.weights(projectId)).every(isAllMeasured);

/** Frames in a minute by so many workers, each with one core and one job, from when the last of them is up. */
const framesAMinute = (workers: number): Promise<number> =>
  withServer(24, pictures, async ({ client, env, originals }) => {
    const running = await Promise.all(
      Array.from({ length: workers }, (_, core) => WorkerProcess.start(env, ['--jobs', '1'], core)),
    );
    const began = performance.now();
    const { id, frames } = await client.project('Bench', originals, places);
    await until(
      () => isMeasured(client, id),
      (done) => done,
      1200,
      askedMs,
    );
    const minutes = (performance.now() - began) / 60_000;
    await Promise.all(running.map((worker) => worker.end()));
    return frames.length / minutes;
  });

interface Bounded {
  megapixels: number;
  megabytes: number;
  seconds: number;
}

/** What a worker with four jobs holds at most where so many million pixels may be in work. */
const bounded = (megapixels: number): Promise<Bounded> =>
  withServer(48, 4, async ({ client, env, originals }) => {
    const worker = await WorkerProcess.start(env, ['--jobs', '4', '--megapixels', String(megapixels)]);
    let most = 0;
    const watching = setInterval(() => {
      most = Math.max(most, memoryOf([worker.pid]));
    }, 100);
    const began = performance.now();
    const { id } = await client.project('Bench', originals, places);
    await until(
      () => isMeasured(client, id),
      (done) => done,
      1200,
      250,
    );
    const seconds = (performance.now() - began) / 1000;
    clearInterval(watching);
    await worker.end();
    return { megapixels, megabytes: most / 1e6, seconds };
  });

/** Seconds until four frames of a project are measured, alone and behind another project with many frames. */
const turns = (): Promise<{ alone: number; behind: number; whole: number }> =>
  withServer(12, 10, async ({ client, env, originals }) => {
    const worker = await WorkerProcess.start(env, ['--jobs', '1']);
    const measured = async (id: string, began: number) => {
      await until(
        () => isMeasured(client, id),
        (done) => done,
        1200,
        100,
      );
      return (performance.now() - began) / 1000;
    };
    const [first, second, ...many] = originals as [Original, Original, ...Original[]];
    const few = async (name: string, original: Original) => {
      const began = performance.now();
      return measured((await client.project(name, [original], places)).id, began);
    };
    const alone = await few('Alone', first);
    const began = performance.now();
    const large = await client.project('Many', many, places);
    const behind = await few('Few', second);
    const whole = await measured(large.id, began);
    await worker.end();
    return { alone, behind, whole };
  });

/** What workers do and hold, as a section of the results. */
export async function workersSection(): Promise<string> {
  const [one, two] = [await framesAMinute(1), await framesAMinute(2)];
  const memory = [];
  for (const megapixels of [1, 120, 1000]) memory.push(await bounded(megapixels));
  const turn = await turns();
  const lines = memory.map(
    ({ megapixels, megabytes, seconds }) =>
      `| ${megapixels} | **${megabytes.toFixed(0)} MB** | ${seconds.toFixed(0)} s |`,
  );
  return `## Workers
Without looking at pictures. PostgreSQL and the server share the cores with them.

| ${pictures} pictures of 24 megapixels in ${places.length} places, measured | frames a minute | against one | aim |
|---|---|---|---|
| one worker with one core and one job | ${one.toFixed(1)} | 1.00 | |
| two, each with a core of its own | ${two.toFixed(1)} | **${(two / one).toFixed(2)}** | at least 1.85 |

| million pixels in work at most: 4 pictures of 48 megapixels in ${places.length} places, four jobs, two cores | peak memory of the worker | time |
|---|---|---|
${lines.join('\n')}

| one worker, one job; a project with ${places.length} frames of 12 megapixels is measured | seconds | against alone |
|---|---|---|
| alone | ${turn.alone.toFixed(1)} | 1.00 |
| behind a project with 32 frames, which takes ${turn.whole.toFixed(0)} s | ${turn.behind.toFixed(1)} | **${(turn.behind / turn.alone).toFixed(2)}** |
`;
}
