import { mayAs, type Role, roles } from '@inkwell/core/model';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { Needed } from '../api/contracts/contract.ts';
import { doorResources, resources } from '../api/resources/index.ts';
import { accessSettings } from '../settings/accessSettings.ts';
import { readSettings } from '../settings/settings.ts';
import { startServer } from '../start.ts';
import { Browser } from '../testing/programs/browser.ts';
import type { Client } from '../testing/programs/client.ts';
import { testSettings } from '../testing/programs/program.ts';
import { startStudio, studioPassword } from '../testing/programs/studio.ts';

const { owner, comeAs, programOf, ...running } = await startStudio();
const { address } = running;

describe('every route lets in whom it says, and nobody else', async () => {
  const browsers: Record<Role, Browser> = {
    owner,
    editor: await comeAs('editor', 'Ida'),
    viewer: await comeAs('viewer', 'Odd'),
  };
  const routes = [...resources(running.services), ...doorResources(running.door, running.inside)].flatMap(
    (one) => one.routes,
  );
  const tokens = {
    'token of an owner that looks': { role: 'owner' as Role, may: 'look', client: await programOf(owner, 'look') },
    'token of an owner': { role: 'owner' as Role, may: 'change', client: await programOf(owner, 'change') },
    'token of a viewer': { role: 'viewer' as Role, may: 'change', client: await programOf(browsers.viewer, 'change') },
  };
  // Where nothing is there, who is let in learns that; nothing is drawn, sent or signed out on the way.
  const nowhere = '00000000-0000-4000-8000-000000000000';
  const leaving = new Set(['POST /door/sign-out', 'DELETE /me/sessions', 'POST /networks/empty']);
  const walked = routes.map(({ method, path, contract }) => ({
    name: `${method.toUpperCase()} ${path}`,
    method: method.toUpperCase(),
    path: path.replace(/:\w+/g, nowhere),
    contract,
    changes: method !== 'get' && !contract.changesNothing,
  }));
  // All of them are in the first workspace.
  const mayHere = (role: Role, needed: Needed) =>
    needed === 'account' || mayAs(role, needed === 'keeper' ? 'owner' : needed);
  const isRefusal = (status: number) => status === 401 || status === 403;

  test.each(walked)('$name', async ({ name, method, path, contract, changes }) => {
    const needed = contract.needs ?? (changes ? 'editor' : 'viewer');
    const body = method === 'GET' || contract.file ? undefined : {};
    const stranger = await new Browser(address).ask(method, path, body);
    if (contract.isOpen) {
      expect(isRefusal(stranger.status)).toBe(false);
      return;
    }
    expect(stranger).toMatchObject({ status: 401, body: { message: expect.stringContaining('Sign in') } });
    if (leaving.has(name)) return;
    for (const role of roles) {
      const { status } = await statusOf(browsers[role], method, path, body);
      expect([role, status === 403]).toEqual([role, !mayHere(role, needed)]);
      if (method !== 'GET') {
        const forged = await browsers[role].ask(method, path, body, { 'X-Inkwell-Page': 'guessed' });
        expect(forged.status).toBe(401);
      }
    }
    for (const [said, { role, may, client }] of Object.entries(tokens)) {
      const { status } = await statusOf(client, method, path, body);
      const isIn = !contract.pagesOnly && mayHere(role, needed) && !(changes && may === 'look');
      expect([said, status === 403]).toEqual([said, !isIn]);
    }
  });

  /** What sends files answers no JSON: only its status is asked for. */
  async function statusOf(who: Browser | Client, method: string, path: string, body: unknown) {
    return who.ask(method, path, body).catch(() => ({ status: 200 }));
  }
});

