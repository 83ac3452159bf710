import { sql } from 'drizzle-orm';
import type { Queryable } from './database.ts';

/** Any number that nobody else locks under. */
const savesLock = 7_220_413;

/** Waits until no other transaction saves anything in the workspace that frames are measured by; none does until this one ends. */
export async function lockSaves(tx: Queryable): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(${savesLock}, hashtext(inkwell_workspace()::text))`);
}
