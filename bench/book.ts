import { anyPlace, findPlaces } from '@inkwell/core/bookkeeping';
import { type SheetContent, SheetContentSchema, type SheetFile, SpecSheetSchema } from '@inkwell/core/model';
import { bookAsCsv } from '@inkwell/server/tasks/book/bookFiles.ts';
import { chart } from '@inkwell/server/testing/pictures/pictures.ts';
import type { Client } from '@inkwell/server/testing/programs/client.ts';
import { z } from 'zod';
import { quantile } from './browser.ts';
import { Program } from './program.ts';
import { timed } from './timed.ts';

const sheetCount = 200;
const placesEach = 15;
const [projects, pictures] = [40, 50];
const rounds = 60;

interface BookFigures {
  places: number;
  frames: number;
  /** Milliseconds: the 95th of a hundred, and of the same for the book as it ships. */
  list: { p95: number; shipped: number };
  search: { p95: number };
  /** Milliseconds from the file to the plan, and to all of it in the book. */
  look: number;
  take: number;
  /** Milliseconds until the effect of one number is known: a limit, a height, and a range of ratios; each asked for the first time. */
  effects: { limit: number; height: number; ratios: number };
}

const p95 = (times: readonly number[]): number => quantile(times, 0.95);

/** A book of many sheets, all made up by counting. */
function largeBook(): SheetFile[] {
  return Array.from({ length: sheetCount }, (_, number) => ({
    slug: `own-network-${number}`,
    ...SheetContentSchema.parse({
      name: `Network ${number}`,
      kind: 'made up by counting',
      checkedOn: '2026-11-02',
      places: Array.from({ length: placesEach }, (__, at) => ({
        slug: `place-${at}`,
        name: `Place ${at} of ${number}`,
        purpose: ['post', 'story', 'banner', 'profile'][at % 4],
        width: 64 + ((number * 7 + at * 13) % 2000),
        height: 64 + ((number * 11 + at * 5) % 2000),
        formats: at % 3 === 0 ? ['jpeg', 'png', 'webp'] : ['jpeg', 'png'],
        limit: { bytes: 500_000 + number * 1000, unit: 'kB' },
        covered: at % 4 === 1 ? [{ left: 0, top: 0, width: 40, height: 10, reason: 'controls' }] : [],
        shownWidths: [40],
      })),
    }),
  }));
}

const bookOf = async (client: Client) => z.array(SpecSheetSchema).parse((await client.ask('GET', '/spec-book')).body);

async function listTimes(client: Client): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < rounds; round += 1) times.push(await timed(() => client.bytes('/spec-book')));
  return p95(times);
}

/** A sheet with one small place, and frames of many projects that are made for it. */
async function manyFrames(client: Client): Promise<{ id: string; content: SheetContent; frames: number }> {
  const content = SheetContentSchema.parse({
    name: 'Asked about',
    kind: 'made up',
    checkedOn: '2026-11-02',
    places: [
      {
        slug: 'small',
        name: 'Small',
        purpose: 'post',
        width: 64,
        height: 64,
        formats: ['jpeg', 'png'],
        limit: { bytes: 100_000, unit: 'kB' },
      },
    ],
  });
  const words = { savedBy: '', note: '' };
  const { slug, own } = SpecSheetSchema.parse((await client.ask('POST', '/sheets', { content, words })).body);
  const originals = [];
  for (let at = 0; at < pictures; at += 1) {
    originals.push(
      await client.original(
        await chart(160 + at, 120)
          .png()
          .toBuffer(),
        `chart-${at}.png`,
      ),
    );
  }
  let frames = 0;
  for (let at = 0; at < projects; at += 1) {
    const project = await client.project(`Week ${at}`, originals, [`${slug}/small`]);
    frames += project.frames.length;
    if (at === 0 || at === projects - 1) await client.measured(project.id);
  }
  return { id: own?.id ?? '', content, frames };
}

/** What it takes to work with a spec book of thousands of places, through the running program. */
async function bookFigures(): Promise<BookFigures> {
  const program = await Program.start();
  const { client } = program;
  try {
    const shipped = await listTimes(client);
    const sheets = largeBook();
    const text = bookAsCsv(sheets);
    const look = await timed(() => client.ask('POST', '/spec-book/import', { text }));
    const wanted = sheets.map(({ slug }) => ({ slug, version: null }));
    const take = await timed(async () => {
      const { status } = await client.ask('POST', '/spec-book/import/take', { text, take: wanted });
      if (status !== 200) throw new Error(`The book was not taken: ${status}.`);
    });
    const list = await listTimes(client);
    const book = await bookOf(client);
    const queries = ['story', '1080', 'place 7 of 12', 'network 9 webp', 'banner jpeg', 'nothing like this'];
    const searches = Array.from({ length: rounds }, (_, at) => {
      const began = performance.now();
      findPlaces(book, { ...anyPlace, text: queries[at % queries.length] ?? '' });
      return performance.now() - began;
    });
    const { id, content, frames } = await manyFrames(client);
    const effect = (change: object) =>
      timed(async () => {
        const places = content.places.map((place) => ({ ...place, ...change }));
        const { status } = await client.ask('POST', `/sheets/${id}/effects`, { content: { ...content, places } });
        if (status !== 200) throw new Error(`The effect was not told: ${status}.`);
      });
    const otherDimensions = { kind: 'ratios', least: 0.5, most: 2, leastSide: 32, mostSide: 200 };
    const effects = {
      limit: await effect({ limit: { bytes: 900, unit: 'kB' } }),
      height: await effect({ height: 80 }),
      ratios: await effect({ otherDimensions }),
    };
    const places = book.reduce((sum, sheet) => sum + sheet.places.length, 0);
    return { places, frames, list: { p95: list, shipped }, search: { p95: p95(searches) }, look, take, effects };
  } finally {
    await program.stop();
  }
}

const ms = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} ms`;

/** What a large spec book costs, as a section of the results. */
export async function bookSection(): Promise<string> {
  const { places, frames, list, search, look, take, effects } = await bookFigures();
  return `## The spec book
A book of ${sheetCount} sheets and ${places} places with those that ship, through the running program; frames of ${projects} projects at one place.

| | measured | aim |
|---|---|---|
| the book, listed over HTTP, p95 of ${rounds} | **${ms(list.p95)}**, ${(list.p95 / list.shipped).toFixed(1)} times the book as it ships | under 100 ms |
| places found in it, p95 of ${rounds} | **${ms(search.p95)}** | under 100 ms |
| ${sheetCount * placesEach} rows of a table looked at, line by line | **${ms(look)}** | |
| all of them taken into the book | **${ms(take)}** | looked at and taken under 3 s |
| the effect of a lower limit on ${frames} frames, asked for the first time | **${ms(effects.limit)}** | under 2 s |
| of another height | **${ms(effects.height)}** | under 2 s |
| of a range of ratios, each frame composed at all of them | **${ms(effects.ratios)}** | under 2 s |
`;
}
