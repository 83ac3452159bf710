import { expect } from '@playwright/test';
import { choose, drag, number, openDemo, settled, stage, test, wallFrame } from '../support/bench.ts';
import { faults } from '../support/faults.ts';

test.beforeEach(({ page }) => openDemo(page));

test('the wall shows the truth: proofs and weights for every frame of the demo', async ({ page }) => {
  for (const id of [
    'sunpane/square-post',
    'sunpane/story',
    'pipwire/profile-picture',
    'candlecast/channel-banner',
    'hearthring/cover',
  ])
    await settled(page, id);
  await expect(wallFrame(page, 'candlecast/video-thumbnail')).toContainText(/of 1\.5 MiB/);
  await page.getByRole('tab', { name: 'Snapshot' }).click();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('Enlarged 1.42 times');
});

test('undo and redo reach over a reload, which comes back to the same place', async ({ page }) => {
  await choose(page, 'hearthring/cover');
  const left = await number(page, 'Left');
  await page.keyboard.press('Shift+ArrowRight');
  const nudged = left + (10 * (await number(page, 'Width'))) / 1680;
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(nudged, 0);
  const top = await number(page, 'Top');
  await page.getByLabel('Top in px').fill('900.5');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status')).toHaveText('Saved');

  await page.reload();
  await expect(page.getByLabel('Top in px')).toHaveValue('900.5');
  await expect(wallFrame(page, 'hearthring/cover')).toHaveAttribute('aria-pressed', 'true');
  await settled(page, 'hearthring/cover');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => number(page, 'Top')).toBeCloseTo(top, 1);
  await page.locator('body').press('Control+z');
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(left, 0);
  await page.locator('body').press('Control+Shift+z');
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(nudged, 0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status')).toHaveText('Saved');
});

test('wheel and keys tighten and loosen; reset and a finding’s fix are steps of undo', async ({ page }) => {
  await choose(page, 'sunpane/square-post');
  const undo = page.getByRole('button', { name: 'Undo' });
  await expect(undo).toBeDisabled();
  const before = await number(page, 'Width');
  const at = await stage(page);
  const pointer = at(2960, 2100);
  await page.mouse.move(pointer.x, pointer.y);
  await page.mouse.wheel(0, -300);
  await expect.poll(() => number(page, 'Width')).toBeLessThan(before * 0.8);
  // The wheel rests: what it did is a step.
  await expect(undo).toBeEnabled();
  await page.keyboard.press('-');
  await page.keyboard.press('+');
  await page.getByRole('button', { name: 'Reset' }).click();
  await expect.poll(() => number(page, 'Width')).toBe(4000);
  await page.getByLabel('Width in px').fill('400');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Loosen to 1×' }).click();
  await expect.poll(() => number(page, 'Width')).toBe(1080);
  while (await undo.isEnabled()) await undo.click();
  await expect.poll(() => number(page, 'Width')).toBe(before);
  await settled(page, 'sunpane/square-post');
});

test('hands quicker than the screen: the next press meets what the last one asked for', async ({ page }) => {
  // Both are pressed before the browser paints again, as they are where it is slow.
  await page.evaluate(async () => {
    const press = (selector: string) => document.querySelector<HTMLElement>(selector)?.click();
    press('[role="tab"][aria-label^="Kite maker"]');
    const { port1, port2 } = new MessageChannel();
    await new Promise((resolve) => {
      port1.onmessage = resolve;
      port2.postMessage(null);
    });
    press('[data-place="pipwire/profile-picture"]');
  });
  await expect(wallFrame(page, 'pipwire/profile-picture')).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('tab', { name: 'Kite maker' })).toHaveAttribute('aria-selected', 'true');
});

test('a corner is pulled: the ratio stays, the opposite corner too, and it stops at the original’s edge', async ({
  page,
}) => {
  await choose(page, 'sunpane/portrait-post');
  const box = async () => ({
    left: await number(page, 'Left'),
    top: await number(page, 'Top'),
    width: await number(page, 'Width'),
    height: await number(page, 'Height'),
  });
  const before = await box();
  const at = await stage(page);
  await drag(page, at(before.left, before.top), at(before.left + before.width / 4, before.top + before.height / 3));
  await expect.poll(() => number(page, 'Width')).toBeLessThan(before.width * 0.8);
  const pulled = await box();
  expect(pulled.height / pulled.width).toBeCloseTo(1350 / 1080, 2);
  expect(pulled.left + pulled.width).toBeCloseTo(before.left + before.width, 0);
  expect(pulled.top + pulled.height).toBeCloseTo(before.top + before.height, 0);
  await settled(page, 'sunpane/portrait-post');

  await drag(page, at(pulled.left, pulled.top), at(-3000, -4000));
  const wide = await box();
  expect(Math.min(wide.left, wide.top)).toBeCloseTo(0, 0);
  expect(wide.left + wide.width).toBeCloseTo(pulled.left + pulled.width, 0);
  expect(wide.height / wide.width).toBeCloseTo(1350 / 1080, 2);
  const undo = page.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) await undo.click();
  await expect.poll(() => number(page, 'Width')).toBeCloseTo(before.width, 1);
  await settled(page, 'sunpane/portrait-post');
});

