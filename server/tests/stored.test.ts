import { createHash } from 'node:crypto';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { and, eq, sql } from 'drizzle-orm';
import { afterAll, expect, inject, test } from 'vitest';
import { mapTwoAtATime } from '../running/mapTwoAtATime.ts';
import { blobToFile, keepBytes, keepFile, readBlob } from '../store/blobs/blobs.ts';
import { openDatabase } from '../store/database.ts';
import { reachMilestone } from '../store/milestones.ts';
import { blobChunks, blobs } from '../store/schema/index.ts';
import { bareDatabase } from '../testing/programs/program.ts';

const databaseUrl = await bareDatabase();
const { whole: db, close } = await openDatabase(databaseUrl);
afterAll(close);
const folder = await mkdtemp(join(inject('dataFolder'), 'stored-'));
const mebibyte = 1 << 20;

const bytesOf = (length: number, seed: number) =>
  Buffer.from(Uint8Array.from({ length }, (_, at) => (at * 31 + (at >> 8) * 7 + seed) & 255));
const hashOf = (data: Buffer) => createHash('sha256').update(data).digest('hex');
const chunksOf = (sha256: string) =>
  db.select({ index: blobChunks.index }).from(blobChunks).where(eq(blobChunks.sha256, sha256));

test.each([1, mebibyte - 1, mebibyte, mebibyte + 1, 3 * mebibyte + 5])(
  '%i bytes come back as they were, in chunks of at most 1 MiB',
  async (length) => {
    const data = bytesOf(length, 1);
    expect(await keepBytes(db, data)).toBe(hashOf(data));
    expect((await buffer(readBlob(db, hashOf(data)))).equals(data)).toBe(true);
    expect(await chunksOf(hashOf(data))).toHaveLength(Math.ceil(length / mebibyte));
  },
);

test('the same bytes are kept once, whether they come from memory or from a file', async () => {
  const data = bytesOf(2 * mebibyte + 77, 2);
  const path = join(folder, 'same');
  await writeFile(path, data);
  await keepFile(db, path, hashOf(data), data.length);
  await Promise.all([keepBytes(db, data), keepBytes(db, data), keepFile(db, path, hashOf(data), data.length)]);
  expect(await chunksOf(hashOf(data))).toHaveLength(3);
  const out = join(folder, 'out');
  await blobToFile(db, hashOf(data), out);
  expect((await readFile(out)).equals(data)).toBe(true);
});

test('bytes that were damaged in the store are noticed, not handed on', async () => {
  const data = bytesOf(mebibyte + 9, 3);
  const sha256 = await keepBytes(db, data);
  await db
    .update(blobChunks)
    .set({ data: Buffer.from('no kite') })
    .where(and(eq(blobChunks.sha256, sha256), eq(blobChunks.index, 1)));
  await expect(blobToFile(db, sha256, join(folder, 'damaged'))).rejects.toThrow('not whole');
});

test('what a transaction keeps is gone with it when it fails', async () => {
  const data = bytesOf(5000, 4);
  const failing = db.transaction(async (tx) => {
    await keepBytes(tx, data);
    throw new Error('the line tore');
  });
  await expect(failing).rejects.toThrow('the line tore');
  expect(
    await db
      .select()
      .from(blobs)
      .where(eq(blobs.sha256, hashOf(data))),
  ).toEqual([]);
  expect(await buffer(readBlob(db, hashOf(data)))).toHaveLength(0);
});

test('a blob takes its chunks along when it goes', async () => {
  const sha256 = await keepBytes(db, bytesOf(mebibyte * 2, 5));
  await db.delete(blobs).where(eq(blobs.sha256, sha256));
  expect(await chunksOf(sha256)).toEqual([]);
});

test('several processes may open the database at once; migrations run once', async () => {
  const applied = async () =>
    (await db.execute(sql`select count(*)::int as count from drizzle.__drizzle_migrations`)).rows[0];
  const before = await applied();
  const opened = await Promise.all([1, 2, 3].map(() => openDatabase(databaseUrl)));
  expect(await applied()).toEqual(before);
  await Promise.all(opened.map((one) => one.close()));
});

test('a milestone is reached once, whoever comes at the same time; a task that failed is done again', async () => {
  let done = 0;
  await expect(reachMilestone(db, 'first flight', () => Promise.reject(new Error('no wind')))).rejects.toThrow(
    'no wind',
  );
  const fly = async () => {
    done += 1;
  };
  await Promise.all([reachMilestone(db, 'first flight', fly), reachMilestone(db, 'first flight', fly)]);
  await reachMilestone(db, 'first flight', fly);
  expect(done).toBe(1);
});

test('two at a time: never more, every item once, and a failure waits for the others', async () => {
  let running = 0;
  let most = 0;
  const seen: number[] = [];
  const work = mapTwoAtATime([0, 1, 2, 3, 4, 5, 6], async (item, index) => {
    running += 1;
    most = Math.max(most, running);
    await new Promise((resolve) => setTimeout(resolve, 5));
    running -= 1;
    seen.push(item);
    expect(index).toBe(item);
    if (item === 2) throw new Error('item two');
  });
  await expect(work).rejects.toThrow('item two');
  expect(most).toBe(2);
  expect(running).toBe(0);
  // The lane in which it failed stops there; the other one goes on to the end.
  expect(seen.sort()).toEqual([0, 1, 2, 3, 4, 5, 6]);
  await expect(mapTwoAtATime([], async () => undefined)).resolves.toBeUndefined();
});
