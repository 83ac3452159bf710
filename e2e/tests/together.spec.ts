import { chart } from '@inkwell/server/testing/pictures/pictures.ts';
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

test('an owner gives somebody a share, who is told of it before and where it is reached, and goes on when there is more', async ({
  browser,
  page,
}) => {
  await follow(program, page, await accountCommand(program, 'invite', 'freya@saltmarsh.example', '--role', 'owner'));
  await makeAccount(page, 'Freya Lund');
  const other = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await follow(program, other, await accountCommand(program, 'invite', 'tove@saltmarsh.example', '--role', 'editor'));
  await makeAccount(other, 'Tove Aas');
  await page.getByRole('button', { name: 'Freya Lund: account and signing out' }).click();
  await page.getByRole('menuitem', { name: 'Shares' }).click();
  const ofTove = page.getByRole('region', { name: 'Everybody here' }).getByRole('row', { name: /^Tove Aas/ });
  const give = async (uploads: string) => {
    await page.getByRole('button', { name: 'Change the share of Tove Aas' }).focus();
    await page.keyboard.press('Enter');
    const form = page.getByRole('dialog', { name: 'The share of Tove Aas' });
    await form.getByLabel('Uploads in an hour').fill(uploads);
    await page.keyboard.press('Enter');
    await expect(form).toBeHidden();
  };
  await give('1');
  await expect(ofTove).toContainText('0 of 1');
  await faultless(page, 'shares');

  await other.getByRole('link', { name: 'Originals' }).click();
  const picture = await chart(120, 90).png().toBuffer();
  const send = (name: string) =>
    other.getByTestId('file-input').setInputFiles({ name: `${name}.png`, mimeType: 'image/png', buffer: picture });
  const there = (name: string) => other.getByRole('article', { name, exact: true });
  await send('reed');
  await expect(there('reed')).toBeVisible();
  await other.reload();
  await expect(other.getByRole('status').filter({ hasText: 'You have used 1 of your share' })).toContainText(
    'Look at the shares',
  );
  await send('sail');
  const line = other.getByRole('region', { name: 'Uploads' }).locator('.upload-line', { hasText: 'sail.png' });
  await expect(line).toContainText(
    /^.*Your share in this workspace is 1 upload in an hour, and that is used up\. Go on/,
  );
  await expect(ofTove).toContainText('1 of 1');
  await give('3');
  await expect(ofTove).toContainText('1 of 3');
  await line.getByRole('button', { name: 'Try again' }).click();
  await expect(there('sail')).toBeVisible();
});