test('of two tabs that change one frame, the later save is refused and shown with both versions', async ({
  page,
  context,
}) => {
  await choose(page, 'sunpane/wide-post');
  await expect(page).toHaveURL(/frame=/);
  const other = await context.newPage();
  await other.goto(page.url());
  // What this tab saves is on its way while the other one saves.
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await page.route(/\/frames\b/, async (route) => {
    if (route.request().method() === 'PATCH') await held;
    await route.fallback();
  });
  await page.getByLabel('Left in px').fill('500');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status')).not.toHaveText('Saved');
  await other.getByLabel('Left in px').fill('10');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('status')).toHaveText('Saved');
  letGo();
  const note = page.getByRole('alert').filter({ hasText: 'was changed in another window' });
  await expect(note).toContainText('left 500');
  await expect(note).toContainText('left 10');
  await note.getByRole('button', { name: 'Keep yours' }).click();
  await expect(note).toBeHidden();
  await expect(page.getByRole('status')).toHaveText('Saved');
  await other.reload();
  await expect(other.getByLabel('Left in px')).toHaveValue('500');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status')).toHaveText('Saved');
});

test('without a connection edits are kept and sent later', async ({ page, context }) => {
  await choose(page, 'pipwire/header');
  await context.setOffline(true);
  await page.getByLabel('Top in px').fill('1700');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status')).toContainText('Not connected');
  await context.setOffline(false);
  await expect(page.getByRole('status')).toHaveText('Saved');
  await page.reload();
  await expect(page.getByLabel('Top in px')).toHaveValue('1700');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('status')).toHaveText('Saved');
});

test('a change that the server refuses stays until it is taken back, and does not pass for a lost connection', async ({
  page,
}) => {
  await choose(page, 'pipwire/header');
  const left = await number(page, 'Left');
  await page.route('**/api/v1/frames/*', (route) =>
    route.request().method() === 'PATCH'
      ? route.fulfill({ status: 422, json: { message: 'This frame is nailed to the wall.' } })
      : route.continue(),
  );
  await page.getByLabel('Left in px', { exact: true }).fill(String(left + 40));
  await page.keyboard.press('Enter');
  await expect(page.getByText('This frame is nailed to the wall.')).toBeVisible();
  expect(await number(page, 'Left')).toBeCloseTo(left + 40, 1);
  await expect(page.getByRole('status')).toHaveText('Not everything is saved');
  await page.getByRole('button', { name: 'Take the change back' }).click();
  await expect.poll(() => number(page, 'Left')).toBeCloseTo(left, 1);
  await expect(page.getByRole('status')).toHaveText('Saved');
  await page.unroute('**/api/v1/frames/*');
});

test('several pictures are selected, with hands and with keys, and the same is done to all of them', async ({
  page,
}) => {
  const tab = (name: string) => page.getByRole('tab', { name: new RegExp(`^${name},`) });
  await tab('Dune panorama').click({ modifiers: ['Control'] });
  await tab('Festival poster').click({ modifiers: ['Shift'] });
  const selected = page.getByRole('status').filter({ hasText: 'selected' });
  await expect(selected).toHaveText('3 pictures selected');
  await tab('Kite maker').focus();
  await page.keyboard.press('Control+Enter');
  await expect(selected).toHaveText('2 pictures selected');
  expect.soft(await faults(page), 'selected pictures').toEqual([]);
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Gentle' }).click();
  await tab('Festival poster').click();
  await expect(selected).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Finish: Gentle' })).toBeVisible();
  await tab('Kite maker').click();
  await expect(page.getByRole('button', { name: 'Finish: Crisp' })).toBeVisible();
  // It was one step for both.
  await page.getByRole('button', { name: 'Undo' }).click();
  await tab('Dune panorama').click();
  await expect(page.getByRole('button', { name: 'Finish: Crisp' })).toBeVisible();

  await page.getByRole('button', { name: /^Pictures in the strip/ }).click();
  await page.getByRole('menuitem', { name: 'Select all 6' }).click();
  await tab('Snapshot').click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Deliver …' }).click();
  await expect(page.getByText('Only the frames of 5 pictures')).toBeVisible();
  const some = page.getByRole('button', { name: /^Deliver \d+ files$/ });
  const count = async () => Number(/\d+/.exec((await some.textContent()) ?? '')?.[0]);
  const before = await count();
  await page.getByRole('button', { name: 'Deliver all pictures' }).click();
  await expect.poll(count).toBeGreaterThan(before);
});
