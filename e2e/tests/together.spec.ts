import { expect, type Page, test } from '@playwright/test';
import { accountCommand, follow, makeAccount, startWithAccounts } from '../support/accounts.ts';
import { faultless } from '../support/faults.ts';
import type { Program } from '../support/program.ts';

let program: Program;
test.beforeAll(async () => {
  program = await startWithAccounts('together');
});
test.afterAll(() => program.stop());

test('two on one bench see what the other changes without asking, and who is on which frame', async ({
  browser,
  page,
}) => {
  const other = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  for (const [whose, name] of [
    [page, 'Sunna Dahl'],
    [other, 'Leif Moe'],
  ] as const) {
    const email = `${name.split(' ')[0]?.toLowerCase()}@saltmarsh.example`;
    await follow(program, whose, await accountCommand(program, 'invite', email, '--role', 'editor'));
    await makeAccount(whose, name);
    await whose.getByRole('link', { name: 'Open Festival week', exact: true }).click();
    await whose.locator('[data-place="sunpane/story"]').first().click();
  }
  const head = (whose: Page) => whose.locator('.project-head').getByRole('img', { name: /^Also here:/ });
  await expect(head(page)).toHaveText('LM');
  await expect(other.locator('[data-place="sunpane/story"] .others').first()).toHaveText('SD');
  await faultless(page, 'a bench with somebody else');
  await page.locator('[data-place="sunpane/story"]').first().click();
  const top = (whose: Page) => whose.getByLabel('Top in px');
  const first = await top(page).inputValue();
  await page.keyboard.press('ArrowUp');
  await expect(top(page)).not.toHaveValue(first);
  await expect(top(other)).toHaveValue(await top(page).inputValue());
  await other.getByRole('button', { name: 'Rename project Festival week' }).click();
  await other.keyboard.type('Festival days');
  await other.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Rename project Festival days' })).toBeVisible();
  await page.getByRole('button', { name: 'Rename project Festival days' }).click();
  await page.keyboard.type('Festival week');
  await page.keyboard.press('Enter');
  await expect(other.getByRole('button', { name: 'Rename project Festival week' })).toBeVisible();

  // The history says who did that, shows it, and brings back what was there before.
  await other.getByRole('link', { name: 'History', exact: true }).click();
  const steps = other.getByRole('navigation', { name: 'Steps' }).getByRole('button');
  const isMove = /Set 1 frame: .*window.*Sunna Dahl/;
  await steps.filter({ hasText: isMove }).first().click();
  for (const when of ['before', 'after it']) {
    const picture = other.getByRole('img', { name: new RegExp(`Sunpane Story, ${when}$`) }).first();
    await expect(picture).toHaveAttribute('data-there', 'true');
  }
  await faultless(other, 'the history');
  const before = (await steps.allTextContents()).findIndex((words) => isMove.test(words)) + 1;
  await steps.nth(before).focus();
  await other.keyboard.press('Enter');
  await other.getByRole('button', { name: 'Bring this back …' }).click();
  await other.getByRole('button', { name: 'Bring it back' }).click();
  await expect(other.getByText('The project is what it was then')).toBeVisible();
  await expect(top(page)).toHaveValue(first);
});

test('a client looks at a project by a link, and what is said stands on the bench', async ({ browser, page }) => {
  await follow(program, page, await accountCommand(program, 'invite', 'berit@saltmarsh.example', '--role', 'editor'));
  await makeAccount(page, 'Berit Lien');
  await page.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  await page.getByRole('link', { name: 'Review' }).click();
  await page.getByLabel('For whom the link is').fill('Marsh café');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = (await page.getByRole('region', { name: 'This is the link.' }).getByRole('code').textContent()) ?? '';
  await expect(page.getByRole('region', { name: 'For Marsh café' })).toContainText('Nothing was said yet.');
  await faultless(page, 'review links');

  const guest = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await follow(program, guest, link);
  await expect(guest.getByRole('heading', { name: 'Festival week' })).toBeVisible();
  const card = guest.getByRole('listitem').filter({ hasText: 'Sunpane Square post' }).first();
  await expect(card.getByRole('img')).toBeVisible();
  await card.getByRole('textbox').fill('The kite is cut off.');
  await card.getByRole('button', { name: /^Look again/ }).click();
  await expect(guest.getByRole('status')).toContainText(/^1 of \d+ answered/);
  await faultless(guest, 'what a client sees');
  // It is there as soon as it is said, and again when the page is.
  await expect(page.getByRole('region', { name: 'For Marsh café' })).toContainText('The kite is cut off.');
  await guest.reload();
  await expect(card.getByRole('button', { name: /^Look again/ })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('region', { name: 'For Marsh café' }).getByRole('link').click();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(
    'Marsh café: look again The kite is cut off.',
  );
  await expect(page.getByText('client: look again').first()).toBeVisible();
  // By the link nothing else opens, and withdrawn it opens nothing.
  await guest.goto(`${program.address}/originals`);
  await expect(guest.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.getByRole('link', { name: 'Review' }).click();
  await page.getByRole('button', { name: 'Withdraw the link for Marsh café' }).click();
  await expect(page.getByRole('region', { name: 'For Marsh café' })).toContainText('holds no more');
  await follow(program, guest, link);
  await expect(guest.getByText('This link does not hold')).toBeVisible();
});
