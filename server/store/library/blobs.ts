import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { Database, Queryable } from '../database.ts';
import { blobChunks, blobs } from '../schema/index.ts';

const chunkBytes = 1 << 20;

/** Keeps the bytes of `source` under their SHA-256; does nothing where they are kept already. Run it in a transaction. */
async function keep(db: Queryable, sha256: string, bytes: number, source: AsyncIterable<Buffer>): Promise<void> {
  // What is there already is locked: nobody may clear it away before this transaction says what it is needed for.
  const [row] = await db
    .insert(blobs)
    .values({ sha256, bytes })
    .onConflictDoUpdate({ target: blobs.sha256, set: { bytes } })
    .returning({ isNew: sql<boolean>`xmax = 0` });
  if (!row?.isNew) return;
  let index = 0;
  for await (const data of source) {
    await db.insert(blobChunks).values({ sha256, index, data });
    index += 1;
  }
}

/** Keeps a file whose SHA-256 and length are known. */
export function keepFile(db: Queryable, path: string, sha256: string, bytes: number): Promise<void> {
  return keep(db, sha256, bytes, createReadStream(path, { highWaterMark: chunkBytes }));
}

/** Keeps bytes in memory and returns their SHA-256. */
export async function keepBytes(db: Queryable, data: Buffer): Promise<string> {
  const sha256 = createHash('sha256').update(data).digest('hex');
  const pieces = Array.from({ length: Math.ceil(data.length / chunkBytes) }, (_, index) =>
    data.subarray(index * chunkBytes, (index + 1) * chunkBytes),
  );
  await keep(db, sha256, data.length, Readable.from(pieces, { objectMode: true }));
  return sha256;
}

/** The bytes of a blob, read a chunk at a time; ends at once where there is no such blob. */
export function readBlob(db: Queryable, sha256: string): Readable {
  async function* chunks() {
    for (let index = 0; ; index += 1) {
      const [chunk] = await db
        .select({ data: blobChunks.data })
        .from(blobChunks)
        .where(and(eq(blobChunks.sha256, sha256), eq(blobChunks.index, index)));
      if (!chunk) return;
      yield chunk.data;
    }
  }
  return Readable.from(chunks(), { objectMode: false });
}

/** How many bytes a blob has; null where it is not there. */
export async function blobLength(db: Queryable, sha256: string): Promise<number | null> {
  const [row] = await db.select({ bytes: blobs.bytes }).from(blobs).where(eq(blobs.sha256, sha256));
  return row?.bytes ?? null;
}

/** A blob whole, checked; null where it is not there. @throws where its bytes do not match the hash */
export async function blobBytes(db: Database, sha256: string): Promise<Buffer | null> {
  const rows = await db
    .select({ data: blobChunks.data })
    .from(blobChunks)
    .where(eq(blobChunks.sha256, sha256))
    .orderBy(asc(blobChunks.index));
  if (rows.length === 0) return null;
  const data = Buffer.concat(rows.map((row) => row.data));
  if (createHash('sha256').update(data).digest('hex') !== sha256) {
    throw new Error(`The stored bytes of ${sha256} are not whole.`);
  }
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
  if (hash.digest('hex') !== sha256) throw new Error(`The stored bytes of ${sha256} are not whole.`);
}
