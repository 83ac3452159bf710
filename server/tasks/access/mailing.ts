import { createTransport } from 'nodemailer';
import { addMail, type MailText, mailToSend, noteSending, waitingMails } from '../../store/access/mails.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { addWork, priorities } from '../../store/work.ts';
import type { Later } from '../later.ts';
import type { Keep } from '../plans/measurePlan.ts';

/** The mail server, and whom mails come from. */
export interface Mailing {
  url: string;
  from: string;
}

const second = 1000;
const minute = 60 * second;
const answerWithin = 20 * second;
/** After each try that failed; when none is left, it is given up: links in mails hold for hours. */
const pauses = [10 * second, minute, 5 * minute, 30 * minute, 60 * minute];

/** Writes a mail, in the caller's transaction: it is sent by a worker, or stays on the page where people read it. */
export async function writeMail(db: Queryable, mail: MailText, mailing: Mailing | null): Promise<void> {
  const id = await addMail(db, mail, mailing ? 'waiting' : 'kept');
  if (mailing) await queueMails(db, [id]);
}

const queueMails = (db: Queryable, mails: readonly string[]): Promise<void> =>
  addWork(
    db,
    mails.map((mailId) => ({ key: `mail ${mailId}`, task: { kind: 'mail', mailId }, priority: priorities.calling })),
    true,
  );

/** Asks again for all mails that are to be sent, whatever has become of the work that was asked for. */
export const resumeMails = async (db: Queryable): Promise<void> => queueMails(db, await waitingMails(db));

/** Sends a mail; what a mail server does not take is tried again later. */
export async function sendMail(db: Database, mailId: string, mailing: Mailing | null): Promise<Keep | Later> {
  const mail = await mailToSend(db, mailId);
  if (!mail) return async () => undefined;
  const said = mailing ? await refusalOf(mail, mailing) : 'No mail server is named any more (INKWELL_MAIL).';
  if (said === null) return (tx) => noteSending(tx, mailId, 'sent', 'The mail server has taken it.');
  const laterMs = pauses[mail.tries];
  if (laterMs === undefined) return (tx) => noteSending(tx, mailId, 'given up', said);
  await noteSending(db, mailId, 'waiting', said);
  return { laterMs };
}

/** Why a mail server has not taken a mail, in words; null where it has. */
async function refusalOf({ to, subject, text }: MailText, { url, from }: Mailing): Promise<string | null> {
  const transport = createTransport(url, { from });
  const within = AbortSignal.timeout(answerWithin);
  const late = new Promise<never>((_, reject) => {
    within.addEventListener('abort', () => reject(new Error('It did not answer within 20 seconds.')));
  });
  try {
    await Promise.race([transport.sendMail({ to, subject, text }), late]);
    return null;
  } catch (error) {
    return `The mail server did not take it: ${error instanceof Error ? error.message : String(error)}`;
  } finally {
    transport.close();
  }
}
