import { runSql } from '@inkwell/server/testing/databases.ts';
import { expect, type Page, test } from '@playwright/test';
import { TOTP } from 'otpauth';
import { z } from 'zod';
import { accountCommand, follow, makeAccount, password, startWithAccounts } from '../support/accounts.ts';
import { faultless } from '../support/faults.ts';
import type { Program } from '../support/program.ts';

let program: Program;
test.beforeAll(async () => {
  program = await startWithAccounts('door');
});
test.afterAll(() => program.stop());

const menu = (page: Page, name: string, item: string) =>
  page
    .getByRole('button', { name: `${name}: account and signing out` })
    .click()
    .then(() => page.getByRole('menuitem', { name: item }).click());

test('a studio comes in: the first account, an invitation, a second factor, and the way out', async ({
  browser,
  page,
}) => {
  // Whoever is nobody sees the door, wherever the address leads.
  await page.goto(`${program.address}/originals`);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await faultless(page, 'signing in');
  await page.getByLabel('E-mail address').fill('runa@saltmarsh.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('a guess at a password');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('is not right');

  await follow(program, page, await accountCommand(program, 'invite', 'runa@saltmarsh.example', '--role', 'owner'));
  await expect(page.getByText('You are invited to Studio as an owner')).toBeVisible();
  await page.getByLabel('Your name').fill('Runa Holm');
  await page.getByLabel('Password', { exact: true }).fill('short');
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('alert')).toContainText('at least 12 characters');
  await faultless(page, 'an invitation');
  await makeAccount(page, 'Runa Holm');

  await menu(page, 'Runa Holm', 'People');
  await page.getByLabel('E-mail address of whom you invite').fill('ida@saltmarsh.example');
  await page.getByLabel('Role of whom you invite').press('ArrowDown');
  await page.getByRole('option', { name: 'Viewer' }).or(page.getByTitle('Viewer')).last().click();
  await page.getByRole('button', { name: 'Invite', exact: true }).click();
  const link = (await page.getByRole('region', { name: 'The mail is written.' }).getByRole('code').textContent()) ?? '';
  await expect(page.getByRole('rowheader', { name: 'ida@saltmarsh.example' })).toBeVisible();
  await page.getByText('You are invited to Inkwell Frame, to ida@saltmarsh.example').click();
  await expect(page.getByText(link).last()).toBeVisible();
  await faultless(page, 'people');

  const ida = await (await browser.newContext({ reducedMotion: 'reduce', hasTouch: true })).newPage();
  await follow(program, ida, link);
  await makeAccount(ida, 'Ida Strand');
  await expect(ida.getByText('You look, and change nothing')).toBeVisible();
  await ida.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  await expect(ida.getByRole('region', { name: 'Wall' })).toBeVisible();
  await ida.locator('[data-place="sunpane/square-post"]').first().click();
  const left = ida.getByLabel('Left in px');
  const was = await left.inputValue();
  await ida.keyboard.press('ArrowRight');
  await expect(ida.getByText('You look here, and change nothing')).toBeVisible();
  await expect(left).toHaveValue(was);
  await faultless(ida, 'a bench that is looked at');
  await ida.getByRole('link', { name: 'Deliver', exact: true }).click();
  await expect(ida.getByRole('region', { name: 'Deliveries' })).toBeVisible();
  await expect(ida.getByRole('region', { name: 'New delivery' })).toBeHidden();
  await ida.goto(ida.url().replace(/deliver$/, 'series/table'));
  await expect(ida.getByRole('heading', { name: 'This page is for editors' })).toBeVisible();
  await faultless(ida, 'a page for editors');

  // A second factor, by keyboard; then in again with a recovery code.
  await menu(ida, 'Ida Strand', 'Your account');
  const factor = ida.getByRole('region', { name: 'Second factor' });
  await factor.getByLabel('Your password').fill(password);
  await ida.keyboard.press('Enter');
  const secret = ((await factor.getByRole('code').textContent()) ?? '').replaceAll(' ', '');
  await faultless(ida, 'a second factor');
  await factor.getByLabel('Code that it shows now').fill(new TOTP({ secret }).generate());
  await ida.keyboard.press('Enter');
  await expect(factor.getByRole('listitem')).toHaveCount(10);
  const recovery = (await factor.getByRole('listitem').first().textContent()) ?? '';
  await factor.getByRole('button', { name: 'I have kept them' }).click();
  await expect(factor).toContainText('Signing in asks for a code');
  await faultless(ida, 'an account');
  await menu(ida, 'Ida Strand', 'Sign out');
  await ida.getByLabel('E-mail address').fill('ida@saltmarsh.example');
  await ida.getByLabel('Password', { exact: true }).fill(password);
  await ida.keyboard.press('Enter');
  await ida.getByLabel('Code').fill(recovery);
  await ida.keyboard.press('Enter');
  await expect(ida.getByRole('link', { name: 'Open Festival week', exact: true })).toBeVisible();

  // Who is taken away stands before the door with the next step.
  await page.getByRole('button', { name: 'Take Ida Strand out of this workspace' }).click();
  await page.getByRole('button', { name: 'Take out', exact: true }).click();
  await expect(page.getByRole('rowheader', { name: 'Ida Strand' })).toHaveCount(0);
  await ida.getByRole('link', { name: 'Originals' }).click();
  await expect(ida.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('who is signed out in the middle of work signs in again, and nothing is lost', async ({ page }) => {
  await follow(program, page, await accountCommand(program, 'invite', 'tove@saltmarsh.example', '--role', 'editor'));
  await makeAccount(page, 'Tove Lund');
  await page.getByRole('link', { name: 'Open Festival week', exact: true }).click();
  const frame = page.locator('[data-place="sunpane/square-post"]').first();
  await frame.click();
  await runSql(z.string().parse(program.env.DATABASE_URL), 'delete from sessions');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.getByLabel('E-mail address').fill('tove@saltmarsh.example');
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.keyboard.press('Enter');
  // The bench is as it was, and sends what had to wait.
  await expect(page.getByText('moved by hand')).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await frame.click();
  await expect(page.getByText('moved by hand')).toBeVisible();
});

test('a further workspace is empty, others join it with the account that they have, and an address keeps to it', async ({
  browser,
  page,
}) => {
  await follow(program, page, await accountCommand(program, 'invite', 'maren@saltmarsh.example', '--role', 'owner'));
  await makeAccount(page, 'Maren Holt');
  await menu(page, 'Maren Holt', 'Your account');
  await page.getByLabel('Name of a further workspace').fill('Lantern yard');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'No projects yet' })).toBeVisible();
  await faultless(page, 'an empty workspace');
  await menu(page, 'Maren Holt', 'People');
  await page.getByRole('button', { name: 'Rename this workspace Lantern yard' }).click();
  await page.keyboard.type('Rope walk');
  await page.keyboard.press('Enter');
  await page.getByLabel('E-mail address of whom you invite').fill('ylva@saltmarsh.example');
  await page.getByRole('button', { name: 'Invite', exact: true }).click();
  const link = (await page.getByRole('region', { name: 'The mail is written.' }).getByRole('code').textContent()) ?? '';
  await expect(page.getByRole('heading', { name: 'Mails' })).toHaveCount(0);
  await faultless(page, 'people of a further workspace');

  const ylva = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await follow(program, ylva, await accountCommand(program, 'invite', 'ylva@saltmarsh.example', '--role', 'viewer'));
  await makeAccount(ylva, 'Ylva Dunn');
  await ylva.context().clearCookies();
  await follow(program, ylva, link);
  await ylva.getByRole('button', { name: 'Sign in to join' }).click();
  await ylva.getByLabel('E-mail address').fill('ylva@saltmarsh.example');
  await ylva.getByLabel('Password', { exact: true }).fill(password);
  await ylva.keyboard.press('Enter');
  await expect(ylva.getByRole('heading', { name: 'Join Rope walk' })).toBeVisible();
  await faultless(ylva, 'joining');
  await ylva.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(ylva.getByRole('heading', { name: 'No projects yet' })).toBeVisible();
  const there = ylva.url();
  await ylva.getByRole('button', { name: 'Workspace Rope walk: go to another' }).click();
  await ylva.getByRole('menuitem', { name: 'Studio' }).click();
  await expect(ylva.getByRole('link', { name: 'Open Festival week', exact: true })).toBeVisible();
  // An address that is handed on leads to its workspace, and whoever comes without one to where they were last.
  await ylva.goto(there);
  await expect(ylva.getByRole('heading', { name: 'No projects yet' })).toBeVisible();
  await ylva.goto(`${program.address}/originals`);
  await expect(ylva).toHaveURL(new RegExp(`^${there.replace(/\/$/, '')}/originals$`));
  // Who is not in it sees nothing of it.
  const odd = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await follow(program, odd, await accountCommand(program, 'invite', 'ulf@saltmarsh.example', '--role', 'viewer'));
  await makeAccount(odd, 'Ulf Berg');
  await odd.goto(there);
  await expect(odd.getByRole('heading', { name: 'You are not in this workspace' })).toBeVisible();
  await faultless(odd, 'a workspace of others');
  await odd.getByRole('link', { name: 'Studio' }).click();
  await expect(odd.getByRole('link', { name: 'Open Festival week', exact: true })).toBeVisible();
});

