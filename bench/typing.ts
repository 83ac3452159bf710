import { shippedStyles } from '@inkwell/core/lettering';
import type { Item } from '@inkwell/core/model';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import type { Client } from '@inkwell/server/testing/client.ts';
import type { Page } from '@playwright/test';
import { openBrowser } from './inBrowser.ts';
import { median } from './inProcess.ts';

export interface Typing {
  /** Frames that are seen on the wall while one types. */
  seen: number;
  /** Milliseconds from a key to all of them painted with what it has written. */
  toWall: { median: number; p95: number; keys: number };
  /** Milliseconds from the last key to the true proof of the chosen frame. */
  toProof: { median: number; p95: number; rests: number };
}

const wantedFrames = 12;
const [keys, rests] = [60, 12];
const quantile = (values: readonly number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length * share)] ?? Number.NaN;

/** A project with one picture at twelve places and four items over each; returns where its bench is. */
async function letteredWall(client: Client, picture: string, items: Item[]): Promise<string> {
  const original = await client.file(picture);
  const places = [...shippedPlaces()].flatMap(([id, { place }]) =>
    place.group || place.purpose === 'profile' ? [] : [id],
  );
  const project = await client.project('Lettered wall', [original], places.slice(0, wantedFrames));
  await client.ask('PATCH', `/projects/${project.id}/settings`, {
    version: project.version,
    change: { lettering: items },
  });
  return `${client.address}/projects/${project.id}?frame=${project.frames[0]?.id}`;
}

/** Milliseconds from the next key to the picture after which every frame that is seen shows other letters. */
function untilPainted(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        addEventListener(
          'keydown',
          ({ timeStamp }) => {
            Reflect.set(
              window,
              'benchFrames',
              [...document.querySelectorAll('.frame-picture')].filter((one) => {
                const { top, bottom } = one.getBoundingClientRect();
                return bottom > 0 && top < innerHeight;
              }),
            );
            Reflect.set(
              window,
              'benchBefore',
              new Map(
                (Reflect.get(window, 'benchFrames') as Element[]).map((one) => [
                  one,
                  one.querySelector('.letter-layers')?.innerHTML ?? '',
                ]),
              ),
            );
            Reflect.set(window, 'benchTick', (now: number) => {
              const before = Reflect.get(window, 'benchBefore') as Map<Element, string>;
              const isDone = [...before].every(([one, letters]) => {
                const now = one.querySelector('.letter-layers')?.innerHTML ?? '';
                return now !== '' && now !== letters;
              });
              // What is there when a picture begins is painted in it: the next begins after that.
              if (isDone) requestAnimationFrame((painted) => resolve(painted - timeStamp));
              else if (now - timeStamp > 5000) resolve(Number.POSITIVE_INFINITY);
              else requestAnimationFrame(Reflect.get(window, 'benchTick'));
            });
            requestAnimationFrame(Reflect.get(window, 'benchTick'));
          },
          { capture: true, once: true },
        );
      }),
  );
}

/** How soon the wall shows what one types, and how soon the proof of it is there. */
export async function typing(client: Client, picture: string): Promise<Typing> {
  const words = (id: number, name: string, text: string, style: number, values: Partial<Item>): Item =>
    ({
      kind: 'words',
      id: `00000000-0000-4000-8000-00000000000${id}`,
      name,
      role: 'title',
      text,
      short: '',
      style: (shippedStyles[style] as (typeof shippedStyles)[number]).style,
      originalIds: null,
      notOn: [],
      notOnPlaces: [],
      onPieces: 'first',
      wish: 'wherever it is calm',
      wanted: 0.12,
      ...values,
    }) as Item;
  const address = await letteredWall(client, picture, [
    words(1, 'Title', 'Autumn kites', 0, {}),
    words(2, 'Date', '4 October', 4, { wish: 'under the words before', wanted: 0.06 }),
    words(3, 'Number', '12', 10, { wish: 'top right', wanted: 0.1 }),
    words(4, 'Place', 'On the dunes', 1, { wish: 'bottom left', wanted: 0.06 }),
  ]);
  const browser = await openBrowser();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    const still = () =>
      page.waitForFunction(
        (count) =>
          document.querySelectorAll('.frame-picture').length >= count &&
          !document.body.textContent.includes('measuring'),
        wantedFrames,
        { timeout: 600_000 },
      );
    await still();
    await page.keyboard.press('t');
    const field = page.getByLabel('What Title says');
    await field.focus();
    await page.keyboard.press('End');
    const waits: number[] = [];
    for (let key = 0; key < keys; key += 1) {
      const wait = untilPainted(page);
      // A letter comes and goes: the words stay as long as they are.
      await page.keyboard.press(key % 2 === 0 ? 's' : 'Backspace');
      waits.push(await wait);
    }
    const proofs: number[] = [];
    const chosen = page.locator('.frame-picture').first();
    for (let rest = 0; rest < rests; rest += 1) {
      await still();
      await page.keyboard.press(rest % 2 === 0 ? 's' : 'Backspace');
      const from = performance.now();
      await chosen.and(page.locator('[data-true="false"]')).waitFor();
      await chosen.and(page.locator('[data-true="true"]')).waitFor();
      proofs.push(performance.now() - from);
    }
    const seen = await page.evaluate(() => (Reflect.get(window, 'benchFrames') as Element[] | undefined)?.length ?? 0);
    return {
      seen,
      toWall: { median: median(waits), p95: quantile(waits, 0.95), keys },
      toProof: { median: median(proofs), p95: quantile(proofs, 0.95), rests },
    };
  } finally {
    await browser.close();
  }
}
