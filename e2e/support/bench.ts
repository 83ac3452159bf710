import { toScreen, type Viewport } from '@inkwell/core/geometry';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { type Program, startProgram } from './program.ts';

/** Playwright's test with the program's address, failing on any error that the page reports. */
const testOn = (name: string, hasNetworks: boolean) =>
  base.extend<{ quiet: undefined }, { program: Program }>({
    program: [
      async ({ browserName: _ }, use, { workerIndex }) => {
        const program = await startProgram(`${name}${workerIndex}`, hasNetworks);
        await use(program);
        await program.stop();
      },
      { scope: 'worker' },
    ],
    baseURL: async ({ program }, use) => use(program.address),
    quiet: [
      async ({ page }, use) => {
        const errors: string[] = [];
        page.on('pageerror', (error) => errors.push(error.message));
        await use(undefined);
        expect(errors).toEqual([]);
      },
      { auto: true },
    ],
  });

/** Every worker has a program of its own, with the demo in it; its tests share it. */
export const test = testOn('worker', false);
/** The same with the simulated networks beside it. */
export const networkTest = testOn('networks', true);

export async function openDemo(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Wall' })).toBeVisible();
}

export const wallFrame = (page: Page, placeId: string): Locator => page.locator(`[data-place="${placeId}"]`);

/** Chooses a frame on the wall and waits until the bench shows it: numbers read earlier would be another frame's. */
export async function choose(page: Page, placeId: string): Promise<void> {
  await wallFrame(page, placeId).click();
  await expect(wallFrame(page, placeId)).toHaveAttribute('aria-pressed', 'true');
}

export async function number(page: Page, label: 'Left' | 'Top' | 'Width' | 'Height'): Promise<number> {
  return Number(await page.getByLabel(`${label} in px`, { exact: true }).inputValue());
}

/** Points on the screen for points on the original, as the stage shows it now. */
export async function stage(page: Page): Promise<(x: number, y: number) => { x: number; y: number }> {
  const holder = page.getByTestId('stage');
  const box = await holder.boundingBox();
  const [scale, left, top] = await Promise.all(
    ['data-scale', 'data-left', 'data-top'].map(async (name) => Number(await holder.getAttribute(name))),
  );
  if (!box) throw new Error('The stage is not there.');
  const view: Viewport = { scale: scale ?? 1, offset: { x: box.x + (left ?? 0), y: box.y + (top ?? 0) } };
  return (x, y) => toScreen(view, { x, y });
}

/** Drags with the mouse in small steps, as a hand does. */
export async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 5 });
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.mouse.up();
}

/** Undoes everything that was done. */
export async function undoAll(page: Page): Promise<void> {
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  while (await undo.isEnabled()) await undo.click();
  await expect(page.getByRole('status')).toHaveText('Saved');
}

/** Waits until the frame shows the server's proof of what is set and its weight is known. */
export async function settled(page: Page, placeId: string): Promise<void> {
  await expect(wallFrame(page, placeId).locator('.frame-picture')).toHaveAttribute('data-true', 'true');
  await expect(wallFrame(page, placeId)).not.toContainText('measuring');
}
