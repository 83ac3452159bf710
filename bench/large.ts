import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shippedStyles } from '@inkwell/core/lettering';
import { type OpenProject, OpenProjectSchema, type Original } from '@inkwell/core/model';
import { databaseServer, dropDatabase, ownDatabase } from '@inkwell/server/testing/databases.ts';
import { chart } from '@inkwell/server/testing/pictures/pictures.ts';
import { Client } from '@inkwell/server/testing/programs/client.ts';
import { ServerProcess } from '@inkwell/server/testing/programs/processes.ts';
import type { Browser, Page } from '@playwright/test';
import { openBrowser, quantile } from './browser.ts';
import { median } from './inProcess.ts';
import { timed } from './timed.ts';

const [pictures, placesEach, rounds, stretches] = [500, 10, 7, 5];
/** Of the series. */
const [rows, seriesPlaces] = [100, 5];
/** So many frames go in one request, as the interface sends them. */
const together = 1000;
/** 1000 / 60, and what the browser's clock is coarse by. */
const inTimeMs = 1000 / 60 + 0.5;

/** Ten tiny places of one sheet. @returns their ids */
const tinyPlaces = (client: Client): Promise<string[]> =>
  client.sheet(
    'Tiny',
    Array.from({ length: placesEach }, (_, at) => ({
      slug: `place-${at}`,
      name: `Place ${at}`,
      purpose: 'post',
      width: 64 + 4 * at,
      height: 100 - 4 * at,
      formats: ['jpeg', 'png'],
      limit: { bytes: 100_000, unit: 'kB' },
    })),
  );

/** Milliseconds from the press on a project's picture to its wall. */
async function opened(browser: Browser, client: Client, name: string): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(client.address);
  const link = page.getByRole('link', { name: `Open ${name}`, exact: true });
  await link.waitFor();
  await page.waitForLoadState('networkidle');
  const took = await timed(async () => {
    await link.click();
    await page.locator('.wall-frame').first().waitFor();
  });
  await page.close();
  return took;
}

/** How far each picture of the browser scrolls, in CSS pixels, and how many of them there are each time. */
const [stepPx, steps] = [24, 240];

/** How many of a hundred pictures of the browser come in time while something is scrolled: the median of stretches. @param selector what is */
async function inTime(page: Page, selector: string, side: 'left' | 'top'): Promise<number> {
  const shares: number[] = [];
  for (let round = 0; round < stretches; round += 1) shares.push(await inTimeFrom(page, selector, side, round));
  return median(shares);
}

async function inTimeFrom(page: Page, selector: string, side: 'left' | 'top', round: number): Promise<number> {
  // Where there is room for that, each stretch is one that was not seen before.
  await page.evaluate(`document.querySelector('${selector}').scrollTo({ ${side}: ${round * stepPx * steps} })`);
  await page.waitForLoadState('networkidle');
  const times = await page.evaluate<number[]>(`new Promise((resolve) => {
    const element = document.querySelector('${selector}');
    const times = [];
    let last = performance.now();
    const step = (now) => {
      times.push(now - last);
      last = now;
      element.scrollBy({ ${side}: ${stepPx} });
      if (times.length < ${steps}) requestAnimationFrame(step);
      else resolve(times.slice(2));
    };
    requestAnimationFrame(step);
  })`);
  return times.filter((time) => time <= inTimeMs).length / times.length;
}

/** A page with nothing but as many small pictures in a line: how much of that comes in time is what the browser can do here at all. */
async function plainInTime(browser: Browser): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const picture = await chart(60, 45).png().toBuffer();
  const img = `<img alt="" style="flex:none" src="data:image/png;base64,${picture.toString('base64')}">`;
  await page.setContent(`<div id="plain" style="display:flex;gap:6px;overflow:auto">${img.repeat(pictures)}</div>`);
  const share = await inTime(page, '#plain', 'left');
  await page.close();
  return share;
}

