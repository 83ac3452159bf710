import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { openDemo, networkTest as test } from '../support/bench.ts';
import { faults } from '../support/faults.ts';
import { filesOf } from '../support/files.ts';

async function delivered(page: Page): Promise<void> {
  await openDemo(page);
  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: /^Deliver \d+ files$/ }).click();
  await expect(page.locator('.delivery-card[data-state="done"]')).toHaveCount(1);
}

test('a delivery is posted by its kit, and tried on the simulated networks first', async ({ page, context }) => {
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
  expect.soft(await faults(page), 'kit').toEqual([]);
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
  expect.soft(await faults(page), 'wall of a dry run').toEqual([]);

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
  expect.soft(await faults(page), 'compared').toEqual([]);
  await page.getByText('On a page').click();
  await expect(page.getByRole('img', { name: 'Portrait post, as the network shows it' })).toHaveJSProperty(
    'complete',
    true,
  );
  expect.soft(await faults(page), 'on a page').toEqual([]);
  await page.keyboard.press('Escape');

  // One that was refused: in the network's words and in ours; then the number is taken over on the sheet.
  await page.getByRole('button', { name: /Single image, Kite plan: Refused/ }).click();
  await expect(figures).toContainText('Set its format to JPEG on the bench, then deliver again.');
  await page.getByRole('link', { name: 'Spec book' }).click();
  await page.getByRole('link', { name: /^Pipwire/ }).click();
  const measured = page.getByRole('list', { name: 'Measured at Pipwire' });
  expect.soft(await faults(page), 'measured on a sheet').toEqual([]);
  await measured.getByRole('button', { name: 'Take JPEG, WebP over' }).click();
  await expect(measured).toContainText('The sheet said JPEG, PNG, WebP.');
  await measured.getByRole('button', { name: 'Back to JPEG, PNG, WebP' }).click();
  await expect(measured.getByRole('button', { name: 'Leave it' })).toBeVisible();
});
