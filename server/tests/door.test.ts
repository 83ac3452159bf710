import {
  type DoorEventKind,
  DoorEventKindSchema,
  FactorOfferSchema,
  InvitationSchema,
  MadeInvitationSchema,
  MadeTokenSchema,
  MailSchema,
  MemberSchema,
  RecoveryCodesSchema,
  type Role,
  SessionSchema,
} from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import { TOTP } from 'otpauth';
import { afterAll, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { runCommand } from '../commandLine/commands/index.ts';
import { start, startServer } from '../start.ts';
import { listDoorEvents } from '../store/access/doorEvents.ts';
import { Browser } from '../testing/programs/browser.ts';
import { Client, until } from '../testing/programs/client.ts';
import { testSettings } from '../testing/programs/program.ts';

const settings = { ...(await testSettings()), INKWELL_ACCOUNTS: 'on' as const };
const running = await start(settings);
afterAll(() => running.stop());
const { address, firstLink } = running;
const { whole: db } = running.door;

const passwords = {
  owner: 'quilted lantern over marsh',
  editor: 'seven kites and a rope',
  viewer: 'dune grass, salt, paper',
  other: 'another word for the wind',
};
const refused = (part: string) => ({ message: expect.stringContaining(part) });
const mailTo = async (by: Browser, to: string) => {
  const [mail] = (await by.read(z.array(MailSchema), '/mails')).filter((one) => one.to === to);
  return /http:\S+/.exec(mail?.text ?? '')?.[0] ?? '';
};

const owner = new Browser(address);
/** Invites somebody, who comes in. */
async function comeAs(role: Role, email: string, password: string): Promise<Browser> {
  const { body } = await owner.ask('POST', '/invitations', { email, role });
  const browser = new Browser(address);
  await browser.accept(MadeInvitationSchema.parse(body).link, `Some ${role}`, password);
  return browser;
}

test('a stranger gets nothing, and the first account is made once by its link', async () => {
  const stranger = new Browser(address);
  expect(await stranger.person()).toBeNull();
  expect(await stranger.ask('GET', '/projects')).toMatchObject({ status: 401, body: refused('Sign in') });
  for (const path of ['/metrics', '/api/v1/openapi.json']) expect((await fetch(`${address}${path}`)).status).toBe(401);
  expect((await fetch(`${address}/health`)).status).toBe(200);

  // Two who have the link, and both links of two servers that started: one account comes of it.
  const second = await startServer(settings);
  const links = [firstLink, firstLink, second.firstLink].map((link) => z.string().parse(link));
  await second.stop();
  const tries = await Promise.all(
    links.map((link, at) =>
      new Browser(address).ask('POST', '/door/accept', {
        secret: new URL(link).hash.slice(1),
        name: 'Runa Holm',
        email: `Runa${at}@Saltmarsh.example`,
        password: passwords.owner,
      }),
    ),
  );
  expect(tries.map(({ status }) => status).sort()).toEqual([201, 404, 404]);
  const email = `runa${tries.findIndex(({ status }) => status === 201)}@saltmarsh.example`;
  expect(await owner.signIn(email.toUpperCase(), passwords.owner)).toMatchObject({
    status: 200,
    body: { state: 'in' },
  });
  expect(await owner.door()).toMatchObject({
    person: { email, hasSecondFactor: false },
    workspaces: [{ name: 'Studio', role: 'owner', isFirst: true }],
  });
  const later = await startServer(settings);
  expect(later.firstLink).toBeNull();
  await later.stop();
});

test('passwords that are short, common, or little more than the name are refused, and kept as Argon2id', async () => {
  const { body } = await owner.ask('POST', '/invitations', { email: 'wren@saltmarsh.example', role: 'viewer' });
  const { link } = MadeInvitationSchema.parse(body);
  const secret = new URL(link).hash.slice(1);
  const attempt = (password: string) =>
    new Browser(address).ask('POST', '/door/accept', { secret, name: 'Wren Saltmarsh', password });
  for (const [password, part] of [
    ['short one', 'at least 12'],
    ['123456789012', 'tried first'],
    ['abcabcabcabcabc', 'tried first'],
    ['wren@saltmarsh.example1', 'little more than your name'],
  ] as const) {
    expect(await attempt(password)).toMatchObject({ status: 400, body: refused(part) });
  }
  expect((await attempt(passwords.viewer)).status).toBe(201);
  expect((await attempt(passwords.viewer)).status).toBe(404);
  const { rows } = await db.execute<{ hash: string }>(sql`select password_hash as hash from people`);
  expect(rows.every(({ hash }) => hash.startsWith('$argon2id$v=19$m=19456,t=2,p=1$'))).toBe(true);
});

describe('signed in', () => {
  test('a session is a cookie that scripts cannot read, kept as a hash, and ended from elsewhere', async () => {
    const here = await comeAs('editor', 'ida@saltmarsh.example', passwords.editor);
    expect(here.given).toMatch(/^inkwell=[^;]+; Path=\/; HttpOnly; SameSite=Lax$/);
    const there = new Browser(address);
    await there.signIn('ida@saltmarsh.example', passwords.editor);
    const { rows } = await db.execute(sql`select s::text as row from sessions s`);
    const said = decodeURIComponent(there.cookie ?? '').slice('inkwell=s:'.length);
    expect(JSON.stringify(rows)).not.toContain(said.split('.')[0]);

    const sessions = await here.read(z.array(SessionSchema), '/me/sessions');
    expect(sessions.map(({ isThis }) => isThis).sort()).toEqual([false, true]);
    const other = sessions.find(({ isThis }) => !isThis);
    // Nobody ends the sessions of others.
    expect((await owner.ask('DELETE', `/me/sessions/${other?.id}`)).status).toBe(404);
    expect((await here.ask('DELETE', `/me/sessions/${other?.id}`)).status).toBe(204);
    expect(await there.person()).toBeNull();
    expect((await here.ask('POST', '/door/sign-out')).status).toBe(200);
    expect((await here.ask('GET', '/projects')).status).toBe(401);
  });

  test('signing in begins a new session, whatever the browser brought', async () => {
    const browser = new Browser(address);
    await browser.signIn('ida@saltmarsh.example', passwords.editor);
    const { cookie } = browser;
    await browser.signIn('ida@saltmarsh.example', passwords.editor);
    expect(browser.cookie).not.toBe(cookie);
    browser.cookie = cookie;
    expect(await browser.person()).toBeNull();
  });

  test('another site, or a page that does not know the session, changes nothing', async () => {
    const browser = new Browser(address);
    await browser.signIn('ida@saltmarsh.example', passwords.editor);
    const make = (headers: Record<string, string>) => browser.ask('POST', '/projects', { name: 'Mine' }, headers);
    expect((await make({})).status).toBe(201);
    expect(await make({ Origin: 'http://elsewhere.example' })).toMatchObject({
      status: 403,
      body: refused('other sites'),
    });
    expect(await make({ 'Sec-Fetch-Site': 'cross-site' })).toMatchObject({ status: 403 });
    expect(await make({ 'X-Inkwell-Page': '' })).toMatchObject({ status: 401, body: refused('Reload the page') });
    expect(await make({ 'X-Inkwell-Page': 'f'.repeat(256) })).toMatchObject({ status: 401 });
  });

  test('a session that nobody uses, or that goes on too long, ends', async () => {
    for (const change of [
      sql`update sessions set expire = now() - interval '1 second'`,
      sql`update sessions set sess = jsonb_set(sess::jsonb, '{since}', '"2026-01-01T00:00:00.000Z"')::json`,
    ]) {
      const browser = new Browser(address);
      await browser.signIn('ida@saltmarsh.example', passwords.editor);
      await db.execute(
        sql`${change} where sess ->> 'personId' = (select id::text from people where email = 'ida@saltmarsh.example')`,
      );
      expect(await browser.person()).toBeNull();
    }
  });
});

describe('a password that is changed or forgotten', () => {
  test('changing it signs out everywhere else, also what was just signing in', async () => {
    const here = await comeAs('editor', 'odd@saltmarsh.example', passwords.editor);
    const there = new Browser(address);
    await there.signIn('odd@saltmarsh.example', passwords.editor);
    const change = (password: string) => here.ask('POST', '/me/password', { password, wanted: passwords.other });
    expect(await change('not my password')).toMatchObject({ status: 400, body: refused('not your password') });
    expect((await change(passwords.editor)).status).toBe(200);
    expect(await here.person()).toMatchObject({ email: 'odd@saltmarsh.example' });
    expect(await there.person()).toBeNull();
    expect((await there.signIn('odd@saltmarsh.example', passwords.editor)).status).toBe(400);
  });

  test('a link of a mail gives another, once; nobody learns whether there is an account', async () => {
    const ask = (email: string) => new Browser(address).ask('POST', '/door/forgotten', { email });
    expect(await ask('odd@saltmarsh.example')).toEqual(await ask('nobody@saltmarsh.example'));
    const link = await until(
      () => mailTo(owner, 'odd@saltmarsh.example'),
      (found) => found.includes('new-password'),
    );
    expect(await mailTo(owner, 'nobody@saltmarsh.example')).toBe('');
    const browser = new Browser(address);
    await browser.signIn('odd@saltmarsh.example', passwords.other);
    const reset = () =>
      new Browser(address).ask('POST', '/door/new-password', {
        secret: new URL(link).hash.slice(1),
        password: passwords.editor,
      });
    const both = await Promise.all([reset(), reset()]);
    expect(both.map(({ status }) => status).sort()).toEqual([204, 404]);
    expect(await browser.person()).toBeNull();
    expect((await browser.signIn('odd@saltmarsh.example', passwords.editor)).status).toBe(200);
  });
});

describe('a second factor', () => {
  const browser = new Browser(address);
  const again = (code?: string) => new Browser(address).signIn('tove@saltmarsh.example', passwords.other, code);
  let codes: string[] = [];

  test('is asked for once a code has shown that it works; no code holds twice', async () => {
    const come = await comeAs('viewer', 'tove@saltmarsh.example', passwords.other);
    await browser.signIn('tove@saltmarsh.example', passwords.other);
    const offered = await browser.ask('POST', '/me/second-factor', { password: passwords.other });
    const { secret, uri } = FactorOfferSchema.parse(offered.body);
    expect(uri).toContain('issuer=Inkwell%20Frame');
    // An offer that nobody has confirmed asks for nothing.
    expect((await again()).body).toMatchObject({ state: 'in' });
    expect((await browser.ask('POST', '/me/second-factor/confirm', { code: '000000' })).status).toBe(400);
    const totp = new TOTP({ secret });
    const first = totp.generate();
    const confirmed = await browser.ask('POST', '/me/second-factor/confirm', { code: first });
    codes = RecoveryCodesSchema.parse(confirmed.body).codes;
    expect(new Set(codes).size).toBe(10);

    expect((await again()).body).toEqual({ state: 'code needed' });
    expect((await again(first)).status).toBe(400);
    const next = totp.generate({ timestamp: Date.now() + 30_000 });
    const both = await Promise.all([again(next), again(next)]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 400]);
    expect(await come.person()).toMatchObject({ hasSecondFactor: true });
  });

  test('each recovery code opens the account once, and the factor goes with the password alone', async () => {
    const [one = '', two = ''] = codes;
    expect((await again(one.toLowerCase().replaceAll('-', ' '))).body).toMatchObject({ state: 'in' });
    expect((await again(one)).status).toBe(400);
    const { rows } = await db.execute(sql`select r::text as row from recovery_codes r`);
    expect(JSON.stringify(rows)).not.toContain(two.replaceAll('-', ''));
    expect((await browser.ask('POST', '/me/second-factor/drop', { password: passwords.other })).status).toBe(204);
    expect((await again()).body).toMatchObject({ state: 'in' });
  });
});

