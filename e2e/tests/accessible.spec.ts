import { expect } from '@playwright/test';
import { choose, openDemo, test } from '../support/bench.ts';
import { faults } from '../support/faults.ts';

test('every screen and open panel holds WCAG 2.2 AA', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Open Festival week', exact: true })).toBeVisible();
  expect.soft(await faults(page), 'projects').toEqual([]);
  await page.goto('/originals');
  await expect(page.getByRole('article').first()).toBeVisible();
  expect.soft(await faults(page), 'originals').toEqual([]);
  await page.goto('/spec-book');
  await expect(page.getByRole('heading', { name: 'Sunpane' })).toBeVisible();
  expect.soft(await faults(page), 'spec book').toEqual([]);
  for (const [path, ready] of [
    ['/spec-book/import', 'Import sheets'],
    ['/spec-book/own-marram-board/versions', 'Versions of Marram Board'],
    ['/spec-book/own-marram-board/edit?place=0', 'Change Marram Board'],
    ['/spec-book/new?from=sunpane', 'A sheet of your own'],
    ['/programs', 'Other programs'],
    ['/api/docs', 'Deliveries'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole('heading', { name: ready })).toBeVisible();
    await expect(page.getByRole('button').or(page.getByRole('searchbox')).first()).toBeVisible();
    expect.soft(await faults(page), path).toEqual([]);
  }
  for (const [path, part] of [
    ['/backups', 'By itself'],
    ['/shares', 'This workspace'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole('region', { name: part })).toBeVisible();
    expect.soft(await faults(page), path).toEqual([]);
  }

  await openDemo(page);
  await choose(page, 'sunpane/square-post');
  await expect(page.getByRole('list', { name: 'Findings' })).not.toContainText('measured');
  expect.soft(await faults(page), 'bench').toEqual([]);
  await page.getByRole('button', { name: /^Flyer in red/ }).click();
  await page.getByRole('button', { name: 'More of the mark' }).click();
  expect.soft(await faults(page), 'mark').toEqual([]);
  await page.getByRole('button', { name: /^Flyer in red/ }).click();
  await page.getByRole('button', { name: 'Trim …' }).click();
  expect.soft(await faults(page), 'trim').toEqual([]);
  await page.keyboard.press('Escape');
  for (const [key, name] of [
    ['Enter', 'close-up'],
    ['f', 'finish'],
    ['w', 'weight'],
  ] as const) {
    await page.locator('[data-frame][aria-pressed="true"]').first().focus();
    await page.keyboard.press(key);
    await expect(page.getByRole('button', { name: 'Back', exact: true }).first()).toBeVisible();
    expect.soft(await faults(page), name).toEqual([]);
    await page.getByRole('button', { name: 'Back', exact: true }).first().click();
  }
  await page.locator('body').press('t');
  for (const item of ['Title', 'Emblem']) {
    await page.getByRole('list', { name: 'The most important first' }).getByText(item, { exact: true }).first().click();
    await expect(page.getByRole('complementary', { name: 'Style' })).toBeVisible();
    expect.soft(await faults(page), `lettering, ${item}`).toEqual([]);
  }
  await page.keyboard.press('Escape');
  await page.locator('[data-place="sunpane/portrait-post"]').dblclick();
  await page.getByRole('button', { name: /^Title, / }).click();
  expect.soft(await faults(page), 'an item in the close-up').toEqual([]);
  await page.getByRole('button', { name: 'Back', exact: true }).first().click();
  await page.keyboard.press('?');
  await expect(page.getByRole('table', { name: 'Keys' })).toBeVisible();
  expect.soft(await faults(page), 'keys').toEqual([]);
  await page.keyboard.press('?');

  for (const name of [
    'Pictures and places',
    'Series',
    'Read a table …',
    'Look over',
    'Review',
    'History',
    'Files',
    'Deliver',
  ]) {
    await page.getByRole('link', { name, exact: true }).click();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect.soft(await faults(page), name).toEqual([]);
  }
});
