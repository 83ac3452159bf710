import type { CallType, Webhook, WebhookCall } from '@inkwell/core/model';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { webhookCalls, webhooks } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

/** So many calls of a webhook are told, and kept. */
const newest = 20;

type CallRow = typeof webhookCalls.$inferSelect;

const toCall = ({ id, type, state, tries, said, createdAt, lastTriedAt, nextTryAt }: CallRow): WebhookCall => ({
  id,
  type,
  state,
  tries,
  said,
  createdAt: createdAt.toISOString(),
  lastTriedAt: lastTriedAt?.toISOString() ?? null,
  nextTryAt: state === 'waiting' ? (nextTryAt?.toISOString() ?? null) : null,
});

/** All webhooks, in the order in which they were made, with their newest calls. */
export async function listWebhooks(db: Queryable): Promise<Webhook[]> {
  const rows = await db.select().from(webhooks).where(isNull(webhooks.deletedAt)).orderBy(asc(webhooks.createdAt));
  if (rows.length === 0) return [];
  const ids = rows.map(({ id }) => id);
  const calls = await db
    .select()
    .from(webhookCalls)
    .where(inArray(webhookCalls.webhookId, ids))
    .orderBy(desc(webhookCalls.createdAt));
  return rows.map(({ id, url, createdAt }) => ({
    id,
    url,
    createdAt: createdAt.toISOString(),
    calls: calls
      .filter(({ webhookId }) => webhookId === id)
      .slice(0, newest)
      .map(toCall),
  }));
}

export async function addWebhook(db: Queryable, url: string, secret: string): Promise<Webhook> {
  const [row] = await db.insert(webhooks).values({ url, secret }).returning();
  if (!row) throw new Error('The webhook was not stored.');
  return { id: row.id, url: row.url, createdAt: row.createdAt.toISOString(), calls: [] };
}

/** Takes a webhook away (`deleted` true) or takes it back. False where it is not there. */
export const setWebhookDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, webhooks, id, deleted);

/** The ids of all webhooks, or of one, as long as it is there. */
export async function webhookIds(db: Queryable, only: string | null = null): Promise<string[]> {
  const isMeant = only === null ? undefined : eq(webhooks.id, only);
  const rows = await db
    .select({ id: webhooks.id })
    .from(webhooks)
    .where(and(isNull(webhooks.deletedAt), isMeant));
  return rows.map(({ id }) => id);
}

/** Notes what is to be told to webhooks, each thing once. @returns the ids of the calls that are new */
export async function addCalls(
  db: Queryable,
  calls: readonly { webhookId: string; type: CallType; deliveryId: string | null; body: string }[],
): Promise<string[]> {
  if (calls.length === 0) return [];
  const rows = await db
    .insert(webhookCalls)
    .values([...calls])
    .onConflictDoNothing()
    .returning({ id: webhookCalls.id });
  return rows.map(({ id }) => id);
}

export interface CallToMake {
  id: string;
  url: string;
  secret: string;
  body: string;
  tries: number;
}

/** A call that is still to be made; null where it is not, or its webhook is gone. */
export async function callToMake(db: Queryable, id: string): Promise<CallToMake | null> {
  const [row] = await db
    .select({
      id: webhookCalls.id,
      url: webhooks.url,
      secret: webhooks.secret,
      body: webhookCalls.body,
      tries: webhookCalls.tries,
    })
    .from(webhookCalls)
    .innerJoin(webhooks, eq(webhooks.id, webhookCalls.webhookId))
    .where(and(eq(webhookCalls.id, id), eq(webhookCalls.state, 'waiting'), isNull(webhooks.deletedAt)));
  return row ?? null;
}

/** Notes what came of a try. @param laterMs after which it is tried again; null where it is not */
export async function noteTry(
  db: Queryable,
  id: string,
  { state, said, laterMs }: { state: WebhookCall['state']; said: string; laterMs: number | null },
): Promise<void> {
  const nextTryAt = laterMs === null ? null : sql`now() + make_interval(secs => ${laterMs / 1000})`;
  await db
    .update(webhookCalls)
    .set({ state, said, tries: sql`${webhookCalls.tries} + 1`, lastTriedAt: sql`now()`, nextTryAt })
    .where(eq(webhookCalls.id, id));
}

/** Forgets the calls that are over, but for the newest of each webhook. */
export async function clearCalls(db: Queryable): Promise<void> {
  await db.execute(sql`
    delete from webhook_calls where state <> 'waiting' and id in (
      select id from (
        select id, row_number() over (partition by webhook_id order by created_at desc) as age from webhook_calls
      ) as aged where age > ${newest})`);
}

/** The ids of all calls that are still to be made, at once or later. */
export async function waitingCalls(db: Queryable): Promise<string[]> {
  const rows = await db.select({ id: webhookCalls.id }).from(webhookCalls).where(eq(webhookCalls.state, 'waiting'));
  return rows.map(({ id }) => id);
}
