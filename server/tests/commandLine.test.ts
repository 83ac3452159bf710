import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shippedStyles } from '@inkwell/core/lettering';
import { type Lettering, ManifestSchema, plainWeighing } from '@inkwell/core/model';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { z } from 'zod';
import { runCommand } from '../commandLine/commands/index.ts';
import { chart, noise } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, settings } = await startProgram();
const folder = mkdtempSync(join(tmpdir(), 'inkwell-commands-'));
afterAll(() => rm(folder, { recursive: true }));

const words: Lettering[number] = {
  originalIds: null,
  notOn: [],
  notOnPlaces: [],
  onPieces: 'first',
  kind: 'words',
  id: randomUUID(),
  name: 'Title',
  role: 'title',
  text: 'Episode 11',
  short: '',
  wish: 'top left',
  wanted: 0.15,
  style: (shippedStyles[0] as (typeof shippedStyles)[0]).style,
};

/** What a command ends with, and all that it said. */
async function run(...line: string[]): Promise<{ code: number; said: string; complained: string }> {
  const said: string[] = [];
  const complaints = vi.spyOn(process.stderr, 'write').mockReturnValue(true);
  const errors = vi.spyOn(console, 'error').mockReturnValue();
  const code = await runCommand(line, {
    caller: folder,
    environment: { ...process.env, ...settings, PORT: String(settings.PORT) },
    say: (text) => said.push(text),
  });
  const complained = [...complaints.mock.calls, ...errors.mock.calls].map(([text]) => String(text)).join('\n');
  vi.restoreAllMocks();
  return { code, said: said.join('\n'), complained };
}

/** The words of a line, as a shell takes them. */
const wordsOf = (line: string): string[] =>
  (line.match(/(?:"[^"]*"|'[^']*'|[^\s"'])+/g) ?? []).map((word) => word.replace(/["']/g, ''));

const manifestIn = (out: string) =>
  ManifestSchema.parse(JSON.parse(readFileSync(join(folder, out, 'manifest.json'), 'utf8')));

beforeAll(async () => {
  for (const name of ['photos', 'scans', 'camera']) mkdirSync(join(folder, name));
  const files = {
    'kites.jpg': chart(640, 480).jpeg(),
    'dunes.jpg': chart(1500, 400).jpeg(),
    'noise.png': noise(300, 200).png(),
    'photos/a.png': chart(500, 400).png(),
    'scans/b.tif': chart(450, 400).tiff(),
    'camera/c.jpg': chart(510, 400).jpeg(),
  };
  for (const [name, picture] of Object.entries(files)) writeFileSync(join(folder, name), await picture.toBuffer());
  writeFileSync(join(folder, 'photos', 'note.txt'), 'no picture');
  writeFileSync(join(folder, 'episodes.csv'), 'picture,title\na.png,Episode 12\na.png,Episode 13\n');
  const long = 'Wind and sand and kites '.repeat(24);
  writeFileSync(
    join(folder, 'odd.csv'),
    `Title;Picture;places\n${long};kites;\nNo. 2;gone.jpg;\n;a.png;pipwire/header`,
  );
  writeFileSync(join(folder, 'wrong.csv'), 'Mood,Weather\ngood,windy\n');
  writeFileSync(join(folder, 'photos', 'torn.jpg'), readFileSync(join(folder, 'kites.jpg')).subarray(0, 300));
  const clip = { slug: 'clip', name: 'Clip', purpose: 'post', width: 320, height: 180, formats: ['jpeg'] } as const;
  const placeIds = await client.sheet('Small', [
    { ...clip, formats: ['jpeg'], limit: { bytes: 90_000, unit: 'kB' }, shownWidths: [320, 120] },
  ]);
  const set = { name: 'Weekly clip', placeIds, lettering: [words], finishId: 'crisp' };
  expect((await client.ask('POST', '/place-sets', set)).status).toBe(201);
  const original = await client.original(readFileSync(join(folder, 'kites.jpg')), 'kites.jpg');
  const project = await client.project('Week 1', [original], ['pipwire/profile-picture']);
  const { id } = await client.deliver(project.id);
  writeFileSync(join(folder, 'week-1.zip'), await client.bytes(`/deliveries/${id}/archive`));
});

/** The examples of the documentation in their order, with what each ends with. */
const documented = [
  ...readFileSync(join(import.meta.dirname, '..', '..', 'docs', 'command-line.md'), 'utf8').matchAll(
    /^\$ \.\/inkwell (.*)\n(?:\[ends with (\d)\])?/gm,
  ),
].map(([, line = '', code = '0']) => ({ line, code: Number(code) }));

