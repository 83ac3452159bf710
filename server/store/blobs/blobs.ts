import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { asc, eq, sql } from 'drizzle-orm';
import type { Database, Queryable } from '../database.ts';
import { blobChunks, blobs } from '../schema/index.ts';
import { chunkBytes, chunksFrom, keepChunks } from './chunks.ts';
import { lockObject } from './lockObject.ts';
import { objects, placeOfNew } from './objects.ts';

const notWhole = (sha256: string) => new Error(`The stored bytes of ${sha256} are not whole.`);

/** Keeps bytes under their SHA-256; does nothing where they are kept already. Run it in a transaction. */
async function keep(db: Queryable, sha256: string, bytes: number, source: () => Buffer | Readable): Promise<void> {
  const place = placeOfNew();
  if (place === 's3') await lockObject(db, sha256);
  // What is there already is locked: nobody may clear it away before this transaction says what it is needed for.
  const [row] = await db
    .insert(blobs)
    .values({ sha256, bytes, place })
    .onConflictDoUpdate({ target: blobs.sha256, set: { bytes } })
    .returning({ isNew: sql<boolean>`xmax = 0` });
  if (!row?.isNew) return;
  // An object whose transaction fails is left over: the next who keeps the same bytes puts it there again.
  if (place === 's3') await objects().put(sha256, source(), bytes);
  else await keepChunks(db, sha256, source());
}

/** Keeps a file whose SHA-256 and length are known. */
export function keepFile(db: Queryable, path: string, sha256: string, bytes: number): Promise<void> {
  return keep(db, sha256, bytes, () => createReadStream(path, { highWaterMark: chunkBytes }));
}

/** Keeps bytes in memory and returns their SHA-256. */
export async function keepBytes(db: Queryable, data: Buffer): Promise<string> {
  const sha256 = createHash('sha256').update(data).digest('hex');
  await keep(db, sha256, data.length, () => data);
  return sha256;
}

/**
 * The bytes of a blob, a piece at a time; ends at once where there is no such blob. It goes on elsewhere where the bytes are
 * moved while they are read.
 *
 * @throws where they end too soon
 */
export function readBlob(db: Queryable, sha256: string): Readable {
  async function* pieces() {
    let read = 0;
    for (;;) {
      const [row] = await db
        .select({ bytes: blobs.bytes, place: blobs.place })
        .from(blobs)
        .where(eq(blobs.sha256, sha256));
      if (!row || read >= row.bytes) return;
      const before = read;
      const source = row.place === 'database' ? chunksFrom(db, sha256, read) : await objects().get(sha256, read);
      for await (const piece of source ?? []) {
        const data = Buffer.from(piece as Uint8Array);
        read += data.length;
        yield data;
      }
      if (read > before) continue;
      const [now] = await db.select({ place: blobs.place }).from(blobs).where(eq(blobs.sha256, sha256));
      if (now?.place === row.place) throw notWhole(sha256);
    }
  }
  return Readable.from(pieces(), { objectMode: false });
}

/** How many bytes a blob has; null where it is not there. */
export async function blobLength(db: Queryable, sha256: string): Promise<number | null> {
  const [row] = await db.select({ bytes: blobs.bytes }).from(blobs).where(eq(blobs.sha256, sha256));
  return row?.bytes ?? null;
}

/** A blob whole, checked; null where it is not there. @throws where its bytes do not match the hash */
export async function blobBytes(db: Database, sha256: string): Promise<Buffer | null> {
  // Most files are a chunk or two: they come with one question.
  const rows = await db
    .select({ data: blobChunks.data })
    .from(blobChunks)
    .where(eq(blobChunks.sha256, sha256))
    .orderBy(asc(blobChunks.index));
  const data = rows.length > 0 ? Buffer.concat(rows.map((row) => row.data)) : await buffer(readBlob(db, sha256));
  if (data.length === 0) return null;
  if (createHash('sha256').update(data).digest('hex') !== sha256) throw notWhole(sha256);
  return data;
}

/** Writes a blob into a file and checks that it is whole. @throws where the bytes do not match the hash */
export async function blobToFile(db: Queryable, sha256: string, path: string): Promise<void> {
  const file = await open(path, 'w');
  const hash = createHash('sha256');
  await pipeline(
    readBlob(db, sha256),
    async function* (source: AsyncIterable<Buffer>) {
      for await (const chunk of source) {
        hash.update(chunk);
        yield chunk;
      }
    },
    file.createWriteStream(),
  );
  if (hash.digest('hex') !== sha256) throw notWhole(sha256);
}
