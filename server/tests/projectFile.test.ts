import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { shippedFinishes } from '@inkwell/core/finishing';
import { shippedStyles } from '@inkwell/core/lettering';
import {
  FinishSchema,
  type Lettering,
  OpenProjectSchema,
  OriginalSchema,
  type Place,
  ProjectFileSchema,
  SpecSheetSchema,
} from '@inkwell/core/model';
import { expect, test } from 'vitest';
import yazl from 'yazl';
import { z } from 'zod';
import { fontFile } from '../testing/fonts.ts';
import { chart } from '../testing/pictures/pictures.ts';
import type { Client } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';
import { unzip } from '../testing/unzip.ts';

const [{ client: here }, { client: there }] = [await startProgram(), await startProgram()];
const published = join(import.meta.dirname, '..', '..', 'docs', 'formats', 'project.schema.json');

const Taken = z.object({
  project: OpenProjectSchema,
  notes: z.array(z.object({ text: z.string(), isLoss: z.boolean() })),
});
const take = (client: Client, file: Buffer, query = '') => client.sendFile(`/projects/file${query}`, file, 'a.zip');
const taken = async (client: Client, file: Buffer, query = '') => Taken.parse((await take(client, file, query)).body);

const common = { originalIds: null, notOn: [], notOnPlaces: [], onPieces: 'first' as const };
type WrittenPlace = Partial<Place> & { slug: string };
const places = (limit: number): WrittenPlace[] => [
  {
    slug: 'clip',
    name: 'Clip',
    purpose: 'post',
    width: 640,
    height: 360,
    formats: ['jpeg'],
    shownWidths: [320],
    limit: { bytes: limit, unit: 'kB' },
  },
  {
    slug: 'dot',
    name: 'Dot',
    purpose: 'profile',
    width: 200,
    height: 200,
    formats: ['png'],
    shownWidths: [100],
    limit: { bytes: 400_000, unit: 'kB' },
    shape: 'circle',
  },
];

/** A project that uses what people can make: marks, a sheet, a finish, a font, an emblem, words that differ. */
async function made() {
  const [dune, loft] = [
    await here.original(await chart(900, 700).jpeg().toBuffer(), 'dune.jpg'),
    await here.original(await chart(500, 800).png().toBuffer(), 'loft.png'),
  ];
  const logo = await here.original(await chart(80, 60).png().toBuffer(), 'logo.png');
  const mark = {
    id: randomUUID(),
    role: 'keep',
    priority: 'must',
    shape: 'rectangle',
    name: 'Kite',
    left: 20,
    top: 30,
    width: 200,
    height: 150,
    look: null,
  };
  const set = await here.ask('PATCH', `/originals/${dune.id}/settings`, {
    version: dune.version,
    change: { marks: [mark] },
  });
  expect(set.status).toBe(200);
  const { treatment } = shippedFinishes.find(({ id }) => id === 'crisp') ?? shippedFinishes[0] ?? { treatment: {} };
  const finish = FinishSchema.parse(
    (
      await here.ask('POST', '/finishes', {
        name: 'Dry',
        description: '',
        treatment: { ...treatment, saturation: 0.4 },
      })
    ).body,
  );
  const font = z
    .object({ id: z.string() })
    .parse((await here.sendFile('/fonts', readFileSync(fontFile('caveat')), 'caveat.ttf')).body);
  const style = (shippedStyles[0] as (typeof shippedStyles)[0]).style;
  const { sha256, page, width, height, hasAlpha } = logo;
  const lettering: Lettering = [
    {
      ...common,
      kind: 'words',
      id: randomUUID(),
      name: 'Title',
      role: 'title',
      text: 'Kites',
      short: '',
      onPictures: { [loft.id]: { text: 'Loft', short: '' } },
      wish: 'top left',
      wanted: 0.2,
      style: { ...style, family: font.id, weight: 700 },
    },
    {
      ...common,
      kind: 'emblem',
      id: randomUUID(),
      name: 'Logo',
      originalId: logo.id,
      picture: { sha256, page, width, height, hasAlpha },
      wish: 'bottom right',
      wanted: 0.2,
      clearSpace: 0.1,
      plate: null,
    },
  ];
  const ids = [...(await here.sheet('Gull', places(60_000))), 'sunpane/square-post'];
  const project = await here.project('Week 1', [dune, loft], ids);
  const change = { lettering, finishId: finish.id, pattern: '{name}-{place}' };
  const { body } = await here.ask('PATCH', `/projects/${project.id}/settings`, { version: project.version, change });
  return OpenProjectSchema.parse(body);
}

const project = await made();
const delivered = await here.deliver(project.id);
const file = await here.bytes(`/projects/${project.id}/file`);
const hashes = (delivery: typeof delivered) => delivery.files.map(({ file: name, sha256 }) => [name, sha256]);

/** The file with some of its parts replaced, or left out. */
async function changed(parts: Record<string, Buffer | null>): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [name, data] of Object.entries({ ...Object.fromEntries(await unzip(file)), ...parts })) {
    if (data) zip.addBuffer(data, name);
  }
  zip.end();
  return buffer(zip.outputStream);
}
const text = async () => ProjectFileSchema.parse(JSON.parse((await unzip(file)).get('project.json')?.toString() ?? ''));

