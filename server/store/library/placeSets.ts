import { type PlaceSet, type PlaceSetSettings, PlaceSetSettingsSchema } from '@inkwell/core/model';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { placeSets } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

/** A set as it is read again; null where an earlier version of the program let something through that is none. */
function toSet({ id, version, settings }: typeof placeSets.$inferSelect): PlaceSet | null {
  const read = PlaceSetSettingsSchema.safeParse(settings).data;
  return read ? { ...read, id, version } : null;
}

/** All sets, in the order in which they were made. */
export async function listPlaceSets(db: Queryable): Promise<PlaceSet[]> {
  const rows = await db.select().from(placeSets).where(isNull(placeSets.deletedAt)).orderBy(asc(placeSets.createdAt));
  return rows.flatMap((row) => toSet(row) ?? []);
}

export async function findPlaceSet(db: Queryable, id: string): Promise<PlaceSet | null> {
  const [row] = await db
    .select()
    .from(placeSets)
    .where(and(eq(placeSets.id, id), isNull(placeSets.deletedAt)));
  return row ? toSet(row) : null;
}

export async function addPlaceSet(db: Queryable, settings: PlaceSetSettings): Promise<PlaceSet> {
  const [row] = await db.insert(placeSets).values({ settings }).returning();
  const set = row && toSet(row);
  if (!set) throw new Error('The set was not stored.');
  return set;
}

/** Saves a set changed on top of `version`. Null where somebody else saved meanwhile, or it is gone. */
export async function savePlaceSet(
  db: Queryable,
  id: string,
  version: number,
  settings: PlaceSetSettings,
): Promise<PlaceSet | null> {
  const [row] = await db
    .update(placeSets)
    .set({ settings, version: sql`${placeSets.version} + 1` })
    .where(and(eq(placeSets.id, id), eq(placeSets.version, version), isNull(placeSets.deletedAt)))
    .returning();
  return row ? toSet(row) : null;
}

/** Puts a set aside (`deleted` true) or takes it back. */
export const setPlaceSetDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, placeSets, id, deleted);
