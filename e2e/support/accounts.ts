import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { text } from 'node:stream/consumers';
import { bundled } from '@inkwell/server/bundling/bundle.ts';
import type { Page } from '@playwright/test';
import { type Program, startProgram } from './program.ts';

export const password = 'quilted lantern over marsh';

/** The program with the demo in it, where people need accounts. @param name no other running one has */
export const startWithAccounts = (name: string): Promise<Program> =>
  startProgram(name, false, { INKWELL_ACCOUNTS: 'on' });

/** Runs `./inkwell account …`. @returns what it says */
export async function accountCommand({ env }: Program, ...words: string[]): Promise<string> {
  const line = [bundled('commandLine'), 'account', ...words];
  const child = spawn(process.execPath, line, { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const [said] = await Promise.all([text(child.stdout), once(child, 'exit')]);
  return said.trim();
}

/** Follows a link to the program, wherever it says that is. */
export const follow = ({ address }: Program, page: Page, link: string) => {
  const { pathname, hash } = new URL(link);
  return page.goto(`${address}${pathname}${hash}`);
};

/** Makes the account that a link invites to. */
export async function makeAccount(page: Page, name: string): Promise<void> {
  await page.getByLabel('Your name').fill(name);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await page.getByRole('button', { name: `${name}: account and signing out` }).waitFor();
}
