import type { Delivery, LeftOut, ManifestFile } from '@inkwell/core/model';
import { and, asc, count, desc, eq, getTableColumns, inArray, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { type DeliveryItem, deliveries, deliveryFiles } from '../schema/index.ts';

/** A delivery with all that is to be in it. */
export type WholeDelivery = typeof deliveries.$inferSelect;
/** The same without its items. */
export type StoredDelivery = Omit<WholeDelivery, 'items'>;

// A thousand items are megabytes: they are only read where they are needed.
const { items: _, ...withoutItems } = getTableColumns(deliveries);

async function toDelivery(db: Queryable, row: StoredDelivery): Promise<Delivery> {
  const results = await db
    .select()
    .from(deliveryFiles)
    .where(eq(deliveryFiles.deliveryId, row.id))
    .orderBy(asc(deliveryFiles.position));
  const files = results.flatMap((one) => (one.file ? [one.file] : []));
  return {
    id: row.id,
    projectId: row.projectId,
    pattern: row.pattern,
    state: row.state,
    failure: row.failure,
    createdAt: row.createdAt.toISOString(),
    frameCount: row.fileCount,
    doneCount: results.length,
    bytes: files.reduce((sum, file) => sum + file.bytes, 0),
    files,
    leftOut: results.flatMap((one) => (one.leftOut ? [one.leftOut] : [])),
  };
}

export async function addDelivery(
  db: Queryable,
  values: { projectId: string; projectName: string; pattern: string; items: DeliveryItem[] },
): Promise<{ stored: WholeDelivery; delivery: Delivery }> {
  const [row] = await db
    .insert(deliveries)
    .values({ ...values, fileCount: values.items.length })
    .returning();
  if (!row) throw new Error('The delivery was not stored.');
  return { stored: row, delivery: await toDelivery(db, row) };
}

/** Newest first. */
export async function deliveriesOfProject(db: Queryable, projectId: string): Promise<Delivery[]> {
  const rows = await db
    .select(withoutItems)
    .from(deliveries)
    .where(eq(deliveries.projectId, projectId))
    .orderBy(desc(deliveries.createdAt));
  return Promise.all(rows.map((row) => toDelivery(db, row)));
}

export async function findDelivery(
  db: Queryable,
  id: string,
): Promise<{ stored: StoredDelivery; delivery: Delivery } | null> {
  const [row] = await db.select(withoutItems).from(deliveries).where(eq(deliveries.id, id));
  return row ? { stored: row, delivery: await toDelivery(db, row) } : null;
}

/** How far a delivery is: its state, and how many of its files are settled. Null where it is not there. */
export async function deliveryProgress(
  db: Queryable,
  id: string,
): Promise<Pick<Delivery, 'state' | 'doneCount'> | null> {
  const [row] = await db.select({ state: deliveries.state }).from(deliveries).where(eq(deliveries.id, id));
  const [settled] = await db.select({ all: count() }).from(deliveryFiles).where(eq(deliveryFiles.deliveryId, id));
  return row ? { ...row, doneCount: settled?.all ?? 0 } : null;
}

/** A delivery as it is stored, without what came of it. */
export async function storedDelivery(db: Queryable, id: string): Promise<WholeDelivery | null> {
  const [row] = await db.select().from(deliveries).where(eq(deliveries.id, id));
  return row ?? null;
}

const isOpen = (id: string) => and(eq(deliveries.id, id), inArray(deliveries.state, ['waiting', 'working']));

/** Says that a delivery is begun. Nothing that is over is begun again. */
export async function beginDelivery(db: Queryable, id: string): Promise<void> {
  await db
    .update(deliveries)
    .set({ state: 'working' })
    .where(and(eq(deliveries.id, id), eq(deliveries.state, 'waiting')));
}

/** A delivery is done as soon as every file of it is settled. @returns whether this made it done */
export async function finishDelivery(db: Queryable, id: string): Promise<boolean> {
  const done = await db
    .update(deliveries)
    .set({ state: 'done' })
    .where(
      and(
        isOpen(id),
        sql`${deliveries.fileCount} =
          (select count(*) from ${deliveryFiles} where ${deliveryFiles.deliveryId} = ${deliveries.id})`,
      ),
    )
    .returning({ id: deliveries.id });
  return done.length > 0;
}

/** Ends a delivery that is not over. False where it is, or is not there. */
export async function cancelDelivery(db: Queryable, id: string): Promise<boolean> {
  const rows = await db
    .update(deliveries)
    .set({ state: 'cancelled' })
    .where(isOpen(id))
    .returning({ id: deliveries.id });
  return rows.length > 0;
}

/** The state of a delivery, and those of some of its files that are neither finished nor left out yet. */
export async function unsettledItems(
  db: Queryable,
  id: string,
  positions: readonly number[],
): Promise<{ state: Delivery['state']; items: [position: number, item: DeliveryItem][] } | null> {
  const all = sql.join(
    positions.map((position) => sql`${position}::int`),
    sql`, `,
  );
  const [row] = await db
    .select({
      state: deliveries.state,
      items: sql<[number, DeliveryItem][] | null>`(
        select jsonb_agg(jsonb_build_array(wanted.at, ${deliveries.items} -> wanted.at) order by wanted.at)
        from unnest(array[${all}]) as wanted (at)
        where not exists (
          select from delivery_files as settled
          where settled.delivery_id = ${deliveries.id} and settled.position = wanted.at))`,
    })
    .from(deliveries)
    .where(eq(deliveries.id, id));
  return row ? { state: row.state, items: row.items ?? [] } : null;
}

/** What came of one file. */
export interface SettledFile {
  position: number;
  result: { sha256: string; file: ManifestFile } | { leftOut: LeftOut };
}

/**
 * Keeps what came of files. Asked twice for the same position, the first result stands; of a delivery that is over nothing is
 * kept. Run it in a transaction.
 */
export async function keepSettled(db: Queryable, deliveryId: string, files: readonly SettledFile[]): Promise<void> {
  const [open] = await db.select({ id: deliveries.id }).from(deliveries).where(isOpen(deliveryId)).for('update');
  if (!open || files.length === 0) return;
  await db
    .insert(deliveryFiles)
    .values(files.map(({ position, result }) => ({ deliveryId, position, ...result })))
    .onConflictDoNothing();
}

/** Deliveries that are not over. */
export async function openDeliveries(db: Queryable): Promise<WholeDelivery[]> {
  return db
    .select()
    .from(deliveries)
    .where(inArray(deliveries.state, ['waiting', 'working']));
}
