import { randomUUID } from 'node:crypto';
import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import type { Queryable } from './database.ts';
import { pixelsInWork } from './pixelsInWork.ts';
import { libraryTurn, type WorkTask, work } from './schema/index.ts';

/**
 * Whoever waits at the bench comes first, then files that only have to be put into a delivery, asking for what there is to measure of a
 * project, deliveries, what there is to be seen in pictures, since frames follow from it, and what is measured ahead.
 */
export const priorities = {
  looked: 30,
  putting: 25,
  asking: 22,
  delivering: 20,
  analysing: 15,
  measuring: 10,
  uploading: 10,
  calling: 10,
} as const;

/** After so many attempts that failed nothing more is tried. */
export const mostAttempts = 3;
/** The same for attempts that ended with their worker. Often that is not the work's fault: a machine fails, or is restarted. */
const mostStranded = 10;

/** Everything that there may be to do. */
export const workKinds = [
  'plan',
  'measure',
  'analyse',
  'detail',
  'legibility',
  'survival',
  'deliver',
  'dry run',
  'call',
] as const satisfies readonly WorkTask['kind'][];

export interface NewWork {
  key: string;
  task: WorkTask;
  priority: number;
  /** Among those of one priority the highest comes first. @default now: what was asked for last is what somebody turned to */
  rank?: number;
  after?: string;
  deliveryId?: string;
  /** The frames that it is measured for: once none of them is set like this any more, it is not done. */
  wantedBy?: string[];
  /** The project that waits for it: projects take turns. */
  projectId?: string;
}

export interface ClaimedWork {
  id: number;
  key: string;
  task: WorkTask;
  attempts: number;
  /** About so many pixels lie in memory while it is done. */
  pixels: number;
  wantedBy: string[] | null;
  /** The workspace that it is of; null where it is of the door. */
  workspaceId: string | null;
  /** Who asked for it, where that is known: what comes of it is asked for by the same. */
  askedBy: string | null;
}

/** Rows that are sent in one statement. */
const together = 200;
/** The channel on which workers hear that there is something to do. */
export const workChannel = 'work';
/** Tells the workers, in the statement that gives them something to do. */
const told = { told: sql`pg_notify(${workChannel}, '')` };

/**
 * Asks for work, in the caller's transaction. What waits already comes forward where it is asked for with more urgency; what is
 * being done is left alone.
 *
 * @param again tries again what has failed
 */
export async function addWork(db: Queryable, wanted: readonly NewWork[], again = false): Promise<void> {
  const now = Date.now() / 1000;
  // In the order of their keys: two requests that ask for the same work at once never wait for each other's rows in a circle.
  const all = merged(wanted)
    .map(({ projectId, ...row }, index) => ({
      ...row,
      rank: row.rank ?? now + index / 1e6,
      turn: projectId ?? libraryTurn,
      pixels: pixelsInWork(row.task),
    }))
    .sort((a, b) => (a.key < b.key ? -1 : 1));
  for (let from = 0; from < all.length; from += together) {
    const rows = all.slice(from, from + together);
    const isTriedAgain = sql`${work.state} = 'failed' and ${again}`;
    await db
      .insert(work)
      .values(rows)
      .onConflictDoUpdate({
        target: [work.workspaceId, work.key],
        set: {
          priority: sql`greatest(${work.priority}, excluded.priority)`,
          rank: sql`greatest(${work.rank}, excluded.rank)`,
          // Whoever needs it more urgently is the one who waits for it.
          waiter: sql`case when excluded.priority > ${work.priority} then excluded.waiter else ${work.waiter} end`,
          // Null: wanted whatever becomes of any frame.
          wantedBy: sql`case when ${work.wantedBy} is null or excluded.wanted_by is null then null
            else ${work.wantedBy} || excluded.wanted_by end`,
          state: sql`case when ${isTriedAgain} then 'waiting' else ${work.state} end`,
          attempts: sql`case when ${isTriedAgain} then 0 else ${work.attempts} end`,
          failure: sql`case when ${isTriedAgain} then null else ${work.failure} end`,
        },
      })
      .returning(told);
  }
}

