import { type ChildProcess, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { DeliverySchema, OriginalSchema } from '@inkwell/core/model';
import { afterAll, expect, test } from 'vitest';
import { Client, until } from '../testing/client.ts';
import { noise } from '../testing/pictures.ts';
import { testSettings } from '../testing/program.ts';

const settings = await testSettings();
let running: ChildProcess | undefined;
afterAll(() => running?.kill('SIGKILL'));

/** Starts the program as a process of its own; the same data every time. */
async function startProcess(): Promise<Client> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: { ...process.env, ...settings, PORT: String(settings.PORT) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  running = child;
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout?.on('data', (text: Buffer) => {
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(text.toString());
      if (found) resolve(found[0]);
    });
    child.once('exit', (code) => reject(new Error(`The program ended with ${code}.`)));
  });
  return new Client(address);
}

async function kill() {
  const gone = new Promise((resolve) => running?.once('exit', resolve));
  running?.kill('SIGKILL');
  await gone;
}

const incoming = () => readdirSync(join(settings.INKWELL_DATA, 'incoming'));

test('killed in the middle of an upload and of a delivery, the program goes on with everything whole', async () => {
  let client = await startProcess();
  const bytes = await noise(1900, 1300).blur(2).png().toBuffer();
  const original = await client.original(bytes, 'before.png');
  const places = [
    'sunpane/story',
    'sunpane/portrait-post',
    'pipwire/single-image',
    'hearthring/event-cover',
    'guildrow/article-cover',
    'candlecast/channel-banner',
  ];
  const project = await client.project('Before', [original], places);

  const listed = async () => OriginalSchema.array().parse((await client.ask('GET', '/originals')).body);
  const before = await listed();
  // Half an upload, then the end.
  const half = request(`${client.address}/api/originals`, {
    method: 'POST',
    headers: { 'Content-Type': 'multipart/form-data; boundary=kites' },
  });
  half.on('error', () => undefined);
  half.write(`--kites\r\nContent-Disposition: form-data; name="file"; filename="half.png"\r\n\r\n`);
  half.write(bytes.subarray(0, bytes.length / 2));
  await until(
    async () => incoming().length,
    (count) => count === 1,
  );
  await kill();
  expect(incoming()).toHaveLength(1);

  client = await startProcess();
  expect(incoming()).toEqual([]);
  expect(await listed()).toEqual(before);
  expect(before).toContainEqual(original);

  // Half a delivery, then the end.
  const { id } = DeliverySchema.parse((await client.askDelivery(project.id)).body);
  const delivery = async () => DeliverySchema.parse((await client.ask('GET', `/deliveries/${id}`)).body);
  const broken = await until(delivery, ({ doneCount }) => doneCount >= 2);
  expect(broken.state).toBe('working');
  await kill();

  client = await startProcess();
  const finished = await until(delivery, ({ state }) => state === 'done');
  expect(finished.files).toHaveLength(places.length);
  expect(finished.files).toEqual(expect.arrayContaining(broken.files));
  expect((await client.bytes(`/deliveries/${id}/archive`)).length).toBeGreaterThan(finished.bytes);
  const back = await client.bytes(`/originals/${original.id}/file`);
  expect(createHash('sha256').update(back).digest('hex')).toBe(original.sha256);
  await kill();
}, 480_000);