test('every example of the documentation does what it says', async () => {
  expect(documented.length).toBeGreaterThan(10);
  const came = new Map<string, Awaited<ReturnType<typeof run>>>();
  for (const { line, code } of documented) {
    const outcome = await run(...wordsOf(line));
    // One of the photos is torn: the rest is delivered, and that is told.
    const wanted = line.includes('--out week-2') ? 2 : code;
    expect([line, outcome.code, outcome.complained]).toEqual([line, wanted, expect.any(String)]);
    came.set(line, outcome);
  }
  const of = (part: string) => [...came].find(([line]) => line.includes(part))?.[1].said ?? '';
  expect(manifestIn('week-1').files.map(({ placeThen, width }) => [placeThen?.id, width])).toEqual([
    ['pipwire/profile-picture', 512],
    ['sunpane/profile-picture', 640],
  ]);
  const outcome = z
    .object({ files: z.array(z.string()), refused: z.array(z.object({ file: z.string(), reason: z.string() })) })
    .parse(JSON.parse(of('--out week-2')));
  expect(outcome.files).toHaveLength(2);
  expect(outcome.refused).toEqual([{ file: 'photos/torn.jpg', reason: expect.stringMatching(/damaged|whole/) }]);
  expect(manifestIn('week-2').files.map(({ finish, words }) => [finish?.name, words])).toEqual([
    ['Crisp', ['Episode 12']],
    ['Crisp', ['Episode 12']],
  ]);
  expect(manifestIn('week-3').files.map(({ original, words }) => [original, words])).toEqual([
    ['a', ['Episode 12']],
    ['a 2', ['Episode 13']],
  ]);
  expect(manifestIn('strip').files.map(({ piece }) => piece?.number)).toEqual([1, 2, 3]);
  expect(readFileSync(join(folder, 'light', 'kites.jpg')).length).toBeLessThanOrEqual(60_000);
  expect(readdirSync(join(folder, 'light'))).toEqual(['kites.jpg']);
  expect(of('check-file')).toMatch(/^Wrong {2}light\/kites\.jpg: It is 640 × 480 px; Story wants 1080 × 1920 px\./);
  expect(readFileSync(join(folder, 'sunpane.csv'), 'utf8')).toContain('profile-picture');
  // What stands in the browser afterwards is what was asked for.
  const names = (await client.projects()).map(({ name }) => name);
  expect(names.filter((name) => name.startsWith('Pictures of '))).toHaveLength(4);
});

test('what is called wrongly is said in words, ends with 1, and leaves nothing behind', async () => {
  const before = await client.projects();
  const wrong: [line: string, complaint: RegExp][] = [
    [
      'frame kites.jpg --places sunpane/nowhere --out x',
      /no place sunpane\/nowhere\. sunpane has sunpane\/square-post/,
    ],
    ['frame kites.jpg --out x', /--places sunpane\/story,… or --set NAME/],
    ['frame kites.jpg --set Daily --out x', /There are “Weekly clip”/],
    ['frame kites.jpg --set "weekly CLIP" --words name=x --out x', /Nothing called name is laid .* There are Title/],
    ['frame kites.jpg --set "Weekly clip" --words title= --out x', /at least one character/],
    ['frame kites.jpg --places sunpane/story --finish Glossy --out x', /no finish “Glossy”/],
    ['frame nowhere.jpg --places sunpane/story --out x', /There is no file or folder nowhere\.jpg/],
    ["frame '*.gif' --places sunpane/story --out x", /No picture is meant by \*\.gif/],
    ['frame kites.jpg --places sunpane/story --out week-1', /holds a delivery already/],
    ['frame kites.jpg --places sunpane/story', /--out/],
    ['frame kites.jpg --set "Weekly clip" --series kites.csv --out x', /kites\.csv is not there/],
    ['frame kites.jpg --set "Weekly clip" --series wrong.csv --out x', /No column of .*wrong\.csv names pictures/],
    ['split dunes.jpg --place sunpane/story --out x', /Story takes one picture/],
    ['split dunes.jpg --place sunpane/swipe-panels-square --panels 99 --out x', /from 2 to 20 panels/],
    ['weigh kites.jpg --limit heavy', /kB, MB or MiB/],
    ['weigh kites.jpg --limit 1MB --format bmp', /jpeg, png, webp, avif/],
    ['book export nowhere', /not there/],
    ['fly kites.jpg', /fly/],
  ];
  for (const [line, complaint] of wrong) {
    const { code, complained } = await run(...wordsOf(line));
    expect([line, code, complained]).toEqual([line, 1, expect.stringMatching(complaint)]);
  }
  expect(await client.projects()).toEqual(before);
  expect((await run('weigh', 'photos/note.txt', '--limit', '1MB', '--out', 'y')).code).toBe(2);
  expect((await run('frame', '--help')).said).toContain('Examples:');
});

test('rows of a series that miss a picture, or whose words find no room, are told of, and the rest is framed', async () => {
  const { code, said } = await run(
    ...wordsOf('frame photos kites.jpg --set "Weekly clip" --series odd.csv --out odd --json'),
  );
  expect(code).toBe(2);
  const { rows, refused } = z
    .object({ rows: z.array(z.object({ row: z.int(), reasons: z.array(z.string()) })), refused: z.array(z.unknown()) })
    .parse(JSON.parse(said));
  expect(rows).toEqual([
    {
      row: 2,
      reasons: [
        'Small Clip: There is no room where Title could be read. It is left out. Give it a short version, or make it shorter.',
      ],
    },
    { row: 3, reasons: ['No picture is called gone.jpg. Add it, or name one that is there.'] },
  ]);
  // The torn picture is in no row: nobody asked for it.
  expect(refused).toEqual([]);
  expect(manifestIn('odd').files.map(({ original, placeThen, words }) => [original, placeThen?.id, words])).toEqual([
    ['kites', 'own-small/clip', undefined],
    ['a', 'pipwire/header', undefined],
  ]);
});

test('an aim stands before what the set says', async () => {
  const { code, said } = await run(...wordsOf('frame kites.jpg --set "Weekly clip" --aim glance --out aimed --json'));
  expect(code).toBe(0);
  const { project } = z.object({ project: z.object({ id: z.string() }) }).parse(JSON.parse(said));
  const [frame] = (await client.open(project.id)).frames;
  expect(frame?.weighing).toEqual({ ...plainWeighing, aim: { kind: 'no heavier than it needs', level: 'glance' } });
});
