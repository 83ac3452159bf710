import type { Readable } from 'node:stream';
import { and, eq } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { blobChunks } from '../schema/index.ts';

/** The bytes of a blob lie in the database in pieces of this length; the last may be shorter. */
export const chunkBytes = 1 << 20;

/** Bytes in pieces of one length, whatever pieces come; the last may be shorter. */
export async function* evenly(source: Buffer | Readable): AsyncGenerator<Buffer> {
  let held: Buffer[] = [];
  let length = 0;
  for await (const piece of Buffer.isBuffer(source) ? [source] : source) {
    held.push(Buffer.from(piece));
    length += piece.length;
    if (length < chunkBytes) continue;
    const whole = Buffer.concat(held);
    let from = 0;
    for (; whole.length - from >= chunkBytes; from += chunkBytes) yield whole.subarray(from, from + chunkBytes);
    held = [whole.subarray(from)];
    length = whole.length - from;
  }
  if (length > 0) yield Buffer.concat(held);
}

/** Keeps the bytes of a blob whose row is there. Run it in a transaction. */
export async function keepChunks(db: Queryable, sha256: string, source: Buffer | Readable): Promise<void> {
  let index = 0;
  for await (const data of evenly(source)) {
    await db.insert(blobChunks).values({ sha256, index, data });
    index += 1;
  }
}

/** The bytes of a blob in the database from one of them on; ends where there are no more. */
export async function* chunksFrom(db: Queryable, sha256: string, from: number): AsyncGenerator<Buffer> {
  let skipped = from % chunkBytes;
  for (let index = Math.floor(from / chunkBytes); ; index += 1) {
    const [chunk] = await db
      .select({ data: blobChunks.data })
      .from(blobChunks)
      .where(and(eq(blobChunks.sha256, sha256), eq(blobChunks.index, index)));
    if (!chunk) return;
    if (skipped < chunk.data.length) yield chunk.data.subarray(skipped);
    skipped = 0;
  }
}
