import type { DryRun, DryRunOutcome, DryRunSummary } from '@inkwell/core/model';
import { and, asc, count, desc, eq, inArray, type SQL, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { type DryRunItem, dryRunFiles, dryRunPictures, dryRuns, dryRunWaits } from '../schema/index.ts';

export type StoredDryRun = typeof dryRuns.$inferSelect;

const isOpen = (id: string) => and(eq(dryRuns.id, id), inArray(dryRuns.state, ['waiting', 'working']));

async function toDryRun(db: Queryable, row: StoredDryRun): Promise<DryRun> {
  const outcomes = await outcomesOf(db, row.id);
  const waits = await db
    .select()
    .from(dryRunWaits)
    .where(eq(dryRunWaits.dryRunId, row.id))
    .orderBy(asc(dryRunWaits.since));
  const isOver = row.state !== 'waiting' && row.state !== 'working';
  return {
    id: row.id,
    projectId: row.projectId,
    deliveryId: row.deliveryId,
    state: row.state,
    createdAt: row.createdAt.toISOString(),
    failure: row.failure,
    waiting: isOver || waits.length === 0 ? null : waits.map(({ why }) => why).join(' '),
    files: row.items.map(({ line, post }, position) => ({
      position,
      line,
      post,
      outcome: outcomes.get(position) ?? null,
    })),
  };
}

/** What became of the files of a run so far, by their positions. */
export async function outcomesOf(db: Queryable, id: string): Promise<Map<number, DryRunOutcome>> {
  const rows = await db.select().from(dryRunFiles).where(eq(dryRunFiles.dryRunId, id));
  return new Map(rows.map(({ position, outcome }) => [position, outcome]));
}

export async function addDryRun(
  db: Queryable,
  values: { projectId: string; deliveryId: string | null; items?: DryRunItem[] },
): Promise<DryRun> {
  const [row] = await db.insert(dryRuns).values(values).returning();
  if (!row) throw new Error('The dry run was not stored.');
  return toDryRun(db, row);
}

const stateOf = sql`${dryRunFiles.outcome} ->> 'state'`;
/** Counts the files of which something holds. */
const countWhere = (holds: SQL) => sql<number>`(count(*) filter (where ${holds}))::int`;

/** The runs of a project in numbers, newest first. */
export async function dryRunsOfProject(db: Queryable, projectId: string): Promise<DryRunSummary[]> {
  const isSomethingLost = sql`exists (
    select from jsonb_each_text(${dryRunFiles.outcome} #> '{back,lost}') as edge where edge.value::float8 > 0)`;
  const rows = await db
    .select({
      id: dryRuns.id,
      projectId: dryRuns.projectId,
      deliveryId: dryRuns.deliveryId,
      state: dryRuns.state,
      failure: dryRuns.failure,
      createdAt: dryRuns.createdAt,
      counts: {
        files: sql<number>`jsonb_array_length(${dryRuns.items})`,
        over: count(dryRunFiles.position),
        shown: countWhere(sql`${stateOf} = 'shown'`),
        refused: countWhere(sql`${stateOf} = 'refused'`),
        cut: countWhere(isSomethingLost),
      },
    })
    .from(dryRuns)
    .leftJoin(dryRunFiles, eq(dryRunFiles.dryRunId, dryRuns.id))
    .where(eq(dryRuns.projectId, projectId))
    .groupBy(dryRuns.id)
    .orderBy(desc(dryRuns.createdAt));
  return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }));
}

export async function findDryRun(db: Queryable, id: string): Promise<DryRun | null> {
  const row = await storedDryRun(db, id);
  return row && toDryRun(db, row);
}

export async function storedDryRun(db: Queryable, id: string): Promise<StoredDryRun | null> {
  const [row] = await db.select().from(dryRuns).where(eq(dryRuns.id, id));
  return row ?? null;
}

