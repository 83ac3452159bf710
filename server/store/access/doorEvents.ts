import type { DoorEvent } from '@inkwell/core/model';
import { desc, lt, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { doorEvents } from '../schema/index.ts';

/** So many are shown. */
const newest = 200;
const keptDays = 180;

/** The newest things that happened at the door, the last one first. */
export async function listDoorEvents(db: Queryable): Promise<DoorEvent[]> {
  const rows = await db.select().from(doorEvents).orderBy(desc(doorEvents.id)).limit(newest);
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

/** Notes what happened, in the transaction in which it does. */
export async function addDoorEvent(db: Queryable, event: Omit<DoorEvent, 'id' | 'at'>): Promise<void> {
  await db.insert(doorEvents).values(event);
}

/** Forgets what happened half a year ago: it says who was where. */
export async function clearDoorEvents(db: Queryable): Promise<void> {
  await db.delete(doorEvents).where(lt(doorEvents.at, sql`now() - make_interval(days => ${keptDays})`));
}
