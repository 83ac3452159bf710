import { and, asc, eq } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { postedTicks } from '../schema/index.ts';

/** The posts of a delivery that are posted, by the names of their first files, in the order in which they were ticked. */
export async function postedOf(db: Queryable, deliveryId: string): Promise<string[]> {
  const rows = await db
    .select({ post: postedTicks.post })
    .from(postedTicks)
    .where(eq(postedTicks.deliveryId, deliveryId))
    .orderBy(asc(postedTicks.postedAt), asc(postedTicks.post));
  return rows.map(({ post }) => post);
}

/** Ticks a post, or takes its tick away. Done twice, it is done once. */
export async function setPosted(db: Queryable, deliveryId: string, post: string, isPosted: boolean): Promise<void> {
  if (isPosted) await db.insert(postedTicks).values({ deliveryId, post }).onConflictDoNothing();
  else await db.delete(postedTicks).where(and(eq(postedTicks.deliveryId, deliveryId), eq(postedTicks.post, post)));
}
