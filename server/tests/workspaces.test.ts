import { readFile } from 'node:fs/promises';
import { shippedFinishes } from '@inkwell/core/finishing';
import { shippedStyles } from '@inkwell/core/lettering';
import { MadeTokenSchema } from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { doorResources, resources } from '../api/resources/index.ts';
import { startServer } from '../start.ts';
import { openDatabase } from '../store/database.ts';
import { fencedRole, sharedTables } from '../store/fence.ts';
import { originals } from '../store/schema/index.ts';
import { databaseAt, runSql } from '../testing/databases.ts';
import { fontFile } from '../testing/fonts.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { Browser } from '../testing/programs/browser.ts';
import { Client } from '../testing/programs/client.ts';
import { oddRequests, sendOdd } from '../testing/programs/oddRequests.ts';
import { bareDatabase } from '../testing/programs/program.ts';
import { startStudio, studioPassword } from '../testing/programs/studio.ts';

const { owner, invite, comeAs, workspace, programOf, settings, ...running } = await startStudio();
const { address } = running;
const { whole, firstWorkspace: first } = running.door;
const second = await workspace('Lantern yard');
const [inFirst, inSecond] = [await programOf(owner), await programOf(owner, 'change', second)];
const firstMark = 'Quay seven at low water';
const picture = await chart(240, 180).png().toBuffer();

/** One of everything that belongs to a workspace. @param mark what its project and its picture are called by */
async function furnished(client: Client, mark: string) {
  const original = await client.original(picture, `${mark}.png`);
  const places = await client.sheet('Marram Board', [
    {
      slug: 'notice',
      name: 'Notice',
      purpose: 'post',
      width: 200,
      height: 120,
      formats: ['jpeg'],
      limit: { bytes: 90_000, unit: 'kB' },
      shownWidths: [320],
    },
  ]);
  const project = await client.project(mark, [original], places);
  const delivery = await client.deliver(project.id);
  const finish = { name: 'Dune light', description: 'Ours', treatment: shippedFinishes[1]?.treatment };
  const style = { name: 'Ours', style: shippedStyles[0]?.style };
  const answers = [
    await client.sendFile('/fonts', await readFile(fontFile('kalam')), 'hand.woff2'),
    await client.ask('POST', '/finishes', finish),
    await client.ask('POST', '/letter-styles', style),
    await client.ask('POST', '/place-sets', { name: 'Every week', placeIds: places }),
    await client.ask('POST', '/dry-runs', { deliveryId: delivery.id }),
  ];
  for (const { status } of answers) expect([201, 202]).toContain(status);
  return { original, delivery };
}

async function rowsOf(table: string, workspaceId: string): Promise<Record<string, unknown>[]> {
  const { rows } = await whole.execute(
    sql`select * from ${sql.identifier(table)} where workspace_id = ${workspaceId}::uuid`,
  );
  return rows;
}

/** All tables, and whether each has the column of a workspace. */
async function tables(): Promise<{ name: string; has: boolean }[]> {
  const { rows } = await whole.execute<{ name: string; has: boolean }>(sql`
    select relname as name, exists (
      select from pg_attribute where attrelid = pg_class.oid and attname = 'workspace_id' and not attisdropped) as has
    from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r' order by relname`);
  return rows;
}

const door = ['door_events', 'invitations', 'members', 'tokens'];
const fenced = (await tables()).flatMap(({ name, has }) => (has && !door.includes(name) ? [name] : []));

test('every table is fenced, shared by what it holds, or out of reach from inside', async () => {
  const { db } = running.services;
  const shared: readonly string[] = sharedTables;
  for (const { name } of await tables()) {
    const look = db.execute<{ ids: string[] }>(sql`select * from ${sql.identifier(name)}`);
    if (!fenced.includes(name) && !shared.includes(name)) {
      const refused = await look.catch(({ cause }: { cause?: unknown }) => String(cause));
      expect([name, refused]).toEqual([name, expect.stringContaining('permission denied')]);
      continue;
    }
    await look;
  }
  // What is shared names nobody: it is found by a hash, or is a milestone of the database.
  expect(shared.filter((name) => fenced.includes(name))).toEqual([]);
  expect(fenced.length).toBeGreaterThan(20);
});

