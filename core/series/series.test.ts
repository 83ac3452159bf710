import fc from 'fast-check';
import Papa from 'papaparse';
import { expect, test } from 'vitest';
import { itemsOnPicture } from '../lettering/index.ts';
import { testWords } from '../lettering/testFonts.ts';
import { type Lettering, LetteringSchema, type PlaceOfNetwork } from '../model/index.ts';
import {
  asOnAll,
  pastedCells,
  pictureFinder,
  placeFinder,
  type ReadingBy,
  readSeries,
  readTable,
  rowPictures,
  seriesTable,
  understood,
  withRows,
} from './index.ts';

const id = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
const picture = (number: number, name: string, bytes = number) => ({
  id: id(number),
  name,
  fileName: `${name.toLowerCase()}.jpg`,
  sha256: String(bytes).padStart(64, '0'),
  page: 0,
});
const [number, topic] = [
  testWords(1, 'Episode 1', { name: 'Number' }),
  testWords(2, 'Kites', { name: 'Topic', originalIds: [id(11)] }),
];
const items = [number, topic];
const project = [picture(11, 'Dunes'), picture(12, 'Café')];
const library = [...project, picture(13, 'Loft'), picture(14, 'Twin'), picture(15, 'TWIN', 99)];
const place = (network: string, slug: string, name: string) =>
  [`${network.toLowerCase()}/${slug}`, { network: { name: network }, place: { slug, name } }] as unknown as [
    string,
    PlaceOfNetwork,
  ];
const by: ReadingBy = {
  items,
  pictures: project,
  findPicture: pictureFinder(project, library),
  findPlace: placeFinder(
    new Map([place('Sunpane', 'story', 'Story'), place('Pipwire', 'story', 'Story'), place('Pipwire', 'card', 'Card')]),
  ),
};
const cellsOf = (text: string): string[][] => {
  const read = readTable(text);
  if ('unreadable' in read) throw new Error(read.unreadable);
  return read.cells;
};
const readIn = (text: string) => {
  const cells = cellsOf(text);
  return readSeries(cells, understood(cells, items, by.findPicture), by);
};

test('a table is read as a spreadsheet gives it: by its heads, or by what stands in it', () => {
  const words = (first: string, second: string) => ({
    [number.id]: { text: first, short: '' },
    [topic.id]: { text: second, short: '' },
  });
  const rows = [
    { originalId: id(12), name: null, words: words('Episode 12', 'Baking;\nwith wind'), placeIds: null },
    { originalId: id(13), name: null, words: words('Episode 13', ''), placeIds: null },
  ];
  const withTabs = 'cafe.JPG\tEpisode 12\t"Baking;\nwith wind"\n\t\t\n  loft\tEpisode 13\t\n';
  expect(readIn(withTabs).map(({ row }) => row)).toEqual(rows);
  const withHeads =
    '\uFEFFTopic;Picture;Mood;number\r\n"Baking;\nwith wind";photos/Café.jpg;good;Episode 12\r\n;Loft;;Episode 13\r\n';
  expect(readIn(withHeads)).toEqual([
    { number: 2, picture: 'photos/Café.jpg', row: rows[0], problems: [] },
    { number: 3, picture: 'Loft', row: rows[1], problems: [] },
  ]);
  // Without a column of pictures the rows are about those of the project, in their order.
  expect(readIn('Number\n7\n8\n9').map(({ row, problems }) => row?.originalId ?? problems[0])).toEqual([
    id(11),
    id(12),
    'There is no picture for it: the project has 2. Add one, or give the table a column that names pictures.',
  ]);
  // A short version, a name and places are columns of their own.
  const [whole] = readIn(
    'picture,name,places,number,short number\nDunes,Dunes 12,"Sunpane story, pipwire/card",Episode 12,12',
  );
  expect(whole?.row).toEqual({
    originalId: id(11),
    name: 'Dunes 12',
    words: { [number.id]: { text: 'Episode 12', short: '12' } },
    placeIds: ['sunpane/story', 'pipwire/card'],
  });
});