test('whoever knows the password alone has no more tries at the code for it', async () => {
  const kari = await comeAs('viewer', 'kari@saltmarsh.example', passwords.other);
  const { body } = await kari.ask('POST', '/me/second-factor', { password: passwords.other });
  const code = new TOTP({ secret: FactorOfferSchema.parse(body).secret }).generate();
  await kari.ask('POST', '/me/second-factor/confirm', { code });
  const tries: number[] = [];
  for (let at = 0; at < 10; at += 1) {
    const from = new Browser(address);
    await from.signIn('kari@saltmarsh.example', passwords.other);
    tries.push((await from.signIn('kari@saltmarsh.example', passwords.other, 'AAAA-AAAA-AAAA-AAAA')).status);
  }
  expect(tries).toEqual([400, 400, 400, 400, 400, 400, 400, 400, 429, 429]);
});

test('where nobody gets in by the front, the machine itself prints links', async () => {
  const said: string[] = [];
  const account = async (...words: string[]) => {
    const environment = { ...process.env, ...settings, PORT: String(settings.PORT) };
    const code = await runCommand(['account', ...words], {
      caller: settings.INKWELL_DATA,
      environment,
      say: (line) => said.push(line),
    });
    return { code, last: said.at(-1) ?? '' };
  };
  const invited = await account('invite', 'sol@saltmarsh.example', '--role', 'viewer');
  const sol = new Browser(address);
  await sol.accept(invited.last, 'Sol', passwords.viewer);
  const { body } = await sol.ask('POST', '/me/second-factor', { password: passwords.viewer });
  const { secret } = FactorOfferSchema.parse(body);
  await sol.ask('POST', '/me/second-factor/confirm', { code: new TOTP({ secret }).generate() });
  expect((await sol.signIn('sol@saltmarsh.example', passwords.viewer)).body).toEqual({ state: 'code needed' });
  const reset = await account('reset', 'sol@saltmarsh.example', '--without-factor');
  expect(reset.last).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/new-password#/);
  const chosen = { secret: new URL(reset.last).hash.slice(1), password: passwords.other };
  expect((await new Browser(address).ask('POST', '/door/new-password', chosen)).status).toBe(204);
  expect((await sol.signIn('sol@saltmarsh.example', passwords.other)).body).toMatchObject({ state: 'in' });
  expect((await account('list')).last).toBe('sol@saltmarsh.example  viewer of Studio  Sol');
  expect((await account('reset', 'nobody@saltmarsh.example')).code).toBe(1);
  expect((await account('reset', 'no address')).code).toBe(1);
});

