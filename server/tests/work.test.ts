import { wholeShare } from '@inkwell/core/model';
import { eq } from 'drizzle-orm';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import { setShareOf } from '../store/access/shares.ts';
import { firstWorkspace } from '../store/access/workspaces.ts';
import { type ClaimAsked, claimWork } from '../store/claimWork.ts';
import { openDatabase } from '../store/database.ts';
import { people as peopleTable, turns, work } from '../store/schema/index.ts';
import { addWork, dropUnwanted, finishWork, type NewWork, priorities } from '../store/work.ts';
import { bareDatabase } from '../testing/programs/program.ts';

const { whole, fenced, close } = await openDatabase(await bareDatabase());
afterAll(close);
const workspaceId = await firstWorkspace(whole);
const db = fenced(workspaceId);
const people = ['00000000-0000-4000-8000-0000000000a1', '00000000-0000-4000-8000-0000000000b1'] as const;

const frames = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
const asked = (key: string, wantedBy?: string[]): NewWork => ({
  key,
  task: { kind: 'plan', plan: {}, isWay: false },
  priority: priorities.measuring,
  ...(wantedBy ? { wantedBy } : {}),
});
const claimed = async (worker: number) => {
  const one = await claimWork(whole, worker, { lane: 'cores', least: 0 });
  if (!one) throw new Error('nothing to do');
  return one;
};
const left = () => db.select({ key: work.key, state: work.state, attempts: work.attempts }).from(work);

test('work that nobody wants is dropped; asked for again meanwhile, whoever asks, it is done', async () => {
  await addWork(db, [asked('once', [frames[0]])]);
  expect(await dropUnwanted(db, await claimed(1), 1)).toBe(true);
  expect(await left()).toEqual([]);
  // Changed and changed back by the same frame, by another one, or for a delivery, which wants it whatever becomes of frames.
  for (const again of [[frames[0]], [frames[1]], undefined]) {
    await addWork(db, [asked('again', [frames[0]])]);
    const one = await claimed(1);
    await addWork(db, [asked('again', again)]);
    expect(await dropUnwanted(db, one, 1)).toBe(false);
    expect(await left()).toEqual([{ key: 'again', state: 'waiting', attempts: 0 }]);
    expect(await finishWork(db, (await claimed(2)).id, 2)).toBe(true);
  }
});

test('a worker that has lost its work neither drops nor puts back what another does', async () => {
  await addWork(db, [asked('lost', [frames[0]])]);
  const one = await claimed(1);
  await db.update(work).set({ worker: 2 });
  expect(await dropUnwanted(db, one, 1)).toBe(false);
  expect(await left()).toEqual([{ key: 'lost', state: 'working', attempts: 1 }]);
});

const projects = [
  '00000000-0000-4000-8000-00000000000a',
  '00000000-0000-4000-8000-00000000000b',
  '00000000-0000-4000-8000-00000000000c',
] as const;
/** Work of a project, drawn from a picture of so many million pixels. */
const sized = (key: string, projectId: string, megapixels = 1): NewWork => ({
  ...asked(key),
  projectId,
  task: {
    kind: 'plan',
    isWay: false,
    plan: { original: { width: megapixels * 1000, height: 1000 }, output: { width: 0, height: 0 } },
  },
});
const take = (options: Partial<ClaimAsked> = {}) => claimWork(whole, 1, { lane: 'cores', least: 0, ...options });