test('a row that is wrong says why, and the others are read', () => {
  const rows = readIn(
    `picture,places,number\nNowhere,,1\nTwin,,2\nDunes,"Story, Moon",${'x'.repeat(601)}\nLoft,card,4`,
  );
  expect(rows.map(({ row, problems }) => (row ? row.placeIds : problems))).toEqual([
    ['No picture is called Nowhere. Add it, or name one that is there.'],
    ['Several pictures are called Twin. Give them different names, and name one.'],
    [
      'Number: Words can have at most 600 characters.',
      expect.stringMatching(/^Story is no place, or more than one/),
      expect.stringMatching(/^Moon is no place/),
    ],
    ['pipwire/card'],
  ]);
  expect([pastedCells('one, two'), pastedCells('one\r\n'), pastedCells('a\t"b\nc"\n\nd')]).toEqual([
    null,
    [['one']],
    [['a', 'b\nc'], [''], ['d']],
  ]);
  expect(readTable(' \n')).toEqual({ unreadable: expect.stringContaining('empty') });
  expect(readTable('a,"b\nc')).toEqual({ unreadable: expect.stringContaining('breaks off in row 1') });
  expect(readTable('x\n'.repeat(502))).toEqual({ unreadable: expect.stringContaining('502 rows') });
  expect(readTable(`a${','.repeat(40)}`)).toEqual({ unreadable: expect.stringContaining('41 columns') });
});

test('whatever stands in cells, a table that a program has written is read as it was', () => {
  const cell = fc
    .string({ unit: fc.constantFrom('a', ' ', '"', ',', ';', '\t', '\n', 'é'), maxLength: 8 })
    .map((text) => text.trim());
  const table = fc
    .array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 6 })
    // The first row says what lies between cells.
    .map((rows): string[][] => [
      ['picture', 'number', 'topic'],
      ...rows.filter((row) => row.some((one) => one !== '')),
    ]);
  fc.assert(
    fc.property(table, fc.constantFrom(',', ';', '\t'), (rows, delimiter) => {
      expect(cellsOf(Papa.unparse(rows, { delimiter }))).toEqual(rows);
    }),
  );
});

test('a series that is written as a table is read as it was, and words go back to those of all pictures', () => {
  const own = { [id(11)]: { text: 'One;\n"two"', short: '1' }, [id(12)]: { text: '', short: '' } };
  const lettering = [{ ...number, onPictures: own }, topic];
  const rows = readIn(seriesTable(lettering, project, () => ['sunpane/story']));
  expect(rows.map(({ row }) => row?.words)).toEqual([
    { [number.id]: own[id(11)], [topic.id]: { text: 'Kites', short: '' } },
    { [number.id]: own[id(12)], [topic.id]: { text: '', short: '' } },
  ]);
  expect(rows[0]?.row?.placeIds).toEqual(['sunpane/story']);
  const back = [11, 12].reduce<Lettering>((all, one) => asOnAll(all, number.id, id(one)), lettering);
  expect(back).toEqual([number, topic]);
  expect(asOnAll(items, topic.id, id(12))[1]?.originalIds).toEqual([id(11), id(12)]);
});

test('rows that name one picture get copies of it, and find those when they are read again', () => {
  const rows = [11, 11, 12, 11].map((one) => ({ originalId: id(one) }));
  expect(rowPictures(rows, project)).toEqual([
    { originalId: id(11) },
    { copyOf: id(11) },
    { originalId: id(12) },
    { copyOf: id(11) },
  ]);
  const then = [...project, picture(21, 'Dunes 2', 11), picture(22, 'Dunes 3', 11)];
  expect(rowPictures(rows, then)).toEqual([11, 21, 12, 22].map((one) => ({ originalId: id(one) })));
});

test('each picture says what its row says, follows the design in all else, and an empty cell leaves an item out', () => {
  const say = (originalId: string, text: string, copyOf: string | null = null) => ({
    originalId,
    copyOf,
    words: { [number.id]: { text, short: '' }, [topic.id]: { text: `About ${text}`, short: '' } },
  });
  const said = (lettering: Lettering, original: number) =>
    itemsOnPicture(lettering, id(original)).map((item) => (item.kind === 'words' ? item.text : ''));
  const laid = LetteringSchema.parse(
    withRows(items, [say(id(11), 'Two'), say(id(12), ''), say(id(21), 'Three', id(11))]),
  );
  expect([11, 12, 21, 13].map((one) => said(laid, one))).toEqual([
    ['Two', 'About Two'],
    // An item that is left out here is one that was shown on some pictures only; it has words for this one.
    ['About '],
    ['Three', 'About Three'],
    ['Episode 1'],
  ]);
  // Words that are the item's own follow it from then on.
  const same = withRows(laid, [say(id(11), 'Episode 1')]);
  expect(same[0]).toMatchObject({ onPictures: { [id(12)]: { text: '' }, [id(21)]: { text: 'Three' } } });
  expect(
    said(
      same.map((item) => (item.kind === 'words' ? { ...item, text: `${item.text}!` } : item)),
      11,
    )[0],
  ).toBe('Episode 1!');
  // A copy says what the picture says that it was made from, where its row does not say otherwise.
  const copied = withRows(laid, [{ originalId: id(30), copyOf: id(11), words: {} }]);
  expect(said(copied, 30)).toEqual(['Two', 'About Two']);
});
