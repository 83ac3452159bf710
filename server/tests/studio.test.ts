import { mkdtempSync, readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { expect, inject, test } from 'vitest';
import { parse } from 'yaml';
import { z } from 'zod';
import { chart } from '../testing/pictures/pictures.ts';
import { Client } from '../testing/programs/client.ts';
import { ServerProcess, WorkerProcess } from '../testing/programs/processes.ts';
import { testSettings } from '../testing/programs/program.ts';

const deploy = join(import.meta.dirname, '..', '..', 'deploy');
const read = (...path: string[]) => readFileSync(join(deploy, ...path), 'utf8');
const ComposeSchema = z.object({
  services: z.record(
    z.string(),
    z.object({ command: z.array(z.string()), environment: z.record(z.string(), z.string()) }),
  ),
});
const { services } = ComposeSchema.parse(parse(read('compose.yaml'), { merge: true }));
const named = (role: string) => Object.values(services).filter(({ command }) => command[0] === role);

test('one database, two servers and four workers, as they are to be deployed, work as one', async () => {
  const { DATABASE_URL } = await testSettings();
  /** What the file says of a service, with a folder and the database of this test. */
  const env = (environment: Record<string, string>): NodeJS.ProcessEnv => ({
    ...process.env,
    ...environment,
    INKWELL_HOOK_HOSTS: '',
    INKWELL_LOOK: 'off',
    DATABASE_URL,
    INKWELL_DATA: mkdtempSync(join(inject('dataFolder'), 'studio-')),
  });
  const servers = await Promise.all(named('serve').map(({ environment }) => ServerProcess.start(env(environment))));
  const workers = await Promise.all(
    named('worker').map(({ environment, command: [, ...options] }, index) =>
      WorkerProcess.start(env(environment), options, index % availableParallelism()),
    ),
  );
  expect([servers.length, workers.length]).toEqual([2, 4]);
  const [first, second] = servers.map(({ address }) => new Client(address)) as [Client, Client];
  const originals = [];
  for (const side of [500, 600, 700])
    originals.push(await first.original(await chart(side, 400).png().toBuffer(), 'a.png'));
  const project = await second.project('Studio', originals, ['sunpane/story', 'quillpost/inline-picture']);
  const asked = await first.askDelivery(project.id);
  // One machine fails and one is taken away while they are at it.
  await workers[0]?.end('SIGKILL');
  await workers[1]?.end('SIGTERM');
  const delivery = await second.delivered(asked);
  expect(delivery).toMatchObject({ state: 'done', leftOut: [], frameCount: 6 });
  // What one server has never drawn or read it answers all the same.
  const path = `/deliveries/${delivery.id}/archive`;
  expect((await first.bytes(path)).equals(await second.bytes(path))).toBe(true);
  await Promise.all([...servers, ...workers.slice(2)].map((one) => one.end()));
}, 300_000);

test('the units of systemd start what the compose file starts', () => {
  const started = (unit: string) =>
    /^ExecStart=\/usr\/bin\/node dist\/main\.js (.*)$/m.exec(read('systemd', unit))?.[1]?.split(' ');
  expect(started('inkwell-worker@.service')).toEqual(named('worker')[0]?.command);
  expect(started('inkwell-server@.service')).toEqual(named('serve')[0]?.command);
  // Whoever ends a worker waits longer than it takes to end what it is at.
  const drain = Number(/--drain (\d+)/.exec(read('systemd', 'inkwell-worker@.service'))?.[1]);
  expect(Number(/^TimeoutStopSec=(\d+)$/m.exec(read('systemd', 'inkwell-worker@.service'))?.[1])).toBeGreaterThan(
    drain,
  );
  expect(read('compose.yaml')).toContain(`stop_grace_period: ${drain + 10}s`);
});