describe('whose turn it is', () => {
  beforeEach(async () => {
    await db.delete(work);
    await whole.delete(turns);
  });

  test('projects take turns, and what is urgent goes before that', async () => {
    const [first, second, third] = projects;
    await addWork(
      db,
      [1, 2, 3, 4, 5, 6].map((number) => sized(`a${number}`, first)),
    );
    await addWork(db, [sized('b1', second), sized('b2', second)]);
    await addWork(db, [{ ...sized('c1', third), priority: priorities.looked }]);
    const order: string[] = [];
    for (let one = await take(); one; one = await take()) order.push(one.key.slice(0, 1));
    expect(order[0]).toBe('c');
    expect(order.slice(1, 5).toSorted().join('')).toBe('aabb');
    // Neither of the two waits for more than one thing of the other.
    expect(order.slice(1, 5).join('')).toMatch(/^(abab|baba)$/);
    expect(order.slice(5).join('')).toBe('aaaa');
  });

  test('people take turns before their projects do', async () => {
    const [one, other, third] = projects;
    const [ofA, ofB] = people.map((person) => fenced(workspaceId, person));
    if (!ofA || !ofB) throw new Error('There are two.');
    for (const project of [one, other])
      await addWork(
        ofA,
        [1, 2, 3].map((number) => sized(`a ${project} ${number}`, project)),
      );
    await addWork(ofB, [sized('b1', third), sized('b2', third)]);
    const order: string[] = [];
    for (let next = await take(); next; next = await take()) order.push(next.key.slice(0, 1));
    // However many projects the one works on, the other waits for a single thing of them.
    expect(order.join('')).toMatch(/^(abab|baba)aaaa$/);
  });

  test('of whoever has a share of pixels in work nothing more is taken, and others go on', async () => {
    const [ofA, ofB] = people.map((person) => fenced(workspaceId, person));
    if (!ofA || !ofB) throw new Error('There are two.');
    await whole
      .insert(peopleTable)
      .values(people.map((id) => ({ id, email: `${id}@marsh.example`, name: id, passwordHash: '' })));
    await setShareOf(whole, workspaceId, people[0], { ...wholeShare, pixels: 5e6 });
    await addWork(
      ofA,
      [1, 2, 3, 4].map((number) => sized(`a${number}`, projects[0], 3)),
    );
    await addWork(ofB, [sized('b1', projects[1], 3)]);
    const taken = await Promise.all(
      [1, 2, 3, 4, 5].map((worker) => claimWork(whole, worker, { lane: 'cores', least: 0 })),
    );
    // The second begins while less than the share is in work; no two workers take what is left of it.
    expect(taken.flatMap((next) => next?.key.slice(0, 1) ?? []).toSorted()).toEqual(['a', 'a', 'b']);
    const [done] = taken.filter((next) => next?.askedBy === people[0]);
    if (!done) throw new Error('Nothing was taken.');
    await db.delete(work).where(eq(work.id, done.id));
    expect(await take()).toMatchObject({ askedBy: people[0] });
    await setShareOf(whole, workspaceId, people[0], wholeShare);
    expect(await take()).toMatchObject({ askedBy: people[0] });
  });

  test('what does not fit is waited for, whatever smaller there is behind it', async () => {
    const [one, other] = projects;
    await addWork(db, [{ ...sized('large', one, 50), priority: priorities.delivering }, sized('small', other, 1)]);
    expect(await take({ room: 10e6 })).toBeNull();
    expect(await left()).toHaveLength(2);
    // Where nothing is in work, the largest is taken; what draws no pixels always is.
    expect(await take({ room: null })).toMatchObject({ key: 'large', pixels: 50e6 });
    expect(await take({ room: 0 })).toBeNull();
    expect(await take({ room: 1e6 })).toMatchObject({ key: 'small' });
  });

  test('many that claim at once get everything, each thing once', async () => {
    const keys = projects.flatMap((projectId, index) =>
      Array.from({ length: 30 }, (_, number) => sized(`${index} ${number}`, projectId)),
    );
    await addWork(db, keys);
    const taken: string[] = [];
    const lane = async (worker: number) => {
      for (;;) {
        const one = await claimWork(whole, worker, { lane: 'cores', least: 0 });
        if (!one) return;
        taken.push(one.key);
        await finishWork(db, one.id, worker);
      }
    };
    await Promise.all([1, 2, 3, 4, 5, 6, 7, 8].map(lane));
    expect(taken.toSorted()).toEqual(keys.map(({ key }) => key).toSorted());
  });
});
