import { eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { milestones } from './schema.ts';

/** Does `task` unless it was done before in the life of this database. A task that fails is done again next time. */
export async function reachMilestone(db: Database, name: string, task: () => Promise<void>): Promise<void> {
  const reached = await db.select().from(milestones).where(eq(milestones.name, name));
  if (reached.length > 0) return;
  await task();
  await db.insert(milestones).values({ name }).onConflictDoNothing();
}
