import type { MeasuredFile, SeamStep } from '@inkwell/core/model';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import { keepBytes } from '../blobs/blobs.ts';
import type { Queryable } from '../database.ts';
import { encodings } from '../schema/index.ts';

/** A finished file of a plan, and what it was found to be when it was opened again. */
export interface FinishedFile {
  data: Buffer;
  seams: SeamStep[];
  opened: MeasuredFile;
}

/** A finished file that is kept: its bytes are the blob of this SHA-256. */
export interface KeptEncoding extends Omit<FinishedFile, 'data'> {
  sha256: string;
}

/** Keeps the files of a plan, in reading order. Run it in a transaction. */
export async function keepEncodings(db: Queryable, planHash: string, files: readonly FinishedFile[]): Promise<void> {
  for (const [piece, { data, seams, opened }] of files.entries()) {
    const sha256 = await keepBytes(db, data);
    await db
      .insert(encodings)
      .values({ planHash, piece, sha256, bytes: data.length, opened, seams })
      .onConflictDoNothing();
  }
}

/** The files of a plan in reading order, noted as used; null where they are not kept. @param count how many it has */
export async function keptEncodings(db: Queryable, planHash: string, count: number): Promise<KeptEncoding[] | null> {
  const rows = await db
    .select({
      sha256: encodings.sha256,
      opened: encodings.opened,
      seams: encodings.seams,
      isOld: sql<boolean>`used_at < now() - interval '1 hour'`,
    })
    .from(encodings)
    .where(eq(encodings.planHash, planHash))
    .orderBy(asc(encodings.piece));
  if (rows.length !== count) return null;
  if (rows.some(({ isOld }) => isOld)) {
    await db.update(encodings).set({ usedAt: sql`now()` }).where(eq(encodings.planHash, planHash));
  }
  return rows.map(({ isOld: _, ...kept }) => kept);
}

/** Those of the given plans whose files are kept. */
export async function plansWithEncodings(db: Queryable, planHashes: readonly string[]): Promise<Set<string>> {
  if (planHashes.length === 0) return new Set();
  const rows = await db
    .selectDistinct({ planHash: encodings.planHash })
    .from(encodings)
    .where(inArray(encodings.planHash, [...planHashes]));
  return new Set(rows.map(({ planHash }) => planHash));
}

/** Lets go of the files that were used longest ago, until the rest weighs at most `bound` bytes. */
export async function boundEncodings(db: Queryable, bound: number): Promise<void> {
  await db.execute(sql`
    delete from encodings where plan_hash in (
      select plan_hash from (
        select plan_hash, sum(sum(bytes)) over (order by max(used_at) desc, plan_hash) as total
        from encodings group by plan_hash) as newest
      where total > ${bound})`);
}
