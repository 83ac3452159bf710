import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { accountCommand, follow, makeAccount, startWithAccounts } from '../support/accounts.ts';
import { choose, openDemo, settled, networkTest as test, undoAll } from '../support/bench.ts';

const picture = (name: string) => ({
  path: join(import.meta.dirname, '..', '..', 'docs', 'screenshots', `${name}.png`),
});

/** Waits until everything that was asked for has come and is drawn. */
async function still(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle');
  await expect.poll(() => page.evaluate(() => [...document.images].every(({ complete }) => complete))).toBe(true);
  // Some go on for ever, or wait.
  await expect
    .poll(() =>
      page.evaluate(() =>
        document
          .getAnimations()
          .some(({ playState, effect }) => playState === 'running' && effect?.getTiming().iterations !== Infinity),
      ),
    )
    .toBe(false);
}

test.describe('on a phone', () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } });
  test('the wall of the demo', async ({ page }) => {
    await openDemo(page);
    await settled(page, 'sunpane/wide-post');
    await still(page);
    await page.screenshot(picture('bench-phone'));
  });
});

test('the main views of the demo', async ({ page }) => {
  test.setTimeout(1_200_000);
  await openDemo(page);
  for (const id of [
    'sunpane/square-post',
    'sunpane/story',
    'sunpane/wide-post',
    'pipwire/header',
    'candlecast/channel-banner',
    'hearthring/link-image',
  ])
    await settled(page, id);
  await choose(page, 'sunpane/portrait-post');
  await page.mouse.move(600, 20);
  await page.screenshot(picture('bench'));
  await page.locator('body').press('t');
  await expect(page.locator('.style-tile .letter-layers')).toHaveCount(12);
  await still(page);
  await page.screenshot(picture('lettering'));
  await page.locator('body').press('Escape');
  await page.getByRole('tab', { name: 'Kite maker' }).click();
  for (const id of ['sunpane/portrait-post', 'sunpane/story', 'sunpane/profile-picture']) await settled(page, id);
  await choose(page, 'sunpane/profile-picture');
  await page.getByRole('group', { name: 'Seen: face, sure' }).hover();
  await still(page);
  await page.screenshot(picture('seen'));
  const figures = page.getByRole('table', { name: 'Figures' });
  await page.getByRole('tab', { name: 'Five flyers' }).click();
  await choose(page, 'sunpane/portrait-post');
  await page.locator('body').press('f');
  await expect(figures).toHaveAttribute('data-measured', 'true');
  await expect(page.locator('.histogram-plot')).toHaveAttribute('data-ready', 'true');
  await still(page);
  await page.screenshot(picture('finish'));
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await choose(page, 'sunpane/square-post');
  await page.locator('body').press('w');
  const weight = page.getByRole('complementary', { name: 'Weight' });
  const curve = weight.locator('figure.curve');
  await expect.poll(async () => Number(await curve.getAttribute('data-points'))).toBe(28);
  await weight.getByText('Similarity over bytes').click();
  await weight.getByRole('button', { name: 'Find the best upload' }).click();
  await expect(weight.getByRole('table', { name: 'What is left where it is shown' })).toBeVisible();
  await page.getByText('Divider').click();
  await expect(weight.getByText('Comparing the formats')).toBeHidden();
  await still(page);
  await page.screenshot(picture('weight'));
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await undoAll(page);
  await page.getByRole('link', { name: 'Files' }).click();
  await expect(page.getByText(/^29 files/)).toBeVisible();
  await expect(page.getByText('being measured')).toHaveCount(0);
  const thumbnails = await page.locator('.files-thumb').all();
  for (const one of thumbnails.slice(0, 12)) await expect(one).toHaveAttribute('data-there', 'true');
  await page.screenshot(picture('files'));
  await page.getByRole('link', { name: 'Look over' }).click();
  const frames = page.getByRole('grid', { name: 'Frames' });
  await expect(frames).toBeFocused();
  for (const key of ['f', 'f', 'l', 'x', 'f', 'f']) await page.keyboard.press(key);
  await expect(frames.locator('.look-cell img[data-there="false"]')).toHaveCount(0);
  await expect(page.locator('.look-large img')).toHaveJSProperty('complete', true);
  await still(page);
  await page.screenshot(picture('look-over'));
  for (let step = 0; step < 6; step += 1) await page.keyboard.press('Control+z');
  await expect(page.getByRole('radio', { name: 'To look over 29' })).toBeAttached();
  await page.getByRole('link', { name: 'Series' }).click();
  for (const [name, text] of [
    ['Title on Dune panorama', 'Where the wind comes from'],
    ['Date on Dune panorama', '3 October, by the old pier'],
    ['Title on Kite maker', 'How a kite is made'],
    ['Title on Snapshot', 'Caught!'],
  ] as const) {
    await page.getByLabel(name, { exact: true }).fill(text);
  }
  await expect(page.getByRole('status')).toHaveText('Saved');
  await still(page);
  await page.screenshot(picture('series'));
  await undoAll(page);
  await page.getByRole('link', { name: 'Pictures and places' }).click();
  for (const name of ['Five flyers', 'Kite maker', 'Festival poster', 'Kite plan', 'Snapshot'])
    await page.getByRole('checkbox', { name: `Give places to ${name}` }).uncheck();
  const several = ['Sunpane Swipe panels, portrait', 'Sunpane Profile quilt', 'Pipwire Four-up block'];
  for (const name of several) await page.getByRole('checkbox', { name, exact: true }).check();
  await expect(page.getByText('32 frames in this project.')).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByRole('tab', { name: 'Dune panorama' }).click();
  await choose(page, 'sunpane/swipe-panels-portrait');
  for (const id of ['sunpane/swipe-panels-portrait', 'sunpane/profile-quilt', 'pipwire/four-up-block'])
    await settled(page, id);
  await page.screenshot(picture('strip'));
  await page.getByRole('link', { name: 'Pictures and places' }).click();
  for (const name of ['Five flyers', 'Kite maker', 'Festival poster', 'Kite plan', 'Snapshot'])
    await page.getByRole('checkbox', { name: `Give places to ${name}` }).uncheck();
  for (const name of several) {
    const box = page.getByRole('checkbox', { name, exact: true });
    await box.click();
    await expect(box).not.toBeChecked();
  }
  await expect(page.getByText('29 frames in this project.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Quillpost' })).toBeVisible();
  await page.screenshot(picture('choose'));
  await page.getByRole('link', { name: 'Deliver' }).click();
  await page.getByRole('button', { name: 'Deliver 29 files' }).click();
  await page.getByRole('link', { name: /Download the archive/ }).waitFor();
  await page.screenshot(picture('delivery'));
  await page.getByRole('link', { name: 'Posting kit' }).click();
  await page.getByRole('region', { name: 'Sunpane' }).getByRole('checkbox').first().check();
  await page.getByRole('region', { name: 'Sunpane' }).scrollIntoViewIfNeeded();
  await still(page);
  await page.screenshot(picture('kit'));
  await page.getByRole('link', { name: 'All deliveries' }).click();
  await page.getByRole('button', { name: 'Dry run' }).click();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  await expect(page.getByRole('status')).toContainText('1 refused');
  await page.getByText(/^To look at/).click();
  await still(page);
  await page.screenshot(picture('dry-run'));
  for (const [name, path, ready] of [
    ['projects', '/', 'Festival week'],
    ['spec-book', '/spec-book', 'Sunpane'],
  ] as const) {
    await page.goto(path, { waitUntil: 'networkidle' });
    await expect(page.getByRole('heading', { name: ready })).toBeVisible();
    await still(page);
    await page.screenshot(picture(name));
  }
  await openDemo(page);
  await page.getByRole('link', { name: 'Review' }).click();
  await page.getByLabel('For whom the link is').fill('the harbour office');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const told = page.getByRole('region', { name: 'This is the link.' }).getByRole('code');
  await page.goto((await told.textContent()) ?? '');
  await page.getByRole('button', { name: /^Fine/ }).first().click();
  await page.getByRole('textbox').nth(1).fill('Could the kite stand a little higher?');
  await page
    .getByRole('button', { name: /^Look again/ })
    .nth(1)
    .click();
  await expect(page.getByRole('status')).toContainText(/^2 of/);
  await page.waitForLoadState('networkidle');
  await still(page);
  await page.screenshot(picture('client-review'));
});

