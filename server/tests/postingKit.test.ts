import { execFile } from 'node:child_process';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { type Manifest, ManifestSchema } from '@inkwell/core/model';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import papaparse from 'papaparse';
import sharp from 'sharp';
import { expect, inject, test } from 'vitest';
import yazl from 'yazl';
import { z } from 'zod';
import { bundled } from '../bundling/bundle.ts';
import { verifyArchive } from '../tasks/verifying/verifyArchive.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';
import { unzip } from '../testing/unzip.ts';

const root = join(import.meta.dirname, '..', '..');
const { client } = await startProgram();

const original = await client.original(await chart(3600, 1500).jpeg().toBuffer(), 'Kites.jpg');
await client.ask('PATCH', `/originals/${original.id}/settings`, {
  version: original.version,
  change: { words: { credit: '', copyright: '', altText: 'Kites <over> the dunes' } },
});
const project = await client.project(
  'Kite week',
  [original],
  ['pipwire/header', 'sunpane/profile-quilt', 'pipwire/pair'],
);
await client.ask('PATCH', `/projects/${project.id}/settings`, {
  version: project.version,
  change: { posting: { caption: 'Come & fly', tags: '=kites' } },
});
const header = project.frames.find(({ placeId }) => placeId === 'pipwire/header');
await client.ask('PATCH', `/frames/${header?.id}`, {
  version: 1,
  change: { posting: { altText: 'One kite', caption: '-none-', tags: null } },
});
const delivery = await client.deliver(project.id);
const archive = await client.bytes(`/deliveries/${delivery.id}/archive`);
const entries = await unzip(archive);
const text = (name: string) => entries.get(name)?.toString('utf8') ?? '';
const manifest: Manifest = ManifestSchema.parse(JSON.parse(text('manifest.json')));

/** The same archive with some of its files replaced; null leaves one out. Returns its path. */
async function changed(name: string, changes: Record<string, Buffer | string | null>): Promise<string> {
  const zip = new yazl.ZipFile();
  for (const [path, data] of new Map<string, Buffer | string | null>([...entries, ...Object.entries(changes)])) {
    if (data !== null) zip.addBuffer(Buffer.from(data), path);
  }
  zip.end();
  const path = join(inject('dataFolder'), `${name}.zip`);
  await writeFile(path, await buffer(zip.outputStream));
  return path;
}

test('the archive is the kit: in posting order, with a manifest, a table and a page, and the same bytes in any time zone', async () => {
  expect(manifest.files.map(({ file }) => file.split('/').slice(0, 2).join('/'))).toEqual([
    'Pipwire/1 Header',
    'Pipwire/2 Pair',
    'Pipwire/2 Pair',
    ...Array.from({ length: 6 }, () => 'Sunpane/1 Profile quilt'),
  ]);
  expect([...entries.keys()]).toEqual([
    ...manifest.files.map(({ file }) => file),
    'manifest.json',
    'posting.csv',
    'posting.html',
  ]);
  const zone = process.env.TZ;
  try {
    process.env.TZ = 'Pacific/Chatham';
    expect((await client.bytes(`/deliveries/${delivery.id}/archive`)).equals(archive)).toBe(true);
  } finally {
    process.env.TZ = zone ?? 'UTC';
  }
  const [first] = manifest.files;
  expect(first).toMatchObject({
    placeThen: { id: 'pipwire/header', sheet: { slug: 'pipwire' }, spec: { width: 1500, height: 500 } },
    posting: { altText: 'One kite', caption: '-none-', tags: '=kites' },
  });
  const published = JSON.parse(await readFile(join(root, 'docs', 'formats', 'manifest.schema.json'), 'utf8'));
  expect(JSON.parse(JSON.stringify(z.toJSONSchema(ManifestSchema)))).toEqual(published);
  const ajv = new Ajv2020({ strict: false });
  addFormats.default(ajv);
  expect(ajv.validate(published, JSON.parse(text('manifest.json'))), ajv.errorsText()).toBe(true);

  const rows = papaparse.parse<Record<string, string>>(text('posting.csv').replace('\uFEFF', ''), {
    header: true,
    skipEmptyLines: true,
  }).data;
  expect(rows).toHaveLength(9);
  expect(rows[0]).toMatchObject({
    Network: 'Pipwire',
    File: manifest.files[0]?.file,
    Caption: "'-none-",
    Tags: "'=kites",
    Width: '1500',
  });
  expect(rows[2]).toMatchObject({ Post: '1', 'Alternative text': 'Kites <over> the dunes (2 of 2)' });
  expect(rows[8]).toMatchObject({ Post: '6', Place: 'Profile quilt' });
  const page = text('posting.html');
  expect(page).toContain('Kites &lt;over&gt; the dunes');
  expect(page).toContain('Come &amp; fly');
  expect(page).toContain('Post 1 of 6: row 2, column 3');
  expect(page).not.toMatch(/<script|https?:/);
});

