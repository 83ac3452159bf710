import type { Delivery, LeftOut, ManifestFile } from '@inkwell/core/model';
import { and, asc, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import type { Database, Queryable } from './database.ts';
import { type DeliveryItem, deliveries, deliveryFiles } from './schema.ts';

type Row = typeof deliveries.$inferSelect;
export type StoredDelivery = Row;

async function toDelivery(db: Queryable, row: Row): Promise<Delivery> {
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
    frameCount: row.items.length,
    doneCount: results.length,
    bytes: files.reduce((sum, file) => sum + file.bytes, 0),
    files,
    leftOut: results.flatMap((one) => (one.leftOut ? [one.leftOut] : [])),
  };
}

export async function addDelivery(
  db: Queryable,
  values: { projectId: string; projectName: string; pattern: string; items: DeliveryItem[] },
): Promise<Delivery> {
  const [row] = await db.insert(deliveries).values(values).returning();
  if (!row) throw new Error('The delivery was not stored.');
  return toDelivery(db, row);
}

/** Newest first. */
export async function deliveriesOfProject(db: Queryable, projectId: string): Promise<Delivery[]> {
  const rows = await db
    .select()
    .from(deliveries)
    .where(eq(deliveries.projectId, projectId))
    .orderBy(desc(deliveries.createdAt));
  return Promise.all(rows.map((row) => toDelivery(db, row)));
}

export async function findDelivery(
  db: Queryable,
  id: string,
): Promise<{ stored: StoredDelivery; delivery: Delivery } | null> {
  const [row] = await db.select().from(deliveries).where(eq(deliveries.id, id));
  return row ? { stored: row, delivery: await toDelivery(db, row) } : null;
}

/** Says that a worker is at it; keeps other workers away for a while. */
export async function beat(db: Queryable, id: string): Promise<void> {
  await db.update(deliveries).set({ state: 'working', beatAt: new Date() }).where(eq(deliveries.id, id));
}

export async function finish(
  db: Queryable,
  id: string,
  state: 'done' | 'failed',
  failure: string | null,
): Promise<void> {
  await db.update(deliveries).set({ state, failure, beatAt: new Date() }).where(eq(deliveries.id, id));
}

/** Positions of the files that are finished or left out already. */
export async function settledPositions(db: Queryable, id: string): Promise<Set<number>> {
  const rows = await db
    .select({ position: deliveryFiles.position })
    .from(deliveryFiles)
    .where(eq(deliveryFiles.deliveryId, id));
  return new Set(rows.map((row) => row.position));
}

/** Keeps the result for one file. Asked twice for the same position, the first result stands. */
export async function settle(
  db: Queryable,
  deliveryId: string,
  position: number,
  result: { sha256: string; file: ManifestFile } | { leftOut: LeftOut },
): Promise<void> {
  await db
    .insert(deliveryFiles)
    .values({ deliveryId, position, ...result })
    .onConflictDoNothing();
}

/** Deliveries that wait or whose worker has given no sign of life for `seconds`. */
export async function strandedDeliveries(db: Database, seconds: number): Promise<string[]> {
  const rows = await db
    .select({ id: deliveries.id })
    .from(deliveries)
    .where(
      and(
        inArray(deliveries.state, ['waiting', 'working']),
        lt(deliveries.beatAt, sql`now() - make_interval(secs => ${seconds})`),
      ),
    );
  return rows.map((row) => row.id);
}