test('several people in a studio', async ({ browser, page }) => {
  const program = await startWithAccounts('people');
  try {
    const ida = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
    for (const [whose, name, role] of [
      [page, 'Runa Holm', 'owner'],
      [ida, 'Ida Berg', 'editor'],
    ] as const) {
      const email = `${name.slice(0, 3).toLowerCase()}@saltmarsh.example`;
      await follow(program, whose, await accountCommand(program, 'invite', email, '--role', role));
      await makeAccount(whose, name);
      await whose.getByRole('link', { name: 'Open Festival week', exact: true }).click();
    }
    for (const [whose, place, keys] of [
      [ida, 'sunpane/story', ['ArrowUp', '+', 'ArrowUp']],
      [page, 'sunpane/square-post', ['ArrowLeft', '+']],
      [ida, 'sunpane/portrait-post', ['+', 'ArrowRight', '+', 'ArrowUp']],
    ] as const) {
      await whose.locator(`[data-place="${place}"]`).first().click();
      for (const key of keys) await whose.keyboard.press(key);
      await settled(whose, place);
    }
    await page.getByRole('link', { name: 'History', exact: true }).click();
    await page.getByRole('img', { name: /Portrait post, after it$/ }).waitFor();
    await page.waitForLoadState('networkidle');
    await still(page);
    await page.screenshot(picture('history'));

    await page.goto(`${program.address}/shares`);
    await page.getByRole('button', { name: 'Change the share of Ida Berg' }).click();
    await page.getByLabel('Originals and delivered files, in GB').fill('2');
    await page.getByLabel('Requests in a minute').fill('600');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('row', { name: /^Ida Berg/ })).toContainText('of 2 GB');
    await still(page);
    await page.screenshot(picture('shares'));
  } finally {
    await program.stop();
  }
});