test('the same in two workspaces is two, and made side by side of one file that is kept once', async () => {
  const [one, two] = await Promise.all([furnished(inFirst, firstMark), furnished(inSecond, 'Yard')]);
  expect(one.original.id).not.toBe(two.original.id);
  expect(one.original.sha256).toBe(two.original.sha256);
  expect(one.delivery).toMatchObject({ state: 'done', leftOut: [] });
  expect(two.delivery.files.map(({ sha256 }) => sha256)).toEqual(one.delivery.files.map(({ sha256 }) => sha256));
  for (const table of ['originals', 'projects', 'sheets', 'own_fonts', 'finishes', 'letter_styles', 'place_sets'])
    expect([table, (await rowsOf(table, first)).length, (await rowsOf(table, second)).length]).toEqual([table, 1, 1]);
  // What one has deleted the other still has, with its bytes.
  expect((await inSecond.ask('DELETE', `/originals/${two.original.id}`)).status).toBe(204);
  expect((await inFirst.bytes(`/originals/${one.original.id}/file`)).equals(picture)).toBe(true);
  expect((await inSecond.ask('POST', `/originals/${two.original.id}/restore`)).status).toBeLessThan(300);
});

test('a row is written into no other workspace, and none is moved there', async () => {
  const { db } = running.inside(second);
  const [mine] = await db.select().from(originals);
  if (!mine) throw new Error('There is nothing to move.');
  const { id: _, ...values } = mine;
  const inserted = db.insert(originals).values({ ...values, workspaceId: first });
  await expect(inserted).rejects.toMatchObject({ cause: { message: expect.stringContaining('row-level security') } });
  const moved = db.update(originals).set({ workspaceId: first });
  await expect(moved).rejects.toMatchObject({ cause: { message: expect.stringContaining('row-level security') } });
  // Without a workspace nothing is seen or written at all.
  const none = running.inside('00000000-0000-4000-8000-000000000000').db;
  expect(await none.select().from(originals)).toEqual([]);
  await expect(whole.insert(originals).values({ ...values, workspaceId: undefined })).rejects.toThrow();
});