/** Milliseconds from a key that says that a frame is fine to the next frame being chosen, in the middle. @param count of frames */
async function lookedOver(browser: Browser, client: Client, id: string, count: number): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${client.address}/projects/${id}/look-over`);
  const grid = page.getByRole('grid', { name: 'Frames' });
  await grid.waitFor({ timeout: 120_000 });
  await page.getByText('Still finding out').waitFor({ state: 'hidden', timeout: 120_000 });
  await grid.focus();
  const times: number[] = [];
  for (let at = 0; at < count; at += 1) {
    const before = await grid.getAttribute('aria-activedescendant');
    times.push(
      await timed(async () => {
        await page.keyboard.press('f');
        await page.locator(`[role="grid"]:not([aria-activedescendant="${before}"])`).waitFor();
      }),
    );
  }
  await page.close();
  return median(times);
}

/** Milliseconds from a choice for all pictures that are selected on the bench until every frame is saved. */
async function savedOnBench(browser: Browser, client: Client, id: string): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${client.address}/projects/${id}`);
  await page.locator('.wall-frame').first().waitFor();
  const tabs = page.locator('.bench-originals [role="tab"]');
  await tabs.first().click({ modifiers: ['Control'] });
  await page.evaluate("document.querySelector('.bench-originals').scrollTo({ left: 1e9 })");
  await page.getByRole('tab', { name: new RegExp(`^chart-${pictures - 1},`) }).click({ modifiers: ['Shift'] });
  await page.getByText(`${pictures} pictures selected`).waitFor();
  await page.getByRole('button', { name: 'Aim', exact: true }).click();
  const took = await timed(async () => {
    await page.getByRole('menuitem').nth(1).click();
    await page.getByRole('status').filter({ hasText: 'Saving' }).waitFor();
    await page
      .getByRole('status')
      .filter({ hasText: /^Saved$/ })
      .waitFor({ timeout: 120_000 });
  });
  await page.close();
  return took;
}

interface Scrolled {
  plain: number;
  strip: number;
  files: number;
  elements: number;
}

/** Scrolls the strip of originals and the table of files, and counts what the table has made of the page. */
async function scrolled(browser: Browser, client: Client, id: string): Promise<Scrolled> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${client.address}/projects/${id}`);
  await page.locator('.wall-frame').first().waitFor();
  await page.getByRole('button', { name: 'No findings' }).waitFor({ timeout: 120_000 });
  const strip = await inTime(page, '.bench-originals', 'left');
  await page.goto(`${client.address}/projects/${id}/files`);
  await page.getByText(`${pictures * placesEach} files`).waitFor({ timeout: 120_000 });
  const elements = await page.evaluate<number>('document.querySelectorAll("*").length');
  const files = await inTime(page, '.files-table .ant-table-body', 'top');
  await page.close();
  return { plain: await plainInTime(browser), strip, files, elements };
}

/** Milliseconds that a series takes to be checked and taken, and that as many plain frames take. */
async function seriesTimes(client: Client, originals: readonly Original[], places: readonly string[]) {
  const [first = '', ...others] = places;
  const placeIds = [first, ...others].slice(0, seriesPlaces);
  const some = originals.slice(0, rows);
  const begun = async (name: string) => {
    const { body } = await client.ask('POST', '/projects', { name });
    return OpenProjectSchema.parse(body);
  };
  const answered = async (path: string, body: unknown) => {
    const { status } = await client.ask('POST', path, body);
    if (status !== 200) throw new Error(`${path} was answered with ${status}.`);
  };
  const bare = await begun('Plain');
  const plain = await timed(async () => {
    await answered(`/projects/${bare.id}/originals`, { add: some.map(({ id }) => id) });
    const add = some.flatMap(({ id }) => placeIds.map((placeId) => ({ originalId: id, placeId })));
    await answered(`/projects/${bare.id}/frames`, { add });
  });
  const { id, version } = await begun('Series');
  const itemId = randomUUID();
  const lettering = [
    {
      kind: 'words',
      id: itemId,
      name: 'Title',
      role: 'title',
      text: 'Episode 1',
      short: '',
      style: shippedStyles[0]?.style,
      originalIds: null,
      notOn: [],
      notOnPlaces: [],
      onPieces: 'first',
      wish: 'top left',
      wanted: 0.1,
    },
  ];
  const saved = await client.ask('PATCH', `/projects/${id}/settings`, { version, change: { lettering } });
  const series = {
    placeIds,
    rows: some.map((original, at) => ({
      originalId: original.id,
      name: null,
      words: { [itemId]: { text: `Episode ${at}`, short: '' } },
      placeIds: null,
    })),
  };
  const checked = await timed(() => answered(`/projects/${id}/series/check`, series));
  const now = OpenProjectSchema.parse(saved.body).version;
  const taken = await timed(() => answered(`/projects/${id}/series`, { version: now, series }));
  return { plain, checked, taken };
}

/** Milliseconds until one setting of every frame is saved, sent as the interface sends it. */
async function savedEach(client: Client, { id, frames }: OpenProject): Promise<number> {
  return timed(async () => {
    for (let from = 0; from < frames.length; from += together) {
      const some = frames.slice(from, from + together);
      const asked = some.map((frame) => ({ id: frame.id, version: frame.version, change: { format: 'png' } }));
      const { status } = await client.ask('PATCH', `/projects/${id}/frames`, { frames: asked });
      if (status !== 200) throw new Error(`The frames were not saved: ${status}.`);
    }
  });
}

/** What it takes to work in a project with thousands of frames, beside one with ten, as a section of the results. */
export async function largeSection(): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  const database = await ownDatabase(databaseServer(), 'inkwell_bench');
  const env = { ...process.env, DATABASE_URL: database, INKWELL_DATA: folder, PORT: '4690', INKWELL_LOOK: 'off' };
  const server = await ServerProcess.start(env);
  const browser = await openBrowser();
  try {
    const client = new Client(server.address);
    const places = await tinyPlaces(client);
    const originals: Original[] = [];
    for (let at = 0; at < pictures; at += 1) {
      const picture = chart(160 + (at % 50), 120 + Math.floor(at / 50));
      originals.push(await client.original(await picture.png().toBuffer(), `chart-${at}.png`));
    }
    const { id: smallId } = await client.project('Small', originals.slice(0, 1), places);
    const { id } = await client.project('Large', originals, places);
    const open = await client.open(id);
    const [large, small]: number[][] = [[], []];
    for (let round = 0; round < rounds; round += 1) {
      small?.push(await opened(browser, client, 'Small'));
      large?.push(await opened(browser, client, 'Large'));
    }
    const { plain, strip, files, elements } = await scrolled(browser, client, id);
    const judgedSmall = await lookedOver(browser, client, smallId, placesEach - 1);
    const judged = await lookedOver(browser, client, id, 60);
    const all = await timed(async () => {
      const change = { finishId: 'crisp' };
      const { body } = await client.ask('PATCH', `/projects/${id}/settings`, { version: open.version, change });
      if (OpenProjectSchema.parse(body).finishId !== 'crisp') throw new Error('The finish was not saved.');
    });
    const each = await savedEach(client, await client.open(id));
    const onBench = await savedOnBench(browser, client, id);
    const series = await seriesTimes(client, originals, places);
    const [ofLarge, ofSmall] = [median(large ?? []), median(small ?? [])];
    const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
    const ms = (value: number) => `${value.toFixed(0)} ms`;
    return `## A large project
