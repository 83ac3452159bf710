import { addReset, takeReset } from '../../store/access/invitations.ts';
import { type Account, accountByEmail, accountOf, dropFactor, setPasswordHash } from '../../store/access/people.ts';
import type { Database, Queryable } from '../../store/database.ts';
import type { WorkTask } from '../../store/schema/index.ts';
import { addWork, priorities } from '../../store/work.ts';
import { UserError } from '../../userError.ts';
import type { Keep } from '../plans/measurePlan.ts';
import type { Access } from './access.ts';
import { type Asker, atMachine, nameOf, note } from './asker.ts';
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
export async function forgotPassword({ db, throttling }: Access, email: string, asker: Asker): Promise<void> {
  await throttling.attempt(email, asker);
  const { address, origin } = asker;
  await addWork(
    db,
    [
      {
        key: `forgotten ${secretHash(email)}`,
        task: { kind: 'forgotten', email, address, origin },
        priority: priorities.calling,
      },
    ],
    true,
  );
}

/** Writes the link to a new password to whoever has an account with an address; does nothing where nobody has. */
export async function writeReset(
  db: Database,
  { email, address, origin }: Extract<WorkTask, { kind: 'forgotten' }>,
  mailing: Mailing | null,
): Promise<Keep> {
  const account = await accountByEmail(db, email);
  return async (tx) => {
    if (!account) return;
    const link = await resetLink(tx, account, { person: null, address, origin });
    const text = `Somebody, probably you, asked for a new password for Inkwell Frame.\n\nFollow this link within ${hours} hours and choose one:\n${link}\n\nUntil then the old one holds. If it was not you, do nothing.\n`;
    await writeMail(tx, { to: email, subject: 'A new password for Inkwell Frame', text }, mailing);
  };
}

async function resetLink(tx: Queryable, { person }: Account, asker: Asker): Promise<string> {
  const secret = newLinkSecret();
  await addReset(tx, person.id, secretHash(secret), hours);
  await note(tx, asker, 'password asked for', nameOf(person), { personId: person.id });
  return `${asker.origin}/new-password#${secret}`;
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
    const asker = atMachine(origin);
    if (withoutFactor) {
      await dropFactor(tx, account.person.id);
      await note(tx, asker, 'second factor dropped', nameOf(account.person), {
        personId: account.person.id,
      });
    }
    return resetLink(tx, account, asker);
  });
}

/** Takes the password that somebody chooses by the link of a mail. All sessions end with the old one. @throws UserError */
export async function resetPassword(
  { db }: Access,
  { secret, password }: { secret: string; password: string },
  asker: Asker,
): Promise<void> {
  await db.transaction(async (tx) => {
    const personId = await takeReset(tx, secretHash(secret));
    const account = personId === null ? null : await accountOf(tx, personId);
    if (!account) {
      throw new UserError('This link does not hold: it was used, or has ended. Ask for a new password again.', 404);
    }
    const { person } = account;
    await changeHash(tx, account, await newPasswordHash(password, person));
    await note(tx, { ...asker, person }, 'password changed');
  });
}

/** @throws UserError where somebody has changed it meanwhile */
async function changeHash(tx: Queryable, { person, passwordHash: was }: Account, passwordHash: string): Promise<void> {
  if (await setPasswordHash(tx, person.id, was, passwordHash)) return;
  throw new UserError('This password was changed elsewhere just now. Sign in with the new one.', 409);
}

/** Changes somebody's password. All sessions end with the old one. @throws UserError */
export async function changePassword(
  access: Access,
  personId: string,
  { password, wanted }: { password: string; wanted: string },
  asker: Asker,
): Promise<Proved> {
  const account = await proveAgain(access, personId, password, asker);
  const passwordHash = await newPasswordHash(wanted, account.person);
  await access.db.transaction(async (tx) => {
    await changeHash(tx, account, passwordHash);
    await note(tx, asker, 'password changed');
  });
  return proved({ ...account, passwordHash });
}
