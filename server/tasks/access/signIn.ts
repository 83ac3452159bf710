import type { Person, SignIn } from '@inkwell/core/model';
import { type Account, accountByEmail, accountOf } from '../../store/access/people.ts';
import { UserError } from '../../userError.ts';
import type { Access } from './access.ts';
import { type Asker, nameOf, note } from './asker.ts';
import { credentialOf, isRight } from './passwords.ts';
import { isCodeRight } from './secondFactor.ts';

/** Somebody who has proved who it is, and what stands for the password in a session. */
export interface Proved {
  person: Person;
  credential: string;
}

const wrong = 'The e-mail address, the password or the code is not right. Try again, or ask for a new password.';

/**
 * Finds out whether somebody is who they say. Nobody learns from it which addresses have accounts: what is wrong is never told, and
 * takes alike long.
 *
 * @returns null where the password is right, and a code is needed as well
 * @throws UserError where something is wrong, or was tried too often
 */
export async function signIn(access: Access, { email, password, code }: SignIn, asker: Asker): Promise<Proved | null> {
  const takeBack = await access.throttling.attempt(email, asker);
  const account = await accountByEmail(access.db, email);
  const isKnown = await isRight(password, account?.passwordHash ?? null);
  const isCodeNeeded = account !== null && account.factorSecret !== null;
  if (isKnown && isCodeNeeded && code === undefined) {
    await takeBack();
    return null;
  }
  const isIn = isKnown && account && (!isCodeNeeded || (await isCodeRight(access.db, account, code ?? '')));
  if (!isIn) {
    // What was typed where no account is may be a password in the wrong field.
    const personId = account?.person.id ?? null;
    await note(access.db, asker, 'refused', account && nameOf(account.person), { personId });
    throw new UserError(wrong, 400);
  }
  await takeBack();
  await note(access.db, { ...asker, person: account.person }, 'signed in');
  return proved(account);
}

export const proved = ({ person, passwordHash }: Account): Proved => ({
  person,
  credential: credentialOf(passwordHash),
});

/** Somebody who is signed in proves again by the password who it is. @throws UserError */
export async function proveAgain(access: Access, personId: string, password: string, asker: Asker): Promise<Account> {
  const account = await accountOf(access.db, personId);
  const takeBack = await access.throttling.attempt(account?.person.email ?? personId, asker);
  if (!(await isRight(password, account?.passwordHash ?? null)) || !account) {
    throw new UserError('This is not your password. Try again.', 400);
  }
  await takeBack();
  return account;
}