/**
 * Asks that everything about a project's frames is measured that is not known yet, by whoever does the work: to plan thousands of frames
 * takes longer than a person waits. Each time it is work of its own, so that what is set while it is being done is not missed.
 */
export const addMeasuring = (db: Queryable, projectIds: readonly string[]): Promise<void> =>
  addWork(
    db,
    projectIds.map((projectId) => ({
      key: `measure ${projectId} ${randomUUID()}`,
      task: { kind: 'measure', projectId },
      projectId,
      priority: priorities.asking,
    })),
  );

/** Takes such work away that waits for the same project: whoever asks for all there is now asks for theirs as well. */
export async function dropMeasuring(db: Queryable, projectId: string): Promise<void> {
  const isSame = sql`${work.task}->>'kind' = 'measure' and ${work.task}->>'projectId' = ${projectId}`;
  await db.delete(work).where(and(eq(work.state, 'waiting'), isSame));
}

/** Frames that are set alike ask for the same work: it is one, for all of them. */
function merged(wanted: readonly NewWork[]): NewWork[] {
  const byKey = new Map<string, NewWork>();
  for (const one of wanted) {
    const known = byKey.get(one.key);
    if (known?.wantedBy && one.wantedBy) known.wantedBy.push(...one.wantedBy);
    else if (!known) byKey.set(one.key, { ...one, ...(one.wantedBy ? { wantedBy: [...one.wantedBy] } : {}) });
  }
  return [...byKey.values()];
}

const isClaimed = (id: number, worker: number) =>
  and(eq(work.id, id), eq(work.worker, worker), eq(work.state, 'working'));

/** Says that work is done. False where the worker has lost it: then nothing that it found may count. */
export async function finishWork(db: Queryable, id: number, worker: number): Promise<boolean> {
  const gone = await db.delete(work).where(isClaimed(id, worker)).returning({ id: work.id });
  return gone.length > 0;
}

/**
 * Drops work that nobody wants any more, in one statement that sees whether it was asked for again since it was claimed: a frame
 * that is changed and changed back wants what it has wanted before. Then it is put back. False where it was.
 */
export async function dropUnwanted(db: Queryable, { id, wantedBy }: ClaimedWork, worker: number): Promise<boolean> {
  // Whoever asks again adds to those that want it, or makes it wanted whatever becomes of any frame.
  const isAsBefore = sql`${work.wantedBy} is not distinct from ${sql.param(wantedBy, work.wantedBy)}`;
  const gone = await db
    .delete(work)
    .where(and(isClaimed(id, worker), isAsBefore))
    .returning({ id: work.id });
  if (gone.length > 0) return true;
  await putBack(db, id, worker);
  return false;
}

/** Puts work back, to be done after other work. @param afterMs not before so much time has gone by */
export async function putBack(db: Queryable, id: number, worker: number, afterMs = 0): Promise<void> {
  await db
    .update(work)
    .set({
      state: 'waiting',
      worker: null,
      attempts: sql`greatest(0, ${work.attempts} - 1)`,
      notBefore: sql`now() + make_interval(secs => ${afterMs / 1000})`,
    })
    .where(isClaimed(id, worker));
}

/** Says that an attempt failed: it is tried again a little later, or has failed for good. */
export async function failWork(
  db: Queryable,
  { id, attempts }: ClaimedWork,
  worker: number,
  failure: string,
  isFinal: boolean,
): Promise<void> {
  const isOver = isFinal || attempts >= mostAttempts;
  await db
    .update(work)
    .set({
      state: isOver ? 'failed' : 'waiting',
      worker: null,
      failure,
      notBefore: sql`now() + make_interval(secs => ${isOver ? 0 : attempts})`,
    })
    .where(isClaimed(id, worker))
    .returning(told);
}

/** Any number that nobody else locks under. */
const workerLocks = 7_220_412;

/** Takes a number for a worker and holds it as long as this connection lives: that is all that says it is alive. */
export async function signOn(connection: { query(text: string, values?: unknown[]): Promise<{ rows: unknown[] }> }) {
  const { rows } = await connection.query("select nextval('workers')::int as number");
  const { number } = rows[0] as { number: number };
  await connection.query('select pg_advisory_lock($1, $2)', [workerLocks, number]);
  return number;
}

