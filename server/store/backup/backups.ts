import type { Backup, BackupPlan, Backups } from '@inkwell/core/model';
import { and, desc, eq, isNotNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { backupPlans, backups } from '../schema/index.ts';

/** So many are told of. */
const newest = 30;
const hour = 3_600_000;

/** Notes that a backup is being made, into a file or a folder; earlier ones that did not end there have failed. @returns its id */
export async function beginBackup(db: Queryable, path: string): Promise<string> {
  await db
    .update(backups)
    .set({ state: 'failed', failure: 'It was broken off. The next one goes on with what it has.' })
    .where(and(eq(backups.path, path), eq(backups.state, 'making')));
  const [row] = await db.insert(backups).values({ path }).returning({ id: backups.id });
  if (!row) throw new Error('The backup was not noted.');
  return row.id;
}

export async function endBackup(
  db: Queryable,
  id: string,
  end: Partial<Omit<typeof backups.$inferInsert, 'id'>>,
): Promise<void> {
  await db.update(backups).set(end).where(eq(backups.id, id));
}

/** Says how backups are made from now on; the plan for another folder is none any more. */
export async function keepPlan(db: Queryable, plan: BackupPlan): Promise<void> {
  await db.delete(backupPlans).where(sql`${backupPlans.folder} <> ${plan.folder}`);
  await db.insert(backupPlans).values(plan).onConflictDoUpdate({ target: backupPlans.folder, set: plan });
}

export async function dropPlans(db: Queryable): Promise<void> {
  await db.delete(backupPlans);
}

/** Asks for a backup at once. False where none is planned. */
export async function askBackup(db: Queryable): Promise<boolean> {
  const rows = await db
    .update(backupPlans)
    .set({ askedAt: sql`coalesce(${backupPlans.askedAt}, now())` })
    .returning({ folder: backupPlans.folder });
  return rows.length > 0;
}

/** Any number that nothing else is locked under: one begins a backup at a time. */
const beginLock = 7_220_416;
/** One that failed is tried again after so long, or when the next would be due. */
const againHours = 1;

const latest = (column: typeof backups.startedAt | typeof backups.takenAt) =>
  sql<Date | null>`max(${column})`.mapWith(column);

/**
 * Whether a backup into a folder is due: one was asked for, or the last good one is long enough ago. What was asked for is so no more. Run it in
 * the transaction that begins one: nobody else does meanwhile.
 *
 * @param noted the folder, with a slash at its end
 */
export async function takeDue(tx: Queryable, noted: string, everyHours: number): Promise<boolean> {
  await tx.execute(sql`select pg_advisory_xact_lock(${beginLock})`);
  const asked = await tx
    .update(backupPlans)
    .set({ askedAt: null })
    .where(and(sql`${backupPlans.folder} || '/' = ${noted}`, isNotNull(backupPlans.askedAt)))
    .returning({ folder: backupPlans.folder });
  if (asked.length > 0) return true;
  const [last] = await tx
    .select({
      began: latest(backups.startedAt),
      good: sql<Date | null>`max(${backups.startedAt}) filter (where ${backups.state} = 'done')`.mapWith(
        backups.startedAt,
      ),
    })
    .from(backups)
    .where(sql`starts_with(${backups.path}, ${noted})`);
  const isAgo = (at: Date | null | undefined, hours: number) => !at || Date.now() - at.getTime() >= hours * hour;
  return isAgo(last?.good, everyHours) && isAgo(last?.began, Math.min(everyHours, againHours));
}

/** What there is to know of backups. */
export async function standingOf(db: Queryable): Promise<Backups> {
  const rows = await db.select().from(backups).orderBy(desc(backups.startedAt)).limit(newest);
  const [planned] = await db.select().from(backupPlans).limit(1);
  const [good] = await db
    .select({ at: latest(backups.takenAt) })
    .from(backups)
    .where(eq(backups.state, 'done'));
  const lastGoodAt = good?.at ?? null;
  const since = lastGoodAt ?? planned?.since ?? null;
  return {
    plan: planned ? toPlan(planned) : null,
    isAsked: planned?.askedAt != null,
    backups: rows.map(toBackup),
    lastGoodAt: lastGoodAt?.toISOString() ?? null,
    isLate: planned !== undefined && since !== null && Date.now() - since.getTime() > planned.warnHours * hour,
  };
}

const toPlan = ({ since: _, askedAt: __, ...plan }: typeof backupPlans.$inferSelect): BackupPlan => plan;

const toBackup = ({ startedAt, takenAt, ...row }: typeof backups.$inferSelect): Backup => ({
  ...row,
  startedAt: startedAt.toISOString(),
  takenAt: takenAt?.toISOString() ?? null,
});