describe('people', () => {
  test('somebody always owns the workspace, and who is taken away is out at once', async () => {
    const people = await owner.read(z.array(MemberSchema), '/people');
    const [me] = people.filter(({ role }) => role === 'owner');
    const leave = [
      owner.ask('PATCH', `/people/${me?.id}`, { role: 'viewer' }),
      owner.ask('DELETE', `/people/${me?.id}`),
    ];
    for (const { status, body } of await Promise.all(leave)) {
      expect({ status, body }).toMatchObject({ status: 409, body: refused('Somebody has to own') });
    }
    const gone = await comeAs('editor', 'gone@saltmarsh.example', passwords.editor);
    const { body } = await gone.ask('POST', '/tokens', { name: 'Night script', may: 'change', days: null });
    const { secret } = MadeTokenSchema.parse(body);
    const program = new Client(address, { Authorization: `Bearer ${secret}` });
    expect((await program.ask('POST', '/projects', { name: 'By night' })).status).toBe(201);
    const id = (await gone.person())?.id;
    // A token may do no more than whoever made it.
    expect((await owner.ask('PATCH', `/people/${id}`, { role: 'viewer' })).status).toBe(204);
    expect(await program.ask('POST', '/projects', { name: 'By night' })).toMatchObject({
      status: 403,
      body: refused('viewer'),
    });
    expect((await owner.ask('DELETE', `/people/${id}`)).status).toBe(204);
    expect((await program.ask('GET', '/projects')).status).toBe(401);
    expect(await gone.person()).toBeNull();
  });

  test('an invitation that is withdrawn, or made anew, holds no more', async () => {
    const invite = async () =>
      MadeInvitationSchema.parse(
        (await owner.ask('POST', '/invitations', { email: 'late@saltmarsh.example', role: 'editor' })).body,
      );
    const [first, second] = [await invite(), await invite()];
    const open = (link: string) =>
      new Browser(address).ask('POST', '/door/invitation', { secret: new URL(link).hash.slice(1) });
    expect((await open(first.link)).status).toBe(404);
    expect(await open(second.link)).toMatchObject({
      status: 200,
      body: { email: 'late@saltmarsh.example', role: 'editor' },
    });
    const waiting = await owner.read(z.array(InvitationSchema), '/invitations');
    expect(waiting.map(({ email, invitedBy }) => [email, invitedBy])).toEqual([
      ['late@saltmarsh.example', 'Runa Holm'],
    ]);
    expect((await owner.ask('DELETE', `/invitations/${second.invitation.id}`)).status).toBe(204);
    expect((await open(second.link)).status).toBe(404);
  });
});

