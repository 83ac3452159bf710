import type { Legibility } from '@inkwell/core/model';
import { inArray } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { legibilities } from '../schema/index.ts';

/** Those that have been measured, by their hash. */
export async function knownLegibilities(db: Queryable, hashes: readonly string[]): Promise<Map<string, Legibility[]>> {
  if (hashes.length === 0) return new Map();
  const rows = await db
    .select()
    .from(legibilities)
    .where(inArray(legibilities.hash, [...hashes]));
  return new Map(rows.map((row) => [row.hash, row.found]));
}

/** Keeps what was measured. */
export async function keepLegibility(db: Queryable, hash: string, found: Legibility[]): Promise<void> {
  await db.insert(legibilities).values({ hash, found }).onConflictDoNothing();
}
