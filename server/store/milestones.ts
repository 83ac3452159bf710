import { eq, sql } from 'drizzle-orm';
import type { Database } from './database.ts';
import { milestones } from './schema/index.ts';

/**
 * Does `task` unless it was done before in the life of this database. A task that fails is done again next time. Another process
 * that comes to the same milestone waits.
 */
export async function reachMilestone(db: Database, name: string, task: () => Promise<void>): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${`milestone ${name}`}))`);
    const reached = await tx.select().from(milestones).where(eq(milestones.name, name));
    if (reached.length > 0) return;
    await task();
    await tx.insert(milestones).values({ name });
  });
}
