import { randomUUID } from 'node:crypto';
import { type Heard, HeardSchema } from '@inkwell/core/model';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { startServer } from '../start.ts';
import { runSql } from '../testing/databases.ts';
import type { Browser } from '../testing/programs/browser.ts';
import { until } from '../testing/programs/client.ts';
import { startStudio } from '../testing/programs/studio.ts';

const { owner, comeAs, workspace, settings, ...running } = await startStudio();
const second = await workspace('Lantern yard');

/** What a page hears from now on, until it is ended. */
async function hearing(browser: Browser, address = running.address, inside = '') {
  const all: Heard[] = [];
  const ending = new AbortController();
  const response = await fetch(`${address}/api/v1${inside}/together/events`, {
    headers: { Accept: 'text/event-stream', 'Sec-Fetch-Site': 'same-origin', Cookie: browser.cookie ?? '' },
    signal: ending.signal,
  });
  expect(response.headers.get('content-type')).toContain('text/event-stream');
  const read = async () => {
    let text = '';
    for await (const piece of response.body ?? []) {
      text += Buffer.from(piece).toString();
      const events = text.split('\n\n');
      text = events.pop() ?? '';
      for (const event of events) {
        if (event.startsWith('data: ')) all.push(HeardSchema.parse(JSON.parse(event.slice(6))));
      }
    }
  };
  const over = read().catch(() => undefined);
  return { all, over, end: () => ending.abort() };
}

const isAbout = (name: 'projects' | 'finishes') => (heard: Heard) =>
  heard.is === 'change' && heard.change.kind === name;

test('what somebody changes the others of the workspace hear of within a second, from whichever server; others do not', async () => {
  const ida = await comeAs('viewer', 'Ida');
  const another = await startServer(settings);
  const [here, there, elsewhere] = await Promise.all([
    hearing(ida),
    hearing(owner, another.address),
    hearing(owner, running.address, `/in/${second}`),
  ]);
  const began = Date.now();
  const { body } = await owner.ask('POST', '/projects', { name: 'Festival week' });
  const { id, version } = z.object({ id: z.string(), version: z.number() }).parse(body);
  for (const { all } of [here, there]) {
    const [heard] = await until(
      async () => all.filter(isAbout('projects')),
      (some) => some.length > 0,
      10,
      10,
    );
    expect(heard).toMatchObject({ change: { kind: 'projects', rows: [[id, version]] } });
  }
  // Without a load, telling takes milliseconds; this leaves room for a busy machine.
  expect(Date.now() - began).toBeLessThan(10_000);
  await owner.ask('DELETE', `/projects/${id}`);
  await until(
    async () => here.all.filter(isAbout('projects')),
    (some) => some.length > 1,
    10,
    10,
  );
  expect(elsewhere.all.filter(isAbout('projects'))).toEqual([]);

  // Who is where is told by name, and only to those of the workspace.
  const where = { pageId: randomUUID(), projectId: id, frameId: null };
  expect((await owner.ask('POST', '/together/presence', where)).status).toBe(204);
  const present = () => here.all.filter(({ is }) => is === 'present');
  expect(
    await until(
      async () => present(),
      (some) => some.length > 0,
      10,
      10,
    ),
  ).toEqual([{ is: 'present', present: { ...where, name: 'Runa Holm' } }]);
  expect(elsewhere.all.some(({ is }) => is === 'present')).toBe(false);

  // A connection that breaks is made again, and pages are told that they may have missed something.
  const before = here.all.filter(({ is }) => is === 'missed').length;
  await runSql(
    settings.DATABASE_URL,
    `select pg_terminate_backend(pid) from pg_stat_activity where query ~ '^listen present'`,
  );
  await until(
    async () => here.all.filter(({ is }) => is === 'missed').length,
    (count) => count > before,
    20,
  );
  await owner.ask('POST', '/projects', { name: 'After' });
  await until(
    async () => here.all.filter(isAbout('projects')),
    (some) => some.length > 2,
    10,
    10,
  );

  // A server that is stopped ends its streams; it does not wait for them.
  await another.stop();
  await there.over;
  here.end();
  elsewhere.end();
  // Asked as anything else, it says what it is instead of answering for ever.
  expect(await ida.ask('GET', '/together/events')).toMatchObject({ status: 400 });
  const stranger = await fetch(`${running.address}/api/v1/together/events`, {
    headers: { Accept: 'text/event-stream' },
  });
  expect(stranger.status).toBe(401);
});