test('one network, one file, and a file in small can be had; posts are ticked, for everybody, and stay so', async () => {
  const only = await unzip(await client.bytes(`/deliveries/${delivery.id}/archive?network=Sunpane`));
  expect([...only.keys()].filter((path) => path.includes('/')).every((path) => path.startsWith('Sunpane/'))).toBe(true);
  expect(await client.ask('GET', `/deliveries/${delivery.id}/archive?network=Nowhere`)).toMatchObject({ status: 404 });
  const [line] = delivery.files;
  const address = `/deliveries/${delivery.id}/file?name=${line?.file}`;
  expect((await client.bytes(address)).equals(entries.get(manifest.files[0]?.file ?? '') ?? Buffer.alloc(0))).toBe(
    true,
  );
  expect(await sharp(await client.bytes(`${address}&width=300`)).metadata()).toMatchObject({
    width: 300,
    format: 'webp',
  });
  const tick = (post: string | undefined, posted: boolean) =>
    client.ask('POST', `/deliveries/${delivery.id}/posted`, { post, posted });
  const tiles = delivery.files.filter(({ place }) => place === 'Profile quilt').map(({ file }) => file);
  await Promise.all([tick(tiles[0], true), tick(tiles[0], true), tick(tiles[1], true)]);
  expect((await tick(tiles[1], false)).body).toEqual([tiles[0]]);
  expect((await client.ask('GET', `/deliveries/${delivery.id}/posted`)).body).toEqual([tiles[0]]);
  // The second of a pair goes up with the first: it is no post.
  const second = delivery.files.filter(({ place }) => place === 'Pair')[1];
  expect(await tick(second?.file, true)).toMatchObject({ status: 404 });
});

test('an archive is verified without a database: what was changed, taken out or put in is found', async () => {
  const path = join(inject('dataFolder'), 'kit.zip');
  await writeFile(path, archive);
  expect(await verifyArchive(path)).toMatchObject({ manifest: { project: 'Kite week' }, observations: [] });
  const [first, second] = manifest.files.map(({ file }) => file) as [string, string];
  const other = await chart(1500, 500).jpeg({ quality: 50 }).toBuffer();
  const { observations } = await verifyArchive(
    await changed('changed', { [first]: other, [second]: null, 'Sunpane/stray.jpg': other }),
  );
  expect(observations.map(({ path: file, isWrong, text }) => [file, isWrong, text])).toEqual([
    [first, true, expect.stringContaining('SHA-256')],
    [second, true, expect.stringContaining('not in the archive')],
    ['Sunpane/stray.jpg', true, expect.stringContaining('does not list it')],
  ]);
  // A manifest that was changed with its files does not help: the place as it was is held as well.
  const lying = {
    ...manifest,
    files: manifest.files.map((line, at) =>
      at > 0
        ? line
        : {
            ...line,
            limitBytes: 10,
            placeThen: {
              ...line.placeThen,
              spec: { ...line.placeThen?.spec, width: 1400, limit: { bytes: 1000, unit: 'kB' } },
            },
          },
    ),
  };
  const told = await verifyArchive(await changed('lying', { 'manifest.json': JSON.stringify(lying) }));
  expect(told.observations.map(({ text }) => text)).toEqual([
    'It is 1500 × 500 px; Header wants 1400 × 500 px.',
    expect.stringMatching(/^It weighs \d+ kB; Header takes 1 kB\.$/),
  ]);
  for (const [name, content, words] of [
    ['old', JSON.stringify({ ...manifest, manifest: 1 }), 'version 1'],
    ['later', JSON.stringify({ ...manifest, manifest: 3 }), 'with the program that made it'],
    ['torn', '{"manifest": 2', 'no JSON'],
    ['half', JSON.stringify({ ...manifest, files: [{}] }), 'files.0'],
    ['none', null, 'no archive of a delivery'],
  ] as const) {
    await expect(verifyArchive(await changed(name, { 'manifest.json': content }))).rejects.toThrow(words);
  }
  const cut = join(inject('dataFolder'), 'cut.zip');
  await writeFile(cut, archive.subarray(0, archive.length - 4000));
  await expect(verifyArchive(cut)).rejects.toThrow('cannot be read as an archive');
});

test('the command says what it found, and ends with 0, 2 or 1', async () => {
  const run = (...args: string[]) =>
    new Promise<{ code: number; said: string }>((resolve) => {
      const child = execFile(
        process.execPath,
        [bundled('commandLine'), 'verify', ...args],
        { cwd: root },
        (_, out, err) => resolve({ code: child.exitCode ?? -1, said: out + err }),
      );
    });
  const path = join(inject('dataFolder'), 'right.zip');
  await writeFile(path, archive);
  expect(await run(path)).toMatchObject({
    code: 0,
    said: expect.stringContaining('9 files, all as they were delivered'),
  });
  const wrong = await changed('wrong', { [manifest.files[0]?.file ?? '']: null });
  expect(await run(wrong)).toMatchObject({ code: 2, said: expect.stringContaining('9 files, 1 wrong') });
  expect(await run()).toMatchObject({ code: 1, said: expect.stringContaining('archive') });
  expect(await run('/nowhere.zip')).toMatchObject({ code: 1, said: 'There is no file /nowhere.zip.\n' });
});
