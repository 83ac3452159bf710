import type { Finish, FinishSettings } from '@inkwell/core/model';
import { and, asc, count, eq, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { finishes, frames, originals, projects } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

type Row = typeof finishes.$inferSelect;

const toFinish = ({ id, name, description, treatment, version }: Row): Finish => ({
  id,
  name,
  description,
  treatment,
  version,
  shipped: false,
});

/** Those that people made, in the order in which they were made. */
export async function listFinishes(db: Queryable): Promise<Finish[]> {
  const rows = await db
    .select()
    .from(finishes)
    .where(isNull(finishes.deletedAt))
    .orderBy(asc(finishes.createdAt), asc(finishes.id));
  return rows.map(toFinish);
}

export async function findFinish(db: Queryable, id: string): Promise<Finish | null> {
  const [row] = await db
    .select()
    .from(finishes)
    .where(and(eq(finishes.id, id), isNull(finishes.deletedAt)));
  return row ? toFinish(row) : null;
}

export async function addFinish(db: Queryable, settings: FinishSettings): Promise<Finish> {
  const [row] = await db.insert(finishes).values(settings).returning();
  if (!row) throw new Error('The finish was not stored.');
  return toFinish(row);
}

/** Saves a change made on top of `version`. Null where somebody else saved meanwhile, or the finish is gone. */
export async function saveFinish(
  db: Queryable,
  id: string,
  version: number,
  change: Partial<FinishSettings>,
): Promise<Finish | null> {
  const [row] = await db
    .update(finishes)
    .set({ ...change, version: sql`${finishes.version} + 1` })
    .where(and(eq(finishes.id, id), eq(finishes.version, version), isNull(finishes.deletedAt)))
    .returning();
  return row ? toFinish(row) : null;
}

/** Puts a finish aside (`deleted` true) or takes it back. */
export const setFinishDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, finishes, id, deleted);

/** How many frames, of whatever project that is not deleted, every finish holds for. Finishes without any are left out. */
export async function finishUses(db: Queryable): Promise<Map<string, number>> {
  const used = sql<string>`coalesce(${frames.finishId}, ${originals.finishId}, ${projects.finishId})`;
  const rows = await db
    .select({ id: used, count: sql<number>`count(*)::int` })
    .from(frames)
    .innerJoin(originals, and(eq(originals.id, frames.originalId), isNull(originals.deletedAt)))
    .innerJoin(projects, and(eq(projects.id, frames.projectId), isNull(projects.deletedAt)))
    .groupBy(used);
  return new Map(rows.map(({ id, count }) => [id, count]));
}

/** How many projects, originals and frames name a finish, those put aside included: they may come back. */
export async function finishNamed(db: Queryable, id: string): Promise<number> {
  let sum = 0;
  for (const table of [projects, originals, frames]) {
    const [row] = await db.select({ count: count() }).from(table).where(eq(table.finishId, id));
    sum += row?.count ?? 0;
  }
  return sum;
}
