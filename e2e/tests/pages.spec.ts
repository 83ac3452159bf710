import { several } from '@inkwell/server/testing/pictures/foreignFiles.ts';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { test } from '../support/bench.ts';

const sheet = (background: string) => sharp({ create: { width: 90, height: 60, channels: 3, background } });

test('of a file with three pages the first comes in at once, and others are chosen by their pictures', async ({
  page,
}) => {
  await page.goto('/originals');
  const buffer = await several('tiff', sheet('#c02020'), sheet('#2040c0'), sheet('#208040'));
  await page.getByTestId('file-input').setInputFiles({ name: 'Sail pattern.tif', mimeType: 'image/tiff', buffer });
  const dock = page.getByRole('region', { name: 'Uploads' });
  await expect(dock).toContainText('It holds 3 pages; the first was taken.');
  await dock.getByRole('button', { name: 'Choose others' }).click();
  const dialog = page.getByRole('dialog', { name: 'The 3 pages of Sail pattern.tif' });
  await expect(dialog.getByRole('button', { name: '1 of 3' })).toBeDisabled();
  await dialog.getByRole('button', { name: '2 of 3' }).click();
  await dialog.getByRole('button', { name: '3 of 3' }).press('Enter');
  await dialog.getByRole('button', { name: 'Take these 2' }).click();
  await expect(dialog).toBeHidden();
  for (const name of ['Sail pattern', 'Sail pattern 2', 'Sail pattern 3'])
    await expect(page.getByRole('article', { name, exact: true })).toBeVisible();
  await dock.getByRole('button', { name: 'Dismiss Sail pattern.tif' }).click();
  await expect(dock).toBeHidden();

  // The same way stands open later, and the picture of a page is that page.
  const second = page.getByRole('article', { name: 'Sail pattern 2', exact: true });
  await second.getByRole('button', { name: '2 of 3 pages: take others' }).click();
  await expect(page.getByRole('dialog').getByRole('button', { name: '2 of 3' })).toBeDisabled();
  await page.getByRole('button', { name: 'Cancel' }).click();
  const src = await second.locator('img').getAttribute('src');
  const { dominant } = await sharp(await (await page.request.get(src ?? '')).body()).stats();
  expect(dominant.b).toBeGreaterThan(dominant.r + 50);

  for (const name of ['Sail pattern', 'Sail pattern 2', 'Sail pattern 3']) {
    await page.getByRole('button', { name: `Delete ${name}`, exact: true }).click();
    await expect(page.getByRole('article', { name, exact: true })).toBeHidden();
  }
});

test('words of a picture and what goes into files are set beside its weight, counted, and undone', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('button', { name: 'Add Snapshot' }).click();
  await page.getByRole('checkbox', { name: 'Stallfront Course image', exact: true }).check();
  await page.getByRole('button', { name: 'Frame them' }).click();
  await page.locator('[data-place="stallfront/course-image"]').click();
  await page.locator('body').press('w');
  const beside = page.getByRole('region', { name: 'Metadata' });
  await expect(beside).toContainText('It takes 0 bytes of this file.');
  const credit = beside.getByRole('textbox', { name: 'Credit' });
  await credit.fill('Saltmarsh Kites');
  await credit.press('Enter');
  const kept = beside.getByRole('checkbox', { name: 'Credit, copyright and alternative text' });
  await kept.check();
  await expect(beside).toContainText(/It takes [1-9][\d,]* bytes of this file\./);
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  await undo.click();
  await expect(kept).not.toBeChecked();
  await undo.click();
  await expect(credit).toHaveValue('');
  await expect(beside).toContainText('It takes 0 bytes of this file.');
});
