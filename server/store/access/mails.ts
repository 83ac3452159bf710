import type { Mail } from '@inkwell/core/model';
import { and, desc, eq, lt, sql } from 'drizzle-orm';
import type { Queryable } from '../database.ts';
import { mails } from '../schema/index.ts';

/** So many are shown. */
const newest = 50;
/** Links in them hold for a shorter time. */
const keptDays = 14;

/** The newest mails, the last one first. */
export async function listMails(db: Queryable): Promise<Mail[]> {
  const rows = await db.select().from(mails).orderBy(desc(mails.createdAt)).limit(newest);
  return rows.map(({ tries: _, createdAt, ...row }) => ({ ...row, createdAt: createdAt.toISOString() }));
}

export type MailText = Pick<Mail, 'to' | 'subject'> & { text: string };

/** @returns its id */
export async function addMail(db: Queryable, mail: MailText, state: 'kept' | 'waiting'): Promise<string> {
  const [row] = await db
    .insert(mails)
    .values({ ...mail, state })
    .returning({ id: mails.id });
  if (!row) throw new Error('The mail was not stored.');
  return row.id;
}

/** A mail that is still to be sent, and how often that was tried. */
export async function mailToSend(db: Queryable, id: string): Promise<(MailText & { tries: number }) | null> {
  const [row] = await db
    .select()
    .from(mails)
    .where(and(eq(mails.id, id), eq(mails.state, 'waiting')));
  return row && row.text !== null ? { ...row, text: row.text } : null;
}

/** Notes what came of trying to send a mail. What it said is not kept once that is over. */
export async function noteSending(db: Queryable, id: string, state: Exclude<Mail['state'], 'kept'>, said: string) {
  await db
    .update(mails)
    .set({ state, said, tries: sql`${mails.tries} + 1`, ...(state === 'waiting' ? {} : { text: null }) })
    .where(eq(mails.id, id));
}

/** The ids of all mails that are still to be sent. */
export async function waitingMails(db: Queryable): Promise<string[]> {
  const rows = await db.select({ id: mails.id }).from(mails).where(eq(mails.state, 'waiting'));
  return rows.map(({ id }) => id);
}

/** Forgets mails that are so old that no link in them holds. */
export async function clearMails(db: Queryable): Promise<void> {
  await db.delete(mails).where(lt(mails.createdAt, sql`now() - make_interval(days => ${keptDays})`));
}
