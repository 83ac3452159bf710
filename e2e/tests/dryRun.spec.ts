import { readFile } from 'node:fs/promises';
import { test as base, expect, type Page } from '@playwright/test';
import { filesOf } from '../support/files.ts';
import { type Program, startProgram } from '../support/program.ts';

/** Of these tests alone the program has the simulated networks beside it. */
const test = base.extend<object, { program: Program }>({
  program: [
    async ({ browserName: _ }, use, { workerIndex }) => {
      const program = await startProgram(`networks${workerIndex}`, true);
      await use(program);
      await program.stop();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ program }, use) => use(program.address),
});

async function delivered(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: /^Deliver \d+ files$/ }).click();
  await expect(page.locator('.delivery-card[data-state="done"]')).toHaveCount(1);
}

test('a delivery is posted by its kit, and tried on the simulated networks first', async ({ page, context }) => {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await delivered(page);

  // The kit: post by post, with its words; a tick is seen by whoever looks next.
  await page.getByRole('link', { name: 'Posting kit' }).click();
  const sunpane = page.getByRole('region', { name: 'Sunpane' });
  const story = sunpane.getByRole('article', { name: /Story, Kite maker/ });
  await expect(story).toContainText('The kite maker in the workshop');
  await expect(story).toContainText('#kites #dunes');
  await story.getByRole('checkbox', { name: 'Posted' }).check();
  await expect(sunpane).toContainText('1 of');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('article', { name: /Story, Kite maker/ }).getByRole('checkbox')).toBeChecked();
  await other
    .getByRole('article', { name: /Story, Kite maker/ })
    .getByRole('checkbox')
    .uncheck();
  await expect(story.getByRole('checkbox')).not.toBeChecked();
  await other.close();
  // A file alone, and all of a network.
  const [file] = await Promise.all([page.waitForEvent('download'), story.getByRole('link').click()]);
  expect(file.suggestedFilename()).toMatch(/^kite-maker_sunpane_story_1080x1920\.jpg$/);
  expect((await readFile(await file.path())).subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]));
  const [zip] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download Sunpane' }).click(),
  ]);
  const paths = [...(await filesOf(zip)).keys()].filter((path) => path.includes('/'));
  expect(paths.length).toBeGreaterThan(4);
  expect(paths.every((path) => path.startsWith('Sunpane/'))).toBe(true);

  // The dry run: everything on one wall, as shown or as delivered.
  await page.getByRole('link', { name: 'All deliveries' }).click();
  await page.getByRole('button', { name: 'Dry run' }).click();
  await expect(page.getByText('Nothing is published anywhere.')).toBeVisible();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  await expect(page.getByRole('status')).toContainText(/28 of 29 files shown, 1 refused, 5 cut\./);
  await page.getByText(/^To look at \(6\)$/).click();
  await expect(page.locator('.run-card')).toHaveCount(6);

  // One that was cut: both sides of the comparison, by a key, and on a page.
  await page.getByRole('button', { name: /Portrait post, Five flyers: Cut/ }).click();
  const figures = page.getByRole('complementary', { name: 'What came back' });
  await expect(figures).toContainText('Cut 34 px left and right.');
  await expect(figures).toContainText('810 × 1080 px, JPEG 76, 4:2:0');
  await expect(figures.getByRole('row', { name: 'Similarity' })).toContainText(/9\d\.\d/);
  const view = page.locator('.compare-view');
  await expect(view).toHaveAttribute('data-showing', 'as shown');
  await page.keyboard.down('d');
  await expect(view).toHaveAttribute('data-showing', 'delivered');
  await page.keyboard.up('d');
  await page.getByText('On a page').click();
  await expect(page.getByRole('img', { name: 'Portrait post, as shown' })).toHaveJSProperty('complete', true);
  await page.keyboard.press('Escape');

  // One that was refused: in the network's words and in ours; then the number is taken over on the sheet.
  await page.getByRole('button', { name: /Single image, Kite plan: Refused/ }).click();
  await expect(figures).toContainText('Set its format to JPEG on the bench, then deliver again.');
  await page.getByRole('link', { name: 'Spec book' }).click();
  const measured = page.getByRole('list', { name: 'Measured at Pipwire' });
  await measured.getByRole('button', { name: 'Take JPEG, WebP over' }).click();
  await expect(measured).toContainText('The sheet said JPEG, PNG, WebP.');
  await measured.getByRole('button', { name: 'Back to JPEG, PNG, WebP' }).click();
  await expect(measured.getByRole('button', { name: 'Leave it' })).toBeVisible();
  expect(errors).toEqual([]);
});
