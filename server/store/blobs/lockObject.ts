import { sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';

/** Any number that nothing else is locked under. */
const objectLocks = 7_220_413;

/**
 * Holds an object until the transaction ends: who puts it there, moves it, or takes it out waits for the others. Otherwise one
 * could take out what another has just put there again.
 */
export async function lockObject(db: Queryable, sha256: string): Promise<void> {
  await db.execute(sql`select pg_advisory_xact_lock(${objectLocks}, hashtext(${sha256}))`);
}
