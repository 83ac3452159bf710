import { randomUUID } from 'node:crypto';
import { shippedStyles } from '@inkwell/core/lettering';
import {
  type OpenProject,
  OpenProjectSchema,
  RowFindingsSchema,
  type Series,
  type WordsItem,
} from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { startProgram } from '../testing/programs/program.ts';

const { client } = await startProgram();

const title: WordsItem = {
  kind: 'words',
  id: randomUUID(),
  name: 'Title',
  role: 'title',
  text: 'Episode 1',
  short: '',
  originalIds: null,
  notOn: [],
  notOnPlaces: [],
  onPieces: 'first',
  wish: 'top left',
  wanted: 0.15,
  style: (shippedStyles[0] as (typeof shippedStyles)[0]).style,
};
const said = (text: string) => ({ [title.id]: { text, short: '' } });
const picture = async (name: string, background: string) => {
  const flat = sharp({ create: { width: 900, height: 900, channels: 3, background } });
  return client.original(await flat.png().toBuffer(), `${name}.png`);
};
const placeIds = ['sunpane/square-post', 'pipwire/header'];
const take = (project: OpenProject, series: Series, version = project.version) =>
  client.ask('POST', `/projects/${project.id}/series`, { version, series });

test('rows become frames with their own words; changing one changes its frames alone, and what is wrong is told before', async () => {
  const [dune, loft] = [await picture('dune', '#778899'), await picture('loft', '#998877')];
  const bare = await client.project('Series', [dune], []);
  const change = { lettering: [title] };
  const answer = await client.ask('PATCH', `/projects/${bare.id}/settings`, { version: bare.version, change });
  const project = OpenProjectSchema.parse(answer.body);
  const row = (originalId: string, text: string, name: string | null = null) => ({
    originalId,
    name,
    words: said(text),
    placeIds: null,
  });
  const series: Series = {
    rows: [
      row(dune.id, 'Episode 12'),
      { ...row(loft.id, 'Wind '.repeat(110), 'Loft 12'), placeIds: ['sunpane/profile-picture'] },
      row(dune.id, 'Episode 13'),
      row(dune.id, ''),
    ],
    placeIds,
  };
  const found = z
    .array(RowFindingsSchema)
    .parse((await client.ask('POST', `/projects/${project.id}/series/check`, series)).body);
  expect(found.map(({ findings }) => findings)).toEqual([
    [],
    [
      'Sunpane Profile picture: There is no room where Title could be read. It is left out. Give it a short version, or make it shorter.',
    ],
    [],
    [],
  ]);
  expect(await client.open(project.id)).toEqual(project);
  const taken = OpenProjectSchema.parse((await take(project, series)).body);
  expect(taken.originals.map(({ name }) => name)).toEqual(['dune', 'Loft 12', 'dune 2', 'dune 3']);
  expect(taken.frames).toHaveLength(7);
  const { files } = await client.deliver(project.id);
  const words = files.map((file) => [file.original, file.placeThen?.id, file.words] as const);
  expect(words.filter(([, placeId]) => placeId === 'pipwire/header')).toEqual([
    ['dune', 'pipwire/header', ['Episode 12']],
    ['dune 2', 'pipwire/header', ['Episode 13']],
    ['dune 3', 'pipwire/header', undefined],
  ]);
  // The same table once more finds what it has made: only what it says otherwise changes.
  const before = new Map((await client.weights(project.id)).map((one) => [one.frameId, one.planHash]));
  const rows = series.rows.map((one, at) => (at === 2 ? row(dune.id, 'Episode 14') : one));
  const again = OpenProjectSchema.parse((await take(taken, { ...series, rows })).body);
  expect(again.originals).toHaveLength(4);
  const changed = (await client.weights(project.id)).filter(
    ({ frameId, planHash }) => before.get(frameId) !== planHash,
  );
  const copy = again.originals[2]?.id;
  expect(changed.map(({ frameId }) => again.frames.find(({ id }) => id === frameId)?.originalId)).toEqual([copy, copy]);
});

test('a series is taken whole or not at all', async () => {
  const dune = await picture('sand', '#887766');
  const project = await client.project('Whole', [dune], []);
  const rows = [1, 2].map((number) => ({ originalId: dune.id, name: null, words: said(`${number}`), placeIds: null }));
  const refused = await take(project, { rows, placeIds: ['sunpane/square-post', 'sunpane/moon'] });
  expect(refused).toMatchObject({ status: 422, body: { message: 'There is no place sunpane/moon in the spec book.' } });
  const late = await take(project, { rows, placeIds }, project.version + 1);
  expect(late).toMatchObject({ status: 409, body: { current: { id: project.id } } });
  const gone = { rows: [{ originalId: randomUUID(), name: null, words: {}, placeIds: null }], placeIds };
  expect((await take(project, gone)).status).toBe(404);
  expect(await take(project, { rows: [], placeIds })).toMatchObject({
    status: 400,
    body: { message: expect.stringContaining('at least one row') },
  });
  expect(await client.open(project.id)).toEqual(project);
});