export async function isDryRunOpen(db: Queryable, id: string): Promise<boolean> {
  const rows = await db.select({ id: dryRuns.id }).from(dryRuns).where(isOpen(id));
  return rows.length > 0;
}

/** Begins a run with what it uploads. False where it is over, or was begun. */
export async function beginDryRun(db: Queryable, id: string, items: DryRunItem[]): Promise<boolean> {
  const rows = await db
    .update(dryRuns)
    .set({ state: 'working', items })
    .where(and(eq(dryRuns.id, id), eq(dryRuns.state, 'waiting')))
    .returning({ id: dryRuns.id });
  return rows.length > 0;
}

/** Ends a run that is not over. False where it is. */
export async function endDryRun(
  db: Queryable,
  id: string,
  state: 'cancelled' | 'failed',
  failure: string | null = null,
): Promise<boolean> {
  const rows = await db.update(dryRuns).set({ state, failure }).where(isOpen(id)).returning({ id: dryRuns.id });
  return rows.length > 0;
}

/**
 * Keeps what became of files, with the pictures that came back. Asked twice for the same position, the first result stands; of a run
 * that is over nothing is kept. A run is done as soon as every file of it is settled. Run it in a transaction.
 */
export async function settleUploads(
  db: Queryable,
  id: string,
  outcomes: readonly { position: number; outcome: DryRunOutcome }[],
): Promise<void> {
  const [open] = await db.select({ id: dryRuns.id }).from(dryRuns).where(isOpen(id)).for('update');
  if (!open || outcomes.length === 0) return;
  await db
    .insert(dryRunFiles)
    .values(outcomes.map((one) => ({ dryRunId: id, ...one })))
    .onConflictDoNothing();
  const pictures = outcomes.flatMap(({ outcome }) =>
    outcome.state === 'shown'
      ? [
          outcome.back.kept.sha256,
          ...outcome.back.shown.flatMap(({ sha256, screen }) => (screen ? [sha256, screen] : [sha256])),
        ]
      : [],
  );
  await keepPictures(db, id, pictures);
  await db
    .update(dryRuns)
    .set({ state: 'done' })
    .where(
      and(
        isOpen(id),
        sql`jsonb_array_length(${dryRuns.items}) =
          (select count(*) from ${dryRunFiles} where ${dryRunFiles.dryRunId} = ${dryRuns.id})`,
      ),
    );
}

/** Keeps the bytes of pictures as long as the run is. */
export async function keepPictures(db: Queryable, dryRunId: string, sha256s: readonly string[]): Promise<void> {
  if (sha256s.length === 0) return;
  await db
    .insert(dryRunPictures)
    .values([...new Set(sha256s)].map((sha256) => ({ dryRunId, sha256 })))
    .onConflictDoNothing();
}

/** Whether a picture is one of a run: one that it uploads, or one that came back. */
export async function isPictureOf(db: Queryable, { id, items }: StoredDryRun, sha256: string): Promise<boolean> {
  if (items.some(({ line }) => line.sha256 === sha256)) return true;
  const rows = await db
    .select({ sha256: dryRunPictures.sha256 })
    .from(dryRunPictures)
    .where(and(eq(dryRunPictures.dryRunId, id), eq(dryRunPictures.sha256, sha256)));
  return rows.length > 0;
}

/** Says what a run waits for at a network. Returns since when it has waited there without a break. */
export async function waitAt(db: Queryable, dryRunId: string, network: string, why: string): Promise<Date> {
  const [row] = await db
    .insert(dryRunWaits)
    .values({ dryRunId, network, why })
    .onConflictDoUpdate({ target: [dryRunWaits.dryRunId, dryRunWaits.network], set: { why } })
    .returning();
  return row?.since ?? new Date();
}

/** A network has answered: nothing is waited for there any more. */
export async function stopWaiting(db: Queryable, dryRunId: string, network: string): Promise<void> {
  await db.delete(dryRunWaits).where(and(eq(dryRunWaits.dryRunId, dryRunId), eq(dryRunWaits.network, network)));
}