/**
 * Frees what workers had that are gone. PostgreSQL notices at once when a process ends or its connection breaks, and lets go of
 * its lock. What has ended its worker time and again is not tried any more.
 */
export async function freeStranded(db: Queryable): Promise<number> {
  const { rows } = await db.execute(sql`
    update work set
      state = case when attempts >= ${mostStranded} then 'failed' else 'waiting' end,
      failure = case when attempts >= ${mostStranded} then 'It ended the program each time that it was tried.' else failure end,
      worker = null
    where state = 'working' and not exists (
      select from pg_locks
      where locktype = 'advisory' and granted and classid = ${workerLocks} and objid = work.worker::oid and objsubid = 2
        and database = (select oid from pg_database where datname = current_database()))
    returning id`);
  return rows.length;
}

/** Whether work is still to be done, or is being done. */
export async function isWaiting(db: Queryable, key: string): Promise<boolean> {
  const rows = await db
    .select({ id: work.id })
    .from(work)
    .where(and(eq(work.key, key), inArray(work.state, ['waiting', 'working'])));
  return rows.length > 0;
}

/** Why work has failed, by key; what has not is left out. */
export async function failures(db: Queryable, keys: readonly string[]): Promise<Map<string, string>> {
  if (keys.length === 0) return new Map();
  const rows = await db
    .select({ key: work.key, failure: work.failure })
    .from(work)
    .where(and(inArray(work.key, [...keys]), eq(work.state, 'failed')));
  return new Map(rows.map(({ key, failure }) => [key, failure ?? 'It failed.']));
}

/** The workspaces in which any work has failed. */
export async function workspacesWithFailures(db: Queryable): Promise<string[]> {
  const rows = await db.selectDistinct({ id: work.workspaceId }).from(work).where(eq(work.state, 'failed'));
  return rows.flatMap(({ id }) => id ?? []);
}

/** What has failed of the work for deliveries, and why. */
export async function failedOfDeliveries(
  db: Queryable,
): Promise<{ id: number; task: WorkTask; failure: string | null }[]> {
  return db
    .select({ id: work.id, task: work.task, failure: work.failure })
    .from(work)
    .where(and(eq(work.state, 'failed'), isNotNull(work.deliveryId)));
}

/** Drops work that has failed. False where it is not there any more, or is tried again. */
export async function dropFailed(db: Queryable, id: number): Promise<boolean> {
  const gone = await db
    .delete(work)
    .where(and(eq(work.id, id), eq(work.state, 'failed')))
    .returning({ id: work.id });
  return gone.length > 0;
}

/** Takes out what there is to do for a delivery. What is being done finds out when it is done. */
export async function dropDeliveryWork(db: Queryable, deliveryId: string): Promise<void> {
  await db.delete(work).where(eq(work.deliveryId, deliveryId));
}

/** Takes out what there is to do for a dry run. What is being done finds out on its way. */
export async function dropDryRunWork(db: Queryable, dryRunId: string): Promise<void> {
  await db.delete(work).where(sql`${work.task} ->> 'dryRunId' = ${dryRunId}`);
}

/** Uploads that have failed for good, and why. */
export async function failedDryRuns(
  db: Queryable,
): Promise<{ id: number; task: Extract<WorkTask, { kind: 'dry run' }>; failure: string | null }[]> {
  const rows = await db
    .select({ id: work.id, task: work.task, failure: work.failure })
    .from(work)
    .where(and(eq(work.state, 'failed'), sql`${work.task} ->> 'kind' = 'dry run'`));
  return rows.flatMap(({ task, ...row }) => (task.kind === 'dry run' ? [{ ...row, task }] : []));
}

export interface WorkThere {
  kind: WorkTask['kind'];
  state: 'waiting' | 'working' | 'failed';
  count: number;
  oldestSeconds: number;
}

/** How much there is to do of each kind, and how long the oldest of it has been there. */
export async function workThere(db: Queryable): Promise<WorkThere[]> {
  const rows = await db
    .select({
      kind: work.kind,
      state: work.state,
      count: sql<number>`count(*)::int`,
      oldestSeconds: sql<number>`extract(epoch from now() - min(${work.askedAt}))::float8`,
    })
    .from(work)
    .groupBy(work.kind, work.state);
  return rows;
}
