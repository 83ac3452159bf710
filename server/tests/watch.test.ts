import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  appendFileSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ManifestSchema } from '@inkwell/core/model';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { bundled } from '../bundling/bundle.ts';
import { runCommand } from '../commandLine/commands/index.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, settings } = await startProgram();
const folder = mkdtempSync(join(tmpdir(), 'inkwell-watch-'));
afterAll(() => rm(folder, { recursive: true }));
const environment = { ...process.env, ...settings, PORT: String(settings.PORT) };

beforeAll(async () => {
  const clip = { slug: 'clip', name: 'Clip', purpose: 'post', width: 320, height: 180, formats: ['jpeg'] } as const;
  const placeIds = await client.sheet('Small', [
    { ...clip, formats: ['jpeg'], limit: { bytes: 90_000, unit: 'kB' }, shownWidths: [320] },
  ]);
  expect((await client.ask('POST', '/place-sets', { name: 'Clips', placeIds })).status).toBe(201);
});

const put = async (path: string, width: number) =>
  writeFileSync(join(folder, path), await chart(width, 400).jpeg().toBuffer());
const named = (path: string) =>
  readdirSync(join(folder, path))
    .filter((name) => !name.startsWith('.'))
    .sort();
/** The folders with what came of pictures, without what says which picture it was. */
const framed = (out: string) =>
  named(out)
    .filter((name) => !name.endsWith('.jsonl'))
    .map((name) => name.replace(/-[0-9a-f]{8}$/, ''));

async function lookOnce(...more: string[]) {
  const said: string[] = [];
  const line = ['watch', 'camera', '--set', 'clips', '--out', 'framed', '--once', '--settle', '0.2', ...more];
  const code = await runCommand(line, { caller: folder, environment, say: (text) => said.push(text) });
  return { code, said: said.join('\n') };
}

test('every picture is framed once, what is refused lies aside with the reason, and nothing is done twice', async () => {
  mkdirSync(join(folder, 'camera', 'day 2'), { recursive: true });
  await put('camera/kites.jpg', 600);
  await put('camera/day 2/dunes.jpg', 700);
  copyFileSync(join(folder, 'camera/kites.jpg'), join(folder, 'camera/copy of kites.jpg'));
  writeFileSync(join(folder, 'camera/torn.jpg'), readFileSync(join(folder, 'camera/kites.jpg')).subarray(0, 400));
  writeFileSync(join(folder, 'camera/note.txt'), 'no picture');
  writeFileSync(join(folder, 'camera/coming.jpg.part'), 'half');
  const { code, said } = await lookOnce();
  expect([code, said]).toEqual([2, expect.stringContaining('was framed before, into')]);
  expect(framed('framed')).toHaveLength(2);
  expect(framed('framed')).toContain('dunes');
  for (const name of named('framed').filter((one) => !one.endsWith('.jsonl'))) {
    const manifest = ManifestSchema.parse(
      JSON.parse(readFileSync(join(folder, 'framed', name, 'manifest.json'), 'utf8')),
    );
    expect(manifest.files.map(({ width, height }) => [width, height])).toEqual([[320, 180]]);
  }
  expect(named('camera/refused')).toEqual(['note.txt', 'note.txt.txt', 'torn.jpg', 'torn.jpg.txt']);
  expect(readFileSync(join(folder, 'camera/refused/torn.jpg.txt'), 'utf8')).toMatch(
    /^torn\.jpg was not framed\.\n\n.*(damaged|whole)/,
  );
  expect(named('camera')).toEqual(['coming.jpg.part', 'copy of kites.jpg', 'day 2', 'kites.jpg', 'refused']);

  const projects = await client.projects();
  expect(projects.map(({ name }) => name)).toEqual(['camera']);
  appendFileSync(join(folder, 'framed', 'watched.jsonl'), '{"sha256": "torn');
  expect((await lookOnce()).code).toBe(0);
  expect([framed('framed').length, await client.projects()]).toEqual([2, projects]);
  const id = projects[0]?.id ?? '';
  expect((await client.open(id)).originals).toHaveLength(2);
  expect((await lookOnce('--words', 'Title=x')).code).toBe(1);
});

test('killed at any moment and started again, it goes on with what is not done; two at a time are refused', async () => {
  mkdirSync(join(folder, 'live'));
  const begin = async (): Promise<ChildProcess> => {
    const line = ['watch', 'live', '--set', 'Clips', '--out', 'live-framed', '--settle', '0.2'];
    const child = spawn(process.execPath, [bundled('commandLine'), ...line], {
      cwd: join(import.meta.dirname, '..', '..'),
      env: { ...environment, INKWELL_CALLER: folder },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let said = '';
    child.stdout?.on('data', (text: Buffer) => (said += text.toString()));
    await until(
      async () => said,
      (words) => words.includes('Watching live'),
      120,
    );
    return child;
  };
  const isThere = (count: number) =>
    until(
      async () => (existsSync(join(folder, 'live-framed')) ? framed('live-framed').length : 0),
      (found) => found >= count,
      120,
    );
  for (const round of [0, 1]) {
    const child = await begin();
    const other = ['watch', 'live', '--set', 'Clips', '--out', 'live-framed', '--once'];
    if (round === 0) {
      expect(await runCommand(other, { caller: folder, environment, say: () => undefined })).toBe(1);
    }
    for (const at of [0, 1]) await put(`live/picture ${2 * round + at}.jpg`, 500 + 2 * round + at);
    await isThere(2 * round + 1);
    const gone = once(child, 'exit');
    // While one is done and another is not.
    child.kill(round === 1 ? 'SIGTERM' : 'SIGKILL');
    const [code] = await gone;
    if (round === 1) expect(code).toBe(0);
  }
  const last = await begin();
  await isThere(4);
  const gone = once(last, 'exit');
  last.kill('SIGTERM');
  expect(await gone).toEqual([0, null]);
  expect(framed('live-framed')).toEqual([0, 1, 2, 3].map((number) => `picture-${number}`));
  const project = (await client.projects()).find(({ name }) => name === 'live');
  expect((await client.open(project?.id ?? '')).originals).toHaveLength(4);
});
