import type { DoorEvent } from '@inkwell/core/model';
import { and, desc, eq, isNull, lt, or, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { doorEvents, members } from '../schema/index.ts';

/** So many are shown. */
const newest = 200;
const keptDays = 180;

/**
 * The newest things that happened at the door and concern a workspace or somebody in it, the last one first. What concerns nobody who is known is
 * told in the first workspace.
 */
export async function listDoorEvents(
  db: Queryable,
  { id, isFirst }: { id: string; isFirst: boolean },
): Promise<DoorEvent[]> {
  const inside = db.select({ id: members.personId }).from(members).where(eq(members.workspaceId, id));
  const isOfPerson = sql`${doorEvents.personId} in (${inside})`;
  const isOfNobody = isFirst ? isNull(doorEvents.personId) : sql`false`;
  const rows = await db
    .select()
    .from(doorEvents)
    .where(or(eq(doorEvents.workspaceId, id), and(isNull(doorEvents.workspaceId), or(isOfPerson, isOfNobody))))
    .orderBy(desc(doorEvents.id))
    .limit(newest);
  return rows.map(({ at, workspaceId: _workspace, personId: _person, ...row }) => ({ ...row, at: at.toISOString() }));
}

/** Whom an event concerns, by which it is found. */
export interface Concerns {
  workspaceId: string | null;
  personId: string | null;
}

/** Notes what happened, in the transaction in which it does. */
export async function addDoorEvent(db: Queryable, event: Omit<DoorEvent, 'id' | 'at'> & Concerns): Promise<void> {
  await db.insert(doorEvents).values(event);
}

/** Forgets what happened half a year ago: it says who was where. */
export async function clearDoorEvents(db: Queryable): Promise<void> {
  await db.delete(doorEvents).where(lt(doorEvents.at, sql`now() - make_interval(days => ${keptDays})`));
}