describe('asked in another workspace', async () => {
  /** A hash over all that belongs to the first workspace; what is still to be done is left out. */
  const stand = async () => {
    const all: Record<string, unknown> = {};
    for (const name of fenced.filter((table) => table !== 'work')) {
      const { rows } = await whole.execute(sql`
        select count(*)::int as rows, md5(coalesce(string_agg(one::text, '' order by one::text), '')) as hash
        from ${sql.identifier(name)} as one where workspace_id = ${first}::uuid`);
      all[name] = rows[0];
    }
    return all;
  };
  const seed = Number(process.env.INKWELL_SEED ?? Date.now() % 2 ** 31);
  const requests = Number(process.env.INKWELL_FUZZ ?? 1500);

  test(`no request finds or changes anything of the first (${requests} requests, seed ${seed})`, async () => {
    console.log(`Requests are made with INKWELL_SEED=${seed}.`);
    // On a machine with one person both can be asked for, and a worker would go on changing what is looked at.
    const alone = await startServer({ ...settings, INKWELL_ACCOUNTS: 'off' });
    const there = await furnishedIds();
    const { body: description } = await new Client(alone.address).ask('GET', '/openapi.json');
    const hashes = [...(await hashesThere())];
    const odd = fc.sample(oddRequests(description, there, hashes), { numRuns: requests, seed });
    // Those that delete come with the ids of what is there as well.
    const known = Object.values(there).flat();
    const all = odd.map((one, at) => (at % 2 === 0 ? { ...one, id: known[at % known.length] ?? '' } : one));
    const before = await stand();
    const found: string[] = [];
    const said = new Set<string>();
    try {
      for (const one of all) {
        if (one.route.path.startsWith('/networks')) continue;
        const { asked, response, text } = await sendOdd(`${alone.address}/api/v1/in/${second}`, one);
        // Whatever is named that no request has named was found.
        for (const id of known) if (`${asked}${JSON.stringify(one.body)}`.includes(id)) said.add(id);
        const named = [...known, firstMark].filter((id) => text.includes(id) && !said.has(id));
        const sent = response.headers.get('content-type') ?? '';
        const isSent = response.ok && /image|zip|font/.test(sent) && known.includes(one.id);
        if (named.length > 0 || isSent) found.push(`${asked} → ${response.status} ${sent} ${named.join(' ')}`);
      }
      expect(found).toEqual([]);
      expect(await stand()).toEqual(before);
      // In its own workspace the same is found.
      for (const path of ['originals', 'projects'])
        expect(JSON.stringify((await new Client(alone.address).ask('GET', `/${path}`)).body)).toContain(firstMark);
    } finally {
      await alone.stop();
    }
  }, 300_000);

  /** The ids of all that belongs to the first workspace, by where they are asked for. */
  async function furnishedIds(): Promise<Record<string, string[]>> {
    const at = { originals: 0, projects: 0, frames: 0, deliveries: 0, finishes: 0, sheets: 0 };
    const kinds = { ...at, 'letter-styles': 0, 'place-sets': 0, 'dry-runs': 0 };
    const all = Object.keys(kinds).map(async (kind) => {
      const rows = await rowsOf(kind.replace('-', '_'), first);
      return [kind, rows.map(({ id }) => String(id))] as const;
    });
    return Object.fromEntries(await Promise.all(all));
  }

  async function hashesThere(): Promise<Set<string>> {
    const rows = await rowsOf('delivery_files', first);
    return new Set(rows.flatMap(({ sha256 }) => (sha256 === null ? [] : String(sha256))));
  }
});