test('attempts are counted before they are looked at, by all servers, over restarts, and alike for who is not here', async () => {
  const wrong = { status: 400, body: refused('is not right') };
  for (const email of ['ida@saltmarsh.example', 'never@saltmarsh.example']) {
    const many = await Promise.all(
      Array.from({ length: 12 }, () => new Browser(address).signIn(email, 'a wrong password')),
    );
    expect(many.filter(({ status }) => status === 400)).toHaveLength(8);
    expect(many.filter(({ status }) => status === 429)).toHaveLength(4);
    expect(many).toContainEqual(wrong);
  }
  const another = await startServer(settings);
  const right = await new Browser(another.address).signIn('ida@saltmarsh.example', passwords.editor);
  expect(right).toMatchObject({ status: 429, body: refused('too many attempts. Wait 15 minutes') });
  await another.stop();
});

// What happens in the tests of workspaces, tokens, reviews and shares.
const elsewhere: DoorEventKind[] = [
  'token withdrawn',
  'joined',
  'left',
  'workspace made',
  'workspace named',
  'review link made',
  'review link withdrawn',
  'share changed',
];

test('what happened at the door is kept: who, to whom, from where, and nothing that was typed', async () => {
  const { whole, firstWorkspace } = running.door;
  const events = await listDoorEvents(whole, { id: firstWorkspace, isFirst: true });
  const kinds = new Set(events.map(({ kind }) => kind));
  expect([...kinds].sort()).toEqual(
    [...DoorEventKindSchema.options].filter((kind) => !elsewhere.includes(kind)).sort(),
  );
  const text = JSON.stringify(events);
  // An address without an account may be a password that was typed into the wrong field.
  for (const typed of [...Object.values(passwords), 'never@saltmarsh.example', 'nobody@'])
    expect(text).not.toContain(typed);
  const taken = events.find(({ kind }) => kind === 'account taken away');
  expect(taken).toMatchObject({
    who: expect.stringMatching(/^Runa Holm \(runa\d@saltmarsh\.example\)$/),
    about: 'Some editor (gone@saltmarsh.example)',
    address: '127.0.0.1',
  });
  const changed = events.find(({ kind }) => kind === 'role changed');
  expect(changed?.about).toBe('Some editor (gone@saltmarsh.example): editor, now viewer');
  // What is too many for an account is one event, however many came.
  expect(events.filter(({ kind }) => kind === 'held up')).toHaveLength(3);
});
