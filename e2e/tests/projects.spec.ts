import { expect, type Locator } from '@playwright/test';
import { openDemo, test } from '../support/bench.ts';

test('a project is duplicated, renamed, deleted and taken back', async ({ page }) => {
  await page.goto('/');
  const cover = page.getByRole('link', { name: 'Open Festival week', exact: true }).locator('img');
  await expect(cover).toHaveCount(4);
  // A picture that the server would not give has no width.
  await expect
    .poll(() => cover.evaluateAll((all) => all.every((one) => 'naturalWidth' in one && one.naturalWidth !== 0)))
    .toBe(true);
  await page.getByRole('button', { name: 'Duplicate Festival week', exact: true }).click();
  await page.getByRole('button', { name: 'Rename project Festival week copy' }).click();
  await page.getByLabel('Name of project').fill('Second week');
  await page.keyboard.press('Enter');
  const card = page.getByRole('article', { name: 'Second week', exact: true });
  await expect(card).toContainText('29 frames');
  await card.getByRole('button', { name: 'Delete Second week' }).click();
  await expect(card).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card).toBeVisible();
  await card.getByRole('button', { name: 'Begin the next one after Second week' }).click();
  await expect(page.getByRole('button', { name: 'Rename project Second week 2' })).toBeVisible();
  await expect(page.getByText('No frames yet.')).toBeVisible();
  await page.goto('/');
  for (const name of ['Second week 2', 'Second week']) {
    await page.getByRole('button', { name: `Delete ${name}`, exact: true }).click();
    await expect(page.getByRole('article', { name, exact: true })).toBeHidden();
  }
});

test('a project is saved as a file, and opened again with all its frames', async ({ page }) => {
  await page.goto('/');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save Festival week as a file' }).click(),
  ]);
  const path = await download.path();
  await page
    .getByLabel('A project file')
    .setInputFiles({ name: 'note.zip', mimeType: 'application/zip', buffer: Buffer.from('no') });
  await expect(page.getByText('This is no project file')).toBeVisible();
  await page.getByLabel('A project file').setInputFiles(path);
  await expect(page.getByRole('region', { name: 'Wall' })).toBeVisible();
  await page.goto('/');
  const cards = page.getByRole('article', { name: 'Festival week', exact: true });
  await expect(cards).toHaveCount(2);
  await expect(cards.first()).toContainText('29 frames');
  await cards.first().getByRole('button', { name: 'Delete Festival week' }).click();
  await expect(cards).toHaveCount(1);
});

test('places are chosen by network and by purpose, and frames that were taken out come back as they were framed', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Pictures and places' }).click();
  for (const name of ['Dune panorama', 'Kite maker', 'Festival poster', 'Kite plan', 'Snapshot']) {
    await page.getByRole('checkbox', { name: `Give places to ${name}` }).uncheck();
  }
  const story = page.getByRole('checkbox', { name: 'Sunpane Story', exact: true });
  await expect(story).toBeChecked();
  await story.uncheck();
  await expect(page.getByText('28 frames in this project.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('29 frames in this project.')).toBeVisible();

  await page.getByText('By purpose').click();
  const banners = page.getByRole('region', { name: 'Banners' });
  await expect(banners.getByRole('checkbox', { name: 'Guildrow Profile banner' })).not.toBeChecked();
  await expect(banners.getByRole('checkbox', { name: 'Pipwire Header' })).toBeChecked();
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.locator('[data-place="sunpane/story"]').click();
  await expect(page.getByLabel('Width in px')).toHaveValue('2240');
});

test('hands quicker than the server: what is pressed shows at once and stays, in the order of the presses', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  let answer: () => void = () => undefined;
  const pressed = new Promise<void>((resolve) => (answer = resolve));
  await page.route(/projects\/[^/]+\/(originals|frames)$/, async (route) => {
    await pressed;
    await route.continue();
  });
  const [post, story, header] = ['Sunpane Portrait post', 'Sunpane Story', 'Pipwire Header'].map((name) =>
    page.getByRole('checkbox', { name, exact: true }),
  ) as [Locator, Locator, Locator];
  for (const name of ['Kite maker', 'Snapshot'])
    await page.getByRole('button', { name: `Add ${name}`, exact: true }).click();
  for (const box of [post, story, header, story]) await box.click();
  answer();
  const seen = new Set<string>();
  await expect(async () => {
    for (const box of [post, story, header])
      seen.add(`${await box.getAttribute('aria-label')} ${await box.isChecked()}`);
    expect(await page.getByText('2 frames were taken out.').count()).toBe(1);
  }).toPass({ intervals: [10] });
  await expect(page.getByText('4 frames in this project.')).toBeVisible();
  expect([...seen]).toEqual(['Sunpane Portrait post true', 'Sunpane Story false', 'Pipwire Header true']);
});

test('the spec book shows every place of every network with its numbers', async ({ page }) => {
  await page.goto('/spec-book');
  // More where other tests made places of their own.
  await expect(page.getByText(/^\d+ places in \d+ sheets/)).toBeVisible();
  await page.getByRole('link', { name: /^Candlecast/ }).click();
  const candlecast = page.getByRole('region', { name: 'Candlecast' });
  await expect(candlecast.getByTitle('9 Nov 2026')).toContainText('checked');
  expect(await candlecast.getByRole('listitem').count()).toBe(4);
  await expect(candlecast.getByRole('listitem').filter({ hasText: 'Video thumbnail' })).toContainText('1.5 MiB');
  await page.goto('/no/such/page');
  await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible();
});