test('who has forgotten the password chooses another by the link of a mail', async ({ browser, page }) => {
  await follow(program, page, await accountCommand(program, 'invite', 'odd@saltmarsh.example', '--role', 'owner'));
  await makeAccount(page, 'Odd Vik');
  const other = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await other.goto(program.address);
  await other.getByRole('link', { name: 'Password forgotten' }).click();
  await faultless(other, 'a forgotten password');
  await other.getByLabel('E-mail address').fill('odd@saltmarsh.example');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('status')).toContainText('If odd@saltmarsh.example has an account here');
  await menu(page, 'Odd Vik', 'People');
  const mail = page.getByText('A new password for Inkwell Frame, to odd@saltmarsh.example');
  await mail.click();
  const link = /http\S+new-password\S+/.exec((await page.locator('.mail pre').first().textContent()) ?? '')?.[0] ?? '';
  await follow(program, other, link);
  await faultless(other, 'a new password');
  await other.getByRole('textbox', { name: 'New password' }).fill('seven kites and a rope');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('status')).toContainText('signed out everywhere');
  // Whoever was in is out, and in again with the new one.
  await page.getByRole('link', { name: 'Originals' }).click();
  await page.getByLabel('E-mail address').fill('odd@saltmarsh.example');
  await page.getByLabel('Password', { exact: true }).fill('seven kites and a rope');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Originals' })).toBeVisible();
});