test('a project that goes to another machine gives files with the same bytes there, and brings what it needs', async () => {
  expect(delivered.leftOut).toEqual([]);
  expect(delivered.files).toHaveLength(6);
  const { project: copy, notes } = await taken(there, file);
  expect(notes).toEqual([{ text: 'The sheet Gull came with it, as a sheet of your own.', isLoss: false }]);
  expect(hashes(await there.deliver(copy.id))).toEqual(hashes(delivered));
  expect(copy.originals[0]?.marks).toMatchObject([{ name: 'Kite', left: 20 }]);
  // What is published is what the program writes.
  const schema = JSON.parse(JSON.stringify(z.toJSONSchema(ProjectFileSchema)));
  if (process.env.INKWELL_PUBLISH) writeFileSync(published, `${JSON.stringify(schema, null, 2)}\n`);
  expect(schema).toEqual(JSON.parse(readFileSync(published, 'utf8')));
});

test('on the machine that it is from it uses the pictures, sheets and finishes that are there', async () => {
  const library = async () => {
    const [originals, finishes] = [await here.ask('GET', '/originals'), await here.ask('GET', '/finishes')];
    const listed = z.object({ finishes: z.array(FinishSchema) }).parse(finishes.body).finishes;
    return [...z.array(OriginalSchema).parse(originals.body), ...listed].map(({ id }) => id);
  };
  const before = await library();
  const { project: copy, notes } = await taken(here, file);
  expect(notes).toEqual([]);
  expect(copy.originals).toEqual(project.originals);
  expect(await library()).toEqual(before);
});

test('where a sheet says something else it is asked whose hold, and nothing is taken before', async () => {
  const { body } = await there.ask('GET', '/spec-book');
  const sheet = z
    .array(SpecSheetSchema)
    .parse(body)
    .find(({ name }) => name === 'Gull');
  const content = { name: 'Gull', kind: 'made up', checkedOn: '2026-11-02', places: places(30_000) };
  const words = { savedBy: '', note: '' };
  const saved = await there.ask('PATCH', `/sheets/${sheet?.own?.id}`, {
    version: sheet?.own?.version,
    change: { content, words },
  });
  expect(saved.status).toBe(200);
  const before = await there.projects();
  expect(await take(there, file)).toMatchObject({
    status: 409,
    body: { conflicts: [{ name: 'Gull', places: ['Clip'] }], message: expect.stringContaining('Gull (Clip)') },
  });
  expect(await there.projects()).toEqual(before);
  const byHere = await taken(there, file, '?sheets=here');
  expect(byHere.project.frames.map(({ placeId }) => placeId).filter((id) => id === `${sheet?.slug}/clip`)).toHaveLength(
    2,
  );
  const byFile = await taken(there, file, '?sheets=file');
  expect(hashes(await there.deliver(byFile.project.id)).map(([, sha256]) => sha256)).toEqual(
    hashes(delivered).map(([, sha256]) => sha256),
  );
  // A place that takes no such frame any more, or is not there, is told of.
  const known = await text();
  const [frame] = known.frames;
  const lost = { ...known, frames: [...known.frames, { ...frame, placeId: 'gone/story' }] };
  const { notes } = await taken(
    there,
    await changed({ 'project.json': Buffer.from(JSON.stringify(lost)) }),
    '?sheets=here',
  );
  expect(notes).toEqual([
    { text: '1 frame was left out. There is no place gone/story in the spec book.', isLoss: true },
  ]);
});

test('a file that is damaged, or none, is refused in words and leaves nothing', async () => {
  const known = await text();
  const [first] = known.originals;
  const entry = `originals/${first?.sha256}`;
  const asText = (value: unknown) => ({ 'project.json': Buffer.from(JSON.stringify(value)) });
  const wrong: [Buffer, RegExp][] = [
    [Buffer.from('no archive'), /^This is no project file: it cannot be read as an archive/],
    [await changed({ 'project.json': null }), /it has no project\.json/],
    [await changed({ 'project.json': Buffer.from('{') }), /project\.json is no JSON/],
    [await changed({ [entry]: null }), /^This project file is damaged: originals\/.* is missing\. Nothing was taken/],
    [await changed({ [entry]: Buffer.from('other') }), /does not have the bytes/],
    [await changed({ [entry]: Buffer.alloc((first?.bytes ?? 0) + 1) }), /larger than it can be/],
    [await changed(asText({ ...known, projectFile: 2 })), /version 2 of its format; this program reads version 1/],
    [await changed(asText({ ...known, name: '' })), /name: A name needs at least one character/],
    [file.subarray(0, file.length - 30), /archive|damaged/],
    [
      await changed(
        asText({
          ...known,
          originals: known.originals.map((one) => ({ ...one, trim: { left: 0, top: 0, width: 9999, height: 9 } })),
        }),
      ),
      /reaches past the picture/,
    ],
  ];
  const state = async () => [await there.projects(), (await there.ask('GET', '/originals')).body];
  const before = await state();
  for (const [data, words] of wrong) {
    const { status, body } = await take(there, data, '?sheets=here');
    expect([status, body]).toEqual([422, expect.objectContaining({ message: expect.stringMatching(words) })]);
  }
  expect(await state()).toEqual(before);
});
