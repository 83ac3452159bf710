import type { Survival } from '@inkwell/core/model';
import { eq } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { survivals } from '../schema/index.ts';

/** What was found; null where it was not looked for. @param hash of all that it depends on */
export async function knownSurvival(db: Queryable, hash: string): Promise<Survival | null> {
  const [row] = await db.select().from(survivals).where(eq(survivals.hash, hash));
  return row?.survival ?? null;
}

/** Keeps what was found. */
export async function keepSurvival(db: Queryable, hash: string, survival: Survival): Promise<void> {
  await db.insert(survivals).values({ hash, survival }).onConflictDoNothing();
}