describe('where others reach the program', () => {
  const at = (environment: Record<string, string>) => () =>
    accessSettings(readSettings({ DATABASE_URL: 'postgres://db.example/frame', ...environment }));
  const secure = { INKWELL_HOST: '0.0.0.0', INKWELL_ORIGIN: 'https://frame.example', INKWELL_PROXY: '10.0.0.0/24' };

  test('it says how to start, and does not start open', () => {
    expect(at({})()).toMatchObject({ host: '127.0.0.1', hasAccounts: false, isSecure: false });
    expect(at({ INKWELL_ACCOUNTS: 'on' })()).toMatchObject({ hasAccounts: true });
    expect(at({ INKWELL_HOST: '0.0.0.0' })).toThrow('INKWELL_ORIGIN has to say how');
    expect(at({ ...secure, INKWELL_ACCOUNTS: 'off' })).toThrow('open to everybody');
    // A proxy on the same machine leads others to it as well.
    const led = { ...secure, INKWELL_HOST: '127.0.0.1', INKWELL_PROXY: '127.0.0.1' };
    expect(at(led)()).toMatchObject({ hasAccounts: true });
    expect(at({ ...led, INKWELL_ACCOUNTS: 'off' })).toThrow('open to everybody');
    expect(at({ ...secure, INKWELL_ORIGIN: 'http://frame.example' })).toThrow('could be read on their way');
    expect(at({ ...secure, INKWELL_PROXY: '' })).toThrow('a proxy stands before');
    expect(at({ ...secure, INKWELL_PROXY: 'the proxy' })).toThrow('the proxy is neither');
    expect(at({ ...secure, INKWELL_ORIGIN: 'https://frame.example/here' })).toThrow('ends with the host');
    expect(at({ INKWELL_HOST: 'frame.example' })).toThrow('network card');
    expect(at({ INKWELL_MAIL: 'smtp://mail.example' })).toThrow('INKWELL_MAIL_FROM');
    expect(at(secure)()).toMatchObject({ hasAccounts: true, isSecure: true, origin: 'https://frame.example' });
  });

  test('behind a proxy with TLS its word counts, cookies go through TLS alone, and other names are refused', async () => {
    const settings = await testSettings();
    const behind = {
      INKWELL_ORIGIN: 'https://frame.example',
      INKWELL_PROXY: '127.0.0.1',
      INKWELL_ACCOUNTS: 'on' as const,
    };
    const proxied = await startServer({ ...settings, ...behind });
    try {
      expect(proxied.firstLink).toMatch(/^https:\/\/frame\.example\/invitation#/);
      const direct = `http://127.0.0.1:${proxied.port}`;
      const through = (host: string, protocol: string) =>
        new Browser(direct, {
          'X-Forwarded-Host': host,
          'X-Forwarded-Proto': protocol,
          'X-Forwarded-For': '198.51.100.7',
        });
      const browser = through('frame.example', 'https');
      await browser.accept(z.string().parse(proxied.firstLink), 'Runa Holm', studioPassword, 'runa@saltmarsh.example');
      expect(browser.given).toMatch(/^__Host-inkwell=[^;]+; Path=\/; HttpOnly; Secure; SameSite=Lax$/);
      expect(await browser.ask('GET', '/me/sessions')).toMatchObject({ body: [{ address: '198.51.100.7' }] });
      for (const wrong of [
        new Browser(direct),
        through('frame.example', 'http'),
        through('elsewhere.example', 'https'),
      ]) {
        expect(await wrong.ask('GET', '/door')).toMatchObject({ status: 403 });
      }
      // What watches it asks each server under the name that it has there.
      expect((await fetch(`${direct}/health`)).status).toBe(200);
      expect((await fetch(`${direct}/metrics`)).status).toBe(401);
    } finally {
      await proxied.stop();
    }
  });

  test('who is no proxy may say what it likes', async () => {
    const browser = new Browser(address, {
      'X-Forwarded-For': '198.51.100.7',
      'X-Forwarded-Host': 'elsewhere.example',
    });
    await browser.signIn('runa@saltmarsh.example', studioPassword);
    const { body } = await browser.ask('GET', '/me/sessions');
    expect(JSON.stringify(body)).not.toContain('198.51.100.7');
  });
});
