import { MadeInvitationSchema, MadeTokenSchema, type Role } from '@inkwell/core/model';
import { afterAll } from 'vitest';
import { z } from 'zod';
import type { Settings } from '../../settings/settings.ts';
import { start } from '../../start.ts';
import { Browser } from './browser.ts';
import { Client } from './client.ts';
import { testSettings } from './program.ts';

/** The password of everybody in a studio that nothing else is said of. */
export const studioPassword = 'quilted lantern over marsh';

/** The whole program where people need accounts, with Runa Holm who owns it; stopped when the tests of the file are over. */
export async function startStudio(own: Partial<Settings> = {}) {
  const settings: Settings = { ...(await testSettings()), INKWELL_ACCOUNTS: 'on', ...own };
  const running = await start(settings);
  afterAll(() => running.stop());
  const { address } = running;
  const owner = new Browser(address);
  const link = z.string().parse(running.firstLink);
  await owner.accept(link, 'Runa Holm', studioPassword, 'runa@saltmarsh.example');
  const below = (inside: string | null) => (inside === null ? '' : `/in/${inside}`);

  /** The link by which somebody comes in. @param inside the workspace; null for the first */
  async function invite(role: Role, email: string, inside: string | null = null): Promise<string> {
    const { body } = await owner.ask('POST', `${below(inside)}/invitations`, { email, role });
    return MadeInvitationSchema.parse(body).link;
  }

  return {
    ...running,
    settings,
    owner,
    invite,

    /** Somebody who is invited and comes in. */
    async comeAs(role: Role, name: string, inside: string | null = null): Promise<Browser> {
      const browser = new Browser(address);
      await browser.accept(await invite(role, `${name}@saltmarsh.example`, inside), name, studioPassword);
      return browser;
    },

    /** A further workspace, which Runa owns. @returns its id */
    async workspace(name: string): Promise<string> {
      const { body } = await owner.ask('POST', '/workspaces', { name });
      return z.object({ workspaceId: z.string() }).parse(body).workspaceId;
    },

    /** A program that has a token of somebody. */
    async programOf(
      browser: Browser,
      may: 'look' | 'change' = 'change',
      inside: string | null = null,
    ): Promise<Client> {
      const { body } = await browser.ask('POST', `${below(inside)}/tokens`, { name: may, may, days: null });
      return new Client(address, { Authorization: `Bearer ${MadeTokenSchema.parse(body).secret}` });
    },
  };
}
