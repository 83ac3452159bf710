import { asc, eq } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { learnedUploads } from '../schema/index.ts';

export type KeptUpload = Omit<typeof learnedUploads.$inferSelect, 'workspaceId'>;

/** The ways to upload that are used for places, in the order of these. */
export const listLearnedUploads = (db: Queryable): Promise<KeptUpload[]> =>
  db.select().from(learnedUploads).orderBy(asc(learnedUploads.placeId));

/** Uses a way for a place, instead of the one that was used before. */
export async function keepLearnedUpload(db: Queryable, learned: KeptUpload): Promise<void> {
  const target = [learnedUploads.workspaceId, learnedUploads.placeId];
  await db.insert(learnedUploads).values(learned).onConflictDoUpdate({ target, set: learned });
}

/** New frames of a place are uploaded as the place says again. */
export async function forgetLearnedUpload(db: Queryable, placeId: string): Promise<void> {
  await db.delete(learnedUploads).where(eq(learnedUploads.placeId, placeId));
}
