import type { DetailKept } from '@inkwell/core/model';
import { inArray } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { details } from '../schema/index.ts';

/** Those that have been measured, by their hash. */
export async function knownDetails(db: Queryable, hashes: readonly string[]): Promise<Map<string, DetailKept[]>> {
  if (hashes.length === 0) return new Map();
  const rows = await db
    .select()
    .from(details)
    .where(inArray(details.hash, [...hashes]));
  return new Map(rows.map((row) => [row.hash, row.kept]));
}

/** Keeps what was measured. */
export async function keepDetails(db: Queryable, hash: string, kept: DetailKept[]): Promise<void> {
  await db.insert(details).values({ hash, kept }).onConflictDoNothing();
}
