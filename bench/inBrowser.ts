import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import type { Client } from '@inkwell/server/testing/programs/client.ts';
import type { Page } from '@playwright/test';
import { openBrowser, quantile } from './browser.ts';
import { median } from './inProcess.ts';

export interface Dragging {
  frames: number;
  /** Milliseconds from one picture of the browser to the next while the outline is dragged. */
  median: number;
  p95: number;
  /** The part of them that took no longer than a screen of 60 Hz gives, with half a millisecond for its clock. */
  inTime: number;
  /** Milliseconds from letting go to the true proof on the wall. */
  restToProof: { median: number; p95: number; rests: number };
}

const wantedFrames = 40;
const rests = 20;
/** 1000 / 60, and what the browser's clock is coarse by. */
const inTimeMs = 1000 / 60 + 0.5;

/** A project with one picture at forty places; returns where its bench is. */
async function fullWall(client: Client, picture: string): Promise<string> {
  const original = await client.file(picture);
  const single = [...shippedPlaces()].flatMap(([id, { place }]) => (place.group ? [] : [id]));
  const placeIds = [...single];
  for (let number = placeIds.length; number < wantedFrames; number += 1) {
    const place = {
      name: `Place ${number}`,
      purpose: 'post',
      width: 900 + 30 * number,
      height: 1000,
      formats: ['jpeg'],
      limit: { bytes: 5_000_000, unit: 'MB' },
    };
    const { body } = await client.ask('POST', '/sheets/places', { place, keptIn: { kind: 'sheet', name: 'Bench' } });
    placeIds.push((body as { placeId: string }).placeId);
  }
  const { id, frames } = await client.project('Full wall', [original], placeIds);
  if (frames.length !== wantedFrames) throw new Error(`The wall has ${frames.length} frames.`);
  const frame = frames.find((one) => one.placeId === 'sunpane/square-post');
  return `${client.address}/projects/${id}?frame=${frame?.id}`;
}

const chosenPicture = '[data-place="sunpane/square-post"] .frame-picture';

/** Drags the chosen outline to and fro with the mouse; returns the browser's times from picture to picture. */
async function dragged(page: Page, from: { x: number; y: number }, steps: number, reach: number): Promise<number[]> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.evaluate(() => {
    const times: number[] = [];
    let last = performance.now();
    Reflect.set(window, 'benchTimes', times);
    // Given to no constant: the loader would add a helper to a function with a name, which the page does not have.
    Reflect.set(window, 'benchTick', (now: number) => {
      times.push(now - last);
      last = now;
      if (Reflect.get(window, 'benchTimes') === times) requestAnimationFrame(Reflect.get(window, 'benchTick'));
    });
    requestAnimationFrame(Reflect.get(window, 'benchTick'));
  });
  for (let step = 1; step <= steps; step += 1) {
    await page.mouse.move(from.x + reach * Math.sin((step / steps) * 7), from.y);
  }
  const times = await page.evaluate(() => {
    const found = Reflect.get(window, 'benchTimes') as number[];
    Reflect.set(window, 'benchTimes', null);
    return found.slice(2);
  });
  await page.mouse.up();
  return times;
}

/** Milliseconds from the next pointer going up to the chosen frame's proof being true again. */
function untilTrue(page: Page): Promise<number> {
  return page.evaluate(
    (selector) =>
      new Promise<number>((resolve, reject) => {
        let began = Number.NaN;
        addEventListener('pointerup', () => (began = performance.now()), { capture: true, once: true });
        const picture = document.querySelector(selector);
        const watch = new MutationObserver(() => {
          if (picture?.getAttribute('data-true') !== 'true' || Number.isNaN(began)) return;
          watch.disconnect();
          resolve(performance.now() - began);
        });
        if (picture) watch.observe(picture, { attributes: true, attributeFilter: ['data-true'] });
        else reject(new Error('The chosen frame does not hang on the wall.'));
      }),
    chosenPicture,
  );
}

/** How smoothly an outline is dragged with forty frames on the wall, and how soon the truth is back. */
export async function dragging(client: Client, picture: string): Promise<Dragging> {
  const address = await fullWall(client, picture);
  const browser = await openBrowser();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    // Nothing else may run meanwhile: all proofs are there and every frame was measured.
    await page.waitForFunction(
      (count) =>
        document.querySelectorAll('.frame-picture').length === count &&
        !document.body.textContent.includes('measuring'),
      wantedFrames,
      { timeout: 600_000 },
    );
    const box = await page.getByTestId('stage').boundingBox();
    if (!box) throw new Error('The bench has no stage.');
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    const times = await dragged(page, middle, 360, 60);
    const waits: number[] = [];
    for (let rest = 0; rest < rests; rest += 1) {
      const wait = untilTrue(page);
      // To and fro, or the outline would come to rest at the picture’s edge.
      await dragged(page, middle, 12, (rest % 2 === 0 ? 1 : -1) * (30 + rest));
      waits.push(await wait);
      // The weight of the frame is measured anew after each rest: not while the next one is timed.
      await page.waitForFunction(() => !document.body.textContent.includes('measuring'), undefined, {
        timeout: 60_000,
      });
    }
    return {
      frames: wantedFrames,
      median: median(times),
      p95: quantile(times, 0.95),
      inTime: times.filter((time) => time <= inTimeMs).length / times.length,
      restToProof: { median: median(waits), p95: quantile(waits, 0.95), rests },
    };
  } finally {
    await browser.close();
  }
}
