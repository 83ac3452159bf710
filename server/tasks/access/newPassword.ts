import { addReset, takeReset } from '../../store/access/invitations.ts';
import { accountByEmail, accountOf, dropFactor, setPasswordHash } from '../../store/access/people.ts';
import type { Database, Queryable } from '../../store/database.ts';
import type { WorkTask } from '../../store/schema/index.ts';
import { addWork, priorities } from '../../store/work.ts';
import { UserError } from '../../userError.ts';
import type { Keep } from '../plans/measurePlan.ts';
import type { Access } from './access.ts';
import { newLinkSecret, secretHash } from './linkSecrets.ts';
import { type Mailing, writeMail } from './mailing.ts';
import { newPasswordHash } from './passwords.ts';
import { type Proved, proveAgain, proved } from './signIn.ts';

const hours = 2;

/**
 * Asks that whoever has an account with an address gets a link to a new password. Nobody is told whether there is one: what is asked for is the
 * same, and who asks does not wait for what comes of it.
 *
 * @throws UserError where it was asked for too often
 */
export async function forgotPassword({ db, throttling }: Access, email: string, address: string, origin: string) {
  await throttling.attempt(email, address);
  await addWork(
    db,
    [
      {
        key: `forgotten ${secretHash(email)}`,
        task: { kind: 'forgotten', email, origin },
        priority: priorities.calling,
      },
    ],
    true,
  );
}

/** Writes the link to a new password to whoever has an account with an address; does nothing where nobody has. */
export async function writeReset(
  db: Database,
  { email, origin }: Extract<WorkTask, { kind: 'forgotten' }>,
  mailing: Mailing | null,
): Promise<Keep> {
  const account = await accountByEmail(db, email);
  return async (tx) => {
    if (!account) return;
    const link = await resetLink(tx, account.person.id, origin);
    const text = `Somebody, probably you, asked for a new password for Inkwell Frame.\n\nFollow this link within ${hours} hours and choose one:\n${link}\n\nUntil then the old one holds. If it was not you, do nothing.\n`;
    await writeMail(tx, { to: email, subject: 'A new password for Inkwell Frame', text }, mailing);
  };
}

async function resetLink(tx: Queryable, personId: string, origin: string): Promise<string> {
  const secret = newLinkSecret();
  await addReset(tx, personId, secretHash(secret), hours);
  return `${origin}/new-password#${secret}`;
}

/**
 * The link to a new password for whoever has an account with an address, as somebody at the machine itself asks for it; null where nobody has.
 *
 * @param withoutFactor asks for no second factor any more
 */
export function resetByHand(
  db: Database,
  email: string,
  withoutFactor: boolean,
  origin: string,
): Promise<string | null> {
  return db.transaction(async (tx) => {
    const account = await accountByEmail(tx, email);
    if (!account) return null;
    if (withoutFactor) await dropFactor(tx, account.person.id);
    return resetLink(tx, account.person.id, origin);
  });
}

/** Takes the password that somebody chooses by the link of a mail. All sessions end with the old one. @throws UserError */
export async function resetPassword({ db }: Access, secret: string, password: string): Promise<void> {
  await db.transaction(async (tx) => {
    const personId = await takeReset(tx, secretHash(secret));
    const account = personId === null ? null : await accountOf(tx, personId);
    if (!account) {
      throw new UserError('This link does not hold: it was used, or has ended. Ask for a new password again.', 404);
    }
    await setPasswordHash(tx, account.person.id, await newPasswordHash(password, account.person));
  });
}

/** Changes somebody's password. All sessions end with the old one. @throws UserError */
export async function changePassword(
  access: Access,
  personId: string,
  { password, wanted }: { password: string; wanted: string },
  address: string,
): Promise<Proved> {
  const account = await proveAgain(access, personId, password, address);
  const passwordHash = await newPasswordHash(wanted, account.person);
  await setPasswordHash(access.db, personId, passwordHash);
  return proved({ ...account, passwordHash });
}