${pictures} originals in ${open.frames.length} frames, beside a project with one of the originals and its ${placesEach} frames, in turns, in headless Chromium without a
graphics card; no worker runs meanwhile.

| | measured | aim |
|---|---|---|
| from the press on the project to its wall, median of ${rounds} | **${ms(ofLarge)}**, p95 ${ms(quantile(large ?? [], 0.95))}, **${(ofLarge / ofSmall).toFixed(2)}** times the small one (${ms(ofSmall)}) | under 1.5 s |
| pictures of the browser in time while the strip of originals is scrolled, median of ${stretches} stretches | **${percent(strip)}** | 95 % |
| the same of a page with nothing but ${pictures} small pictures | **${percent(plain)}** | |
| the same of the table of files, which makes ${elements} elements | **${percent(files)}** | 95 % |
| from a key that says that a frame is fine to the next frame, median of 60 | **${ms(judged)}**, **${(judged / judgedSmall).toFixed(2)}** times the small one (${ms(judgedSmall)}) | under 300 ms |
| one setting of the project saved, which holds for all its frames | **${ms(all)}** | under 3 s |
| one setting of every frame saved by itself, asked over HTTP | **${ms(each)}** | under 3 s |
| the same on the bench: an aim chosen for all pictures, until all is said to be saved | **${ms(onBench)}** | under 3 s |
| a series of ${rows} rows in ${seriesPlaces} places: its words laid out to see what is wrong | **${ms(series.checked)}** | |
| the same taken, with all its frames | **${ms(series.taken)}**, **${(series.taken / series.plain).toFixed(2)}** times as many frames chosen without words (${ms(series.plain)}) | |
`;
  } finally {
    await browser.close();
    await server.end();
    await dropDatabase(database);
    await rm(folder, { recursive: true, force: true });
  }
}
