import { once } from 'node:events';
import { Agent, createServer, type IncomingMessage, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from 'vitest';
import { readWorkerSettings } from '../settings/settings.ts';
import { startServer } from '../start.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { Client, until } from '../testing/programs/client.ts';
import { WorkerProcess } from '../testing/programs/processes.ts';
import { testSettings } from '../testing/programs/program.ts';

/** A port that nobody listens at. */
async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/** The values of a metric in Prometheus' text format, by their labels. */
function valuesOf(text: string, metric: string): Map<string, number> {
  const lines = text.split('\n').filter((line) => line.startsWith(`${metric}{`) || line.startsWith(`${metric} `));
  return new Map(
    lines.map((line) => [line.slice(metric.length, line.lastIndexOf(' ')), Number(line.slice(line.lastIndexOf(' ')))]),
  );
}

test('a server that is told to stop answers what it is at, and takes nothing new', async () => {
  const server = await startServer(await testSettings());
  const { port } = server;
  expect((await fetch(`${server.address}/ready`)).status).toBe(200);
  const body = JSON.stringify({ name: 'Asked for before' });
  const headers = { 'Content-Type': 'application/json', 'Content-Length': body.length, Expect: '100-continue' };
  const agent = new Agent({ keepAlive: true });
  const asked = request({ host: '127.0.0.1', port, method: 'POST', path: '/api/v1/projects', headers, agent });
  asked.flushHeaders();
  await once(asked, 'continue');
  // The request has arrived, and its end has not.
  const stopped = server.stop();
  await expect(fetch(`${server.address}/ready`)).rejects.toThrow();
  asked.end(body);
  const [answer] = (await once(asked, 'response')) as [IncomingMessage];
  answer.resume();
  expect(answer.statusCode).toBe(201);
  await stopped;
  agent.destroy();
});

test('a server and a worker tell how they are', async () => {
  const settings = await testSettings();
  const server = await startServer(settings);
  const client = new Client(server.address);
  const metrics = async (address: string) => {
    const response = await fetch(`${address}/metrics`);
    expect(response.headers.get('content-type')).toContain('text/plain');
    return response.text();
  };
  expect(await (await fetch(`${server.address}/health`)).json()).toEqual({ database: 'answers' });
  expect((await client.upload(Buffer.from('no picture'), 'no.png')).status).toBe(422);
  const original = await client.original(await chart(600, 400).png().toBuffer(), 'a.png');
  const project = await client.project('Watched', [original], ['sunpane/story', 'quillpost/inline-picture']);

  // Nobody works yet: everything waits.
  const idle = await metrics(server.address);
  const waiting = '{kind="plan",state="waiting"}';
  expect(valuesOf(idle, 'inkwell_work').get(waiting)).toBe(2);
  expect(valuesOf(idle, 'inkwell_work_oldest_seconds').get('{kind="plan"}')).toBeGreaterThan(0);
  expect(valuesOf(idle, 'inkwell_refused_files_total').get('{status="422"}')).toBeGreaterThanOrEqual(1);

  const port = await freePort();
  const worker = await WorkerProcess.start({ ...settings, PORT: '4700' }, [
    '--jobs',
    '1',
    '--megapixels',
    '7',
    '--metrics',
    String(port),
  ]);
  const beside = `http://127.0.0.1:${port}`;
  await client.measured(project.id);
  expect((await fetch(`${beside}/health`)).status).toBe(200);
  const busy = await metrics(beside);
  expect(valuesOf(busy, 'inkwell_pixels_most').get('')).toBe(7e6);
  expect(valuesOf(busy, 'inkwell_stage_seconds_count').get('{stage="encode"}')).toBe(2);
  expect(valuesOf(busy, 'inkwell_stage_seconds_sum').get('{stage="encode"}')).toBeGreaterThan(0);
  expect(valuesOf(busy, 'process_resident_memory_bytes').get('')).toBeGreaterThan(1e7);
  await until(
    async () => valuesOf(await metrics(server.address), 'inkwell_work').get(waiting),
    (count) => count === 0,
  );
  expect((await fetch(`${beside}/else`)).status).toBe(404);
  await worker.end();
  await expect(fetch(`${beside}/health`)).rejects.toThrow();
  await server.stop();
});

test('what a worker is told wrongly is said in words', async () => {
  const told = (name: string, value: string) => () => readWorkerSettings({ [name]: value });
  expect(told('INKWELL_JOBS', '0')).toThrow('--jobs (INKWELL_JOBS) has to be a whole number from 1 to 64.');
  expect(told('INKWELL_JOBS', 'many')).toThrow('whole number from 1 to 64');
  expect(told('INKWELL_PIXELS', '-3')).toThrow('from 1 to 100,000');
  expect(told('INKWELL_DRAIN', '1.5')).toThrow('--drain (INKWELL_DRAIN), in seconds, has to be a whole number');
  expect(told('INKWELL_METRICS', '80')).toThrow('The port of --metrics');
  const settings = await testSettings();
  await expect(WorkerProcess.start({ ...settings, PORT: '4700' }, ['--wings', '2'])).rejects.toThrow('ended with 1');
});
