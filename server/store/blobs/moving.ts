import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { backupLock } from '../backup/backupLock.ts';
import type { Database, Queryable } from '../database.ts';
import { type BlobPlace, blobChunks, blobs, unneededObjects } from '../schema/index.ts';
import { chunksFrom, keepChunks } from './chunks.ts';
import { lockObject } from './lockObject.ts';
import { objects } from './objects.ts';

/** How many blobs lie where, and how many bytes they have. */
export async function blobsByPlace(db: Queryable): Promise<Record<BlobPlace, { count: number; bytes: number }>> {
  const rows = await db
    .select({
      place: blobs.place,
      count: sql<number>`count(*)::int`,
      bytes: sql<number>`coalesce(sum(${blobs.bytes}), 0)::float8`,
    })
    .from(blobs)
    .groupBy(blobs.place);
  const at = (place: BlobPlace) => {
    const { count = 0, bytes = 0 } = rows.find((row) => row.place === place) ?? {};
    return { count, bytes };
  };
  return { database: at('database'), s3: at('s3') };
}

/** Some blobs that lie at a place, in the order of their hashes. @param after the last that was seen */
export async function someBlobs(db: Queryable, place: BlobPlace, after: string, most: number): Promise<string[]> {
  const rows = await db
    .select({ sha256: blobs.sha256 })
    .from(blobs)
    .where(and(eq(blobs.place, place), gt(blobs.sha256, after)))
    .orderBy(asc(blobs.sha256))
    .limit(most);
  return rows.map(({ sha256 }) => sha256);
}

/**
 * Moves the bytes of a blob. They are read again at their new place before they are left out at the old; broken off at any
 * moment, they lie where they lay.
 *
 * @returns how many bytes; null where there is nothing to move any more
 * @throws where they are not whole
 */
export function moveBlob(db: Database, sha256: string, to: BlobPlace): Promise<number | null> {
  return db.transaction(async (tx) => {
    await lockObject(tx, sha256);
    const [row] = await tx.select().from(blobs).where(eq(blobs.sha256, sha256)).for('no key update');
    if (!row || row.place === to) return null;
    if (to === 's3') {
      await objects().put(sha256, Readable.from(chunksFrom(tx, sha256, 0), { objectMode: false }), row.bytes);
      await checkWhole(sha256, (await objects().get(sha256, 0)) ?? Readable.from([]));
      await tx.delete(blobChunks).where(eq(blobChunks.sha256, sha256));
    } else {
      await keepChunks(tx, sha256, (await objects().get(sha256, 0)) ?? Readable.from([]));
      await checkWhole(sha256, Readable.from(chunksFrom(tx, sha256, 0)));
      await tx.insert(unneededObjects).values({ sha256 }).onConflictDoNothing();
    }
    await tx.update(blobs).set({ place: to }).where(eq(blobs.sha256, sha256));
    return row.bytes;
  });
}

async function checkWhole(sha256: string, source: Readable): Promise<void> {
  const hash = createHash('sha256');
  for await (const piece of source) hash.update(piece as Uint8Array);
  if (hash.digest('hex') !== sha256) throw new Error(`The bytes of ${sha256} are not whole; they stay where they are.`);
}

/** Takes the objects out of their store that no blob needs any more. @returns how many */
export async function removeUnneeded(db: Database): Promise<number> {
  const rows = await db.select().from(unneededObjects);
  let count = 0;
  for (const { sha256 } of rows) {
    await db.transaction(async (tx) => {
      // A backup that is being made may need it: it is taken out the next time.
      const { rows: free } = await tx.execute<{ is: boolean }>(
        sql`select pg_try_advisory_xact_lock(${backupLock}) as is`,
      );
      if (!free[0]?.is) return;
      await lockObject(tx, sha256);
      const [needed] = await tx
        .select({ place: blobs.place })
        .from(blobs)
        .where(and(eq(blobs.sha256, sha256), eq(blobs.place, 's3')));
      if (!needed) await objects().remove(sha256);
      await tx.delete(unneededObjects).where(eq(unneededObjects.sha256, sha256));
      count += 1;
    });
  }
  return count;
}
