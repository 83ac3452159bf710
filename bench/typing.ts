import { randomUUID } from 'node:crypto';
import { shippedStyles } from '@inkwell/core/lettering';
import type { Lettering } from '@inkwell/core/model';
import { demoFrames, demoSettings } from '@inkwell/demo/project.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import type { Client } from '@inkwell/server/testing/programs/client.ts';
import type { Page } from '@playwright/test';
import { openBrowser, quantile } from './browser.ts';
import { median } from './inProcess.ts';

export interface Typing {
  frames: number;
  keys: number;
  /** Milliseconds from a key going down to the picture of the browser in which every frame shows the new words. */
  median: number;
  p95: number;
  /** Milliseconds from the last key to the true proof of the chosen frame. */
  restToProof: { median: number; p95: number; rests: number };
}

const frames = 12;
const typed = 'dunesandsea';
const rests = 5;
/** Between two keys, as of somebody who types fast. */
const pauseMs = 150;
const field = 'What Title says';

/** A project with one picture at twelve places, a title over all of them; returns where its bench is. */
async function letteredWall(client: Client, picture: string): Promise<string> {
  const original = await client.file(picture);
  const places = shippedPlaces();
  const known = demoFrames.find((one) => one.picture === 'flyers')?.frames ?? [];
  const add = known.flatMap((frame) => {
    const place = places.get(frame[0])?.place;
    if (!place || place.purpose === 'profile') return [];
    return [{ originalId: original.id, placeId: frame[0], settings: demoSettings(frame, original, place) }];
  });
  const project = await client.projectOf('Typing', [original], add.slice(0, frames));
  const style = shippedStyles.find(({ id }) => id === 'broadside')?.style;
  if (!style) throw new Error('The style of the title is gone.');
  const title: Lettering[number] = {
    kind: 'words',
    id: randomUUID(),
    name: 'Title',
    role: 'title',
    text: 'Kites',
    short: '',
    originalIds: null,
    notOn: [],
    notOnPlaces: [],
    onPieces: 'first',
    wish: 'wherever it is calm',
    wanted: 0.12,
    style,
  };
  const change = { lettering: [title] };
  const { status } = await client.ask('PATCH', `/projects/${project.id}/settings`, {
    version: project.version,
    change,
  });
  if (status !== 200) throw new Error(`The title was not taken: ${status}.`);
  await client.measured(project.id);
  return `${client.address}/projects/${project.id}?frame=${project.frames[0]?.id}`;
}

// What runs in the page is text: the loader would add a helper to functions with names, which the page does not have.

/** What every visible frame shows of words, as long as it is drawn here; null for a proof. */
const drawnWords = `[...document.querySelectorAll('.wall .frame-picture')].map((one) => {
  const layers = one.querySelector('.letter-layers');
  return layers && [...layers.querySelectorAll('path')].map((path) => path.getAttribute('d')).join(' ');
})`;

/** Milliseconds from the next key to the picture after which every frame shows other words than before. */
const untilDrawn = `new Promise((resolve) => {
  const before = ${drawnWords};
  addEventListener('keydown', ({ timeStamp }) => {
    const look = () => {
      const now = ${drawnWords};
      const isDone = now.every((words, at) => words !== null && words !== before[at]);
      // What stands in the document when a picture is begun is painted in it: it is there when the next is begun.
      requestAnimationFrame(isDone ? (painted) => resolve(painted - timeStamp) : look);
    };
    requestAnimationFrame(look);
  }, { capture: true, once: true });
})`;

/** Milliseconds from the last key to the chosen frame's proof being true again. */
const untilTrue = `new Promise((resolve) => {
  let last = NaN;
  const chosen = document.querySelector('.wall-frame[aria-pressed="true"] .frame-picture');
  const onKey = ({ timeStamp }) => { last = timeStamp; };
  addEventListener('keydown', onKey, { capture: true });
  const look = (now) => {
    if (!Number.isNaN(last) && now - last > 60 && chosen.dataset.true === 'true') {
      removeEventListener('keydown', onKey, { capture: true });
      resolve(now - last);
    } else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})`;

/** Nothing else may run while it is timed. */
const untilMeasured = (page: Page) =>
  page.waitForFunction(() => !document.body.textContent.includes('measuring'), undefined, { timeout: 600_000 });

/** What a promise in the page comes to that was made before a key went down: a key may overtake what is asked after it. */
async function overKey(page: Page, promise: string, key: string): Promise<number> {
  await page.evaluate(`window.benchAsked = ${promise}; 0`);
  await page.keyboard.press(key);
  return page.evaluate<number>('window.benchAsked');
}

async function timeOfKey(page: Page, key: string): Promise<number> {
  const took = await overKey(page, untilDrawn, key);
  await page.waitForTimeout(Math.max(0, pauseMs - took));
  return took;
}

/** How soon the wall follows when a title is typed, and how soon the truth is back. */
export async function typing(client: Client, picture: string): Promise<Typing> {
  const address = await letteredWall(client, picture);
  const browser = await openBrowser();
  try {
    // So large that all twelve frames are seen.
    const page = await browser.newPage({ viewport: { width: 1600, height: 1200 } });
    await page.goto(address);
    await page
      .getByText(/^Sunpane/)
      .first()
      .waitFor();
    await page.keyboard.press('t');
    const words = page.getByLabel(field);
    await words.waitFor();
    await untilMeasured(page);
    const seen = await page.evaluate<number>(`${drawnWords}.length`);
    if (seen !== frames) throw new Error(`The wall has ${seen} frames.`);
    const times: number[] = [];
    const waits: number[] = [];
    for (let rest = 0; rest < rests; rest += 1) {
      await words.focus();
      await page.keyboard.press('End');
      // The first key of a row finds proofs on the wall; what was drawn here before, the others.
      for (const key of typed) times.push(await timeOfKey(page, key));
      waits.push(await overKey(page, untilTrue, 'Backspace'));
      await untilMeasured(page);
      for (const _ of typed.slice(1)) times.push(await timeOfKey(page, 'Backspace'));
      await untilMeasured(page);
    }
    return {
      frames,
      keys: times.length,
      median: median(times),
      p95: quantile(times, 0.95),
      restToProof: { median: median(waits), p95: quantile(waits, 0.95), rests },
    };
  } finally {
    await browser.close();
  }
}
