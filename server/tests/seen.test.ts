import { analyserVersion, type OpenProject, OriginalSchema, SeenSchema } from '@inkwell/core/model';
import { inkOf, inkWidth } from '@inkwell/core/testing';
import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { beforeAll, expect, test } from 'vitest';
import { z } from 'zod';
import { startWorker } from '../start.ts';
import { findFrame } from '../store/projects/frames.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, services, settings } = await startProgram('on');
const { db } = services;

const size = { width: 1500, height: 900 };
const line = { left: 90, top: 380, high: 84, text: 'KITES HERE' };

/** A poster with one line of words far to the left. */
async function poster(shade: number): Promise<Buffer> {
  const data = Buffer.alloc(size.width * size.height * 3, shade);
  const isInk = inkOf(line.text, line.high);
  for (let y = 0; y < size.height; y += 1) {
    for (let x = 0; x < size.width; x += 1) {
      if (isInk(x - line.left, y - line.top)) data.fill(20, 3 * (y * size.width + x), 3 * (y * size.width + x) + 3);
    }
  }
  return sharp(data, { raw: { ...size, channels: 3 } })
    .png()
    .toBuffer();
}

let project: OpenProject;
const original = () => {
  const [first] = project.originals;
  if (!first) throw new Error('no original');
  return first;
};
const frame = () => {
  const [first] = project.frames;
  if (!first) throw new Error('no frame');
  return first;
};
/** Whether the frame, as it is now, shows all of the line. */
async function showsLine(): Promise<boolean> {
  const framed = await findFrame(db, frame().id);
  const window = framed && (await services.planner.open()).planOf(framed)?.window;
  if (!window) throw new Error('no plan');
  const [left, right] = [window.centreX - window.span / 2, window.centreX + window.span / 2];
  return left <= line.left && right >= line.left + inkWidth(line.text, line.high);
}
const seen = async () => {
  const [one] = z.array(SeenSchema).parse((await client.ask('GET', `/projects/${project.id}/seen`)).body);
  return one;
};
const change = async (values: object) => {
  const { version } = await client.open(project.id).then(({ originals }) => originals[0] ?? original());
  return OriginalSchema.parse(
    (await client.ask('PATCH', `/originals/${original().id}/settings`, { version, change: values })).body,
  );
};

beforeAll(async () => {
  const taken = await client.original(await poster(225), 'words.png');
  project = await client.project('Seen', [taken], ['hearthring/profile-picture']);
  await client.looked(project.id);
});

test('a picture is looked at once it is there; its frames are composed from what was seen, and measured as they are then', async () => {
  const { analysis, failure } = (await seen()) ?? {};
  expect(failure).toBeNull();
  expect(analysis).toMatchObject({ version: analyserVersion, tilt: null, picture: 'flat artwork' });
  expect(analysis?.proposals).toMatchObject([{ kind: 'words', sureness: 'sure' }]);
  const [words] = analysis?.proposals ?? [];
  // The line with a little room.
  const [left, width] = [words?.left ?? 0, words?.width ?? 0];
  expect([left <= line.left, left > line.left - 0.1 * line.high - 3]).toEqual([true, true]);
  expect(Math.abs(left + width / 2 - line.left - inkWidth(line.text, line.high) / 2)).toBeLessThan(3);
  expect(await showsLine()).toBe(true);
  const [measured] = await client.measured(project.id);
  const framed = await findFrame(db, frame().id);
  expect(measured?.planHash).toBe(framed && (await services.planner.open()).measuringOf(framed)?.planned.planHash);
});

test('what is dismissed is composed from no more; marks alone are where the project says so; all of it is undone', async () => {
  const { analysis } = (await seen()) ?? {};
  const [words] = analysis?.proposals ?? [];
  if (!words) throw new Error('nothing seen');
  const { kind, left, top, width, height } = words;
  await change({ decided: [{ kind, left, top, width, height }] });
  expect(await showsLine()).toBe(false);
  await change({ decided: [] });
  expect(await showsLine()).toBe(true);
  for (const [version, composing, shown] of [
    [1, 'marks', false],
    [2, 'seen', true],
  ] as const) {
    const { status } = await client.ask('PATCH', `/projects/${project.id}/settings`, {
      version,
      change: { composing },
    });
    expect([status, await showsLine()]).toEqual([200, shown]);
  }
  const { status, body } = await client.ask('PATCH', `/originals/${original().id}/settings`, {
    version: 1,
    change: { decided: [{ kind: 'rumour' }] },
  });
  expect([status, JSON.stringify(body)]).toEqual([400, expect.stringContaining('decided')]);
});

test('the same bytes are looked at once, whoever brings them', async () => {
  const again = await client.original(await poster(225), 'again.png');
  const other = await client.project('Again', [again], ['hearthring/profile-picture']);
  const [one] = await client.looked(other.id);
  expect(one?.analysis).toEqual((await seen())?.analysis);
  const { rows } = await db.execute(sql`select key from work where key like ${`analyse%${again.sha256}%`}`);
  expect(rows).toEqual([]);
});

test('a picture that could not be looked at says so, and is looked at when somebody asks', async () => {
  const { sha256, id } = original();
  await db.execute(sql`delete from analyses where sha256 = ${sha256}`);
  const key = `analyse ${analyserVersion} ${sha256} 0`;
  const picture = { sha256, page: 0, ...size, hasAlpha: false };
  await db.execute(sql`insert into work (key, task, priority, rank, state, failure)
    values (${key}, ${JSON.stringify({ kind: 'analyse', picture })}::jsonb, 15, 1, 'failed', 'The detectors stopped.')`);
  expect(await seen()).toMatchObject({ analysis: null, failure: 'The detectors stopped.' });
  // The rest goes on: the frame hangs in the middle, as it did before pictures were looked at.
  expect(await showsLine()).toBe(false);
  expect((await client.ask('POST', `/originals/${id}/look`)).status).toBe(202);
  await until(seen, (one) => one?.analysis !== null);
  expect(await showsLine()).toBe(true);
});

test('what an older program has seen is looked at again by the next worker that starts; marks stay', async () => {
  const { sha256 } = original();
  const marks = [{ ...line, id: crypto.randomUUID(), name: 'Line', role: 'keep', width: 600, height: 84 }].map(
    ({ high: _, text: __, ...mark }) => mark,
  );
  const saved = await change({ marks });
  await db.execute(
    sql`update analyses set version = 0, analysis = '{"version": 0, "eyes": 2}' where sha256 = ${sha256}`,
  );
  expect(await seen()).toMatchObject({ analysis: null, failure: null });
  const second = await startWorker({ ...settings, INKWELL_LOOK: 'on' });
  await until(seen, (one) => one?.analysis?.version === analyserVersion);
  await second.stop();
  expect((await client.open(project.id)).originals[0]?.marks).toEqual(saved.marks);
});
