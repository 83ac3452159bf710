import type { FinishFigures } from '@inkwell/core/model';
import { inArray } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { figures } from '../schema/index.ts';

/** Those of the given plans that have been measured, by plan hash. */
export async function knownFigures(db: Queryable, planHashes: readonly string[]): Promise<Map<string, FinishFigures>> {
  if (planHashes.length === 0) return new Map();
  const rows = await db
    .select()
    .from(figures)
    .where(inArray(figures.planHash, [...planHashes]));
  return new Map(rows.map((row) => [row.planHash, row.figures]));
}

/** Keeps what was measured. */
export async function keepFigures(db: Queryable, planHash: string, measured: FinishFigures): Promise<void> {
  await db.insert(figures).values({ planHash, figures: measured }).onConflictDoNothing();
}
