import type { Weight } from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { prepared } from '../prepared.ts';
import { weights } from '../schema/index.ts';

const ofPlans = prepared((db) =>
  db
    .select()
    .from(weights)
    .where(sql`${weights.planHash} = any(${sql.placeholder('planHashes')})`)
    .prepare('weights_of_plans'),
);

/** Those of the given plans that have been measured, by plan hash. */
export async function knownWeights(db: Queryable, planHashes: readonly string[]): Promise<Map<string, Weight>> {
  if (planHashes.length === 0) return new Map();
  const rows = await ofPlans(db).execute({ planHashes });
  return new Map(rows.map(({ planHash, weight }) => [planHash, weight]));
}

/** Keeps what was measured. A plan is measured once: the same plan gives the same bytes. */
export async function keepWeight(db: Queryable, weight: Weight): Promise<void> {
  await db.insert(weights).values({ planHash: weight.planHash, weight }).onConflictDoNothing();
}
