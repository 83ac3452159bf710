import { afterAll, expect, inject, test } from 'vitest';
import { openDatabase } from '../store/database.ts';
import { work } from '../store/schema/index.ts';
import { addWork, claimWork, dropUnwanted, finishWork, type NewWork, priorities } from '../store/work.ts';
import { ownDatabase } from '../testing/databases.ts';

const { db, close } = await openDatabase(await ownDatabase(inject('databaseUrl'), inject('databasePrefix')));
afterAll(close);

const frames = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
const asked = (key: string, wantedBy?: string[]): NewWork => ({
  key,
  task: { kind: 'plan', plan: {}, isWay: false },
  priority: priorities.measuring,
  ...(wantedBy ? { wantedBy } : {}),
});
const claimed = async (worker: number) => {
  const one = await claimWork(db, worker, 0);
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