describe('who is in which', async () => {
  const editor = await comeAs('editor', 'ida');

  test('a stranger to a workspace is told by every route that there is none', async () => {
    const routes = [...resources(running.services), ...doorResources(running.door, running.inside)].flatMap(
      (one) => one.routes,
    );
    for (const { method, path, contract } of routes) {
      if (contract.isOpen || contract.needs === 'account') continue;
      const at = `/in/${second}${path.replace(/:\w+/g, '00000000-0000-4000-8000-000000000000')}`;
      const body = method === 'get' || contract.file ? undefined : {};
      const { status } = await editor.ask(method.toUpperCase(), at, body);
      expect([method, path, status]).toEqual([method, path, 404]);
    }
    const missing = '/in/00000000-0000-4000-8000-000000000000/projects';
    const inside = `/in/${second}/projects`;
    expect(await editor.ask('GET', inside)).toEqual(await editor.ask('GET', missing));
    expect((await inFirst.ask('GET', inside)).status).toBe(404);
    expect((await new Browser(address).ask('GET', inside)).status).toBe(401);
  });

  test('whoever has an account joins with it, may in each what the role there says, and is taken out of one', async () => {
    const link = await invite('viewer', 'ida@saltmarsh.example', second);
    const secret = new URL(link).hash.slice(1);
    expect(await new Browser(address).ask('POST', '/door/join', { secret })).toMatchObject({ status: 401 });
    const other = await comeAs('owner', 'odd');
    expect(await other.ask('POST', '/door/join', { secret })).toMatchObject({ status: 403 });
    const again = await new Browser(address).ask('POST', '/door/accept', {
      secret,
      name: 'Ida',
      password: studioPassword,
    });
    expect(again).toMatchObject({ status: 409, body: { message: expect.stringContaining('Sign in to join') } });
    // Whoever was refused has not used it up.
    expect(await editor.ask('POST', '/door/join', { secret })).toMatchObject({ status: 200 });
    expect(await editor.ask('POST', '/door/join', { secret })).toMatchObject({ status: 404 });
    expect((await editor.door()).workspaces).toMatchObject([
      { id: first, role: 'editor', isFirst: true },
      { id: second, name: 'Lantern yard', role: 'viewer', isFirst: false },
    ]);
    const make = (workspaceId: string) => editor.ask('POST', `/in/${workspaceId}/projects`, { name: 'By Ida' });
    expect([(await make(first)).status, (await make(second)).status]).toEqual([201, 403]);
    expect((await editor.ask('POST', '/workspaces', { name: 'Third' })).status).toBe(403);

    // Owners of the second see its people and what concerns them, and no mails: those open accounts of all.
    const kinds = async (workspaceId: string) => {
      const { body } = await owner.ask('GET', `/in/${workspaceId}/door-events`);
      return z
        .array(z.object({ kind: z.string() }))
        .parse(body)
        .map(({ kind }) => kind);
    };
    expect(await kinds(second)).toEqual(expect.arrayContaining(['joined', 'workspace made']));
    expect(await kinds(second)).not.toContain('account made');
    const yard = await comeAs('owner', 'tove', second);
    expect((await yard.ask('GET', '/mails')).status).toBe(403);
    expect((await yard.ask('GET', '/people')).body).toMatchObject([{ name: 'Runa Holm' }, { name: 'ida' }, {}]);
    expect((await yard.ask('PATCH', '/workspaces', { name: 'Rope walk' })).status).toBe(204);
    expect((await yard.door()).workspaces).toMatchObject([{ name: 'Rope walk' }]);

    // Taken out of one, somebody keeps the account and what is in the other; a token goes with its workspace.
    const id = (await editor.person())?.id;
    const { body: made } = await editor.ask('POST', `/in/${second}/tokens`, { name: 'mine', may: 'look', days: null });
    const script = new Client(address, { Authorization: `Bearer ${MadeTokenSchema.parse(made).secret}` });
    expect((await script.ask('GET', '/projects')).status).toBe(200);
    expect((await yard.ask('DELETE', `/people/${id}`)).status).toBe(204);
    expect((await script.ask('GET', '/projects')).status).toBe(401);
    expect((await editor.ask('GET', `/in/${second}/projects`)).status).toBe(404);
    expect((await editor.ask('GET', '/projects')).status).toBe(200);
    expect((await yard.ask('DELETE', `/people/${(await owner.person())?.id}`)).status).toBe(204);
    const last = await yard.ask('DELETE', `/people/${(await yard.person())?.id}`);
    expect(last).toMatchObject({ status: 409, body: { message: expect.stringContaining('own the workspace') } });
  });
});

test('a user of the database who may make no role is told what to run, and starts once that is done', async () => {
  const url = await bareDatabase();
  const name = `limited_${Date.now()}`;
  const limited = new URL(url);
  Object.assign(limited, { username: name, password: 'word' });
  await runSql(url, `create role ${name} login password 'word'`, `grant create on schema public to ${name}`);
  await runSql(url, `grant create on database "${limited.pathname.slice(1)}" to ${name}`);
  await expect(openDatabase(limited.href)).rejects.toThrow(`grant ${fencedRole} to "${name}"`);
  await runSql(databaseAt(url, 'postgres'), `grant ${fencedRole} to ${name}`);
  const opened = await openDatabase(limited.href);
  const { rows } = await opened.whole.execute<{ id: string }>(sql`select id from workspaces`);
  const inside = opened.fenced(rows[0]?.id ?? '');
  await inside.execute(
    sql`insert into finishes (name, description, treatment) values ('One', '', '{}'), ('Two', '', '{}')`,
  );
  expect((await inside.execute(sql`select name from finishes`)).rows).toHaveLength(2);
  const outside = opened.fenced('00000000-0000-4000-8000-000000000000');
  expect((await outside.execute(sql`select name from finishes`)).rows).toEqual([]);
  await opened.close();
  await runSql(url, `drop owned by ${name} cascade`, `drop role ${name}`);
});
