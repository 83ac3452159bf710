import type { Person, SignIn } from '@inkwell/core/model';
import { type Account, accountByEmail, accountOf } from '../../store/access/people.ts';
import { UserError } from '../../userError.ts';
import type { Access } from './access.ts';
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
export async function signIn(
  access: Access,
  { email, password, code }: SignIn,
  address: string,
): Promise<Proved | null> {
  const takeBack = await access.throttling.attempt(email, address);
  const account = await accountByEmail(access.db, email);
  if (!(await isRight(password, account?.passwordHash ?? null)) || !account) throw new UserError(wrong, 400);
  if (account.factorSecret !== null) {
    if (code === undefined) {
      await takeBack();
      return null;
    }
    if (!(await isCodeRight(access.db, account, code))) throw new UserError(wrong, 400);
  }
  await takeBack();
  return proved(account);
}

export const proved = ({ person, passwordHash }: Account): Proved => ({
  person,
  credential: credentialOf(passwordHash),
});

/** Somebody who is signed in proves again by the password who it is. @throws UserError */
export async function proveAgain(
  access: Access,
  personId: string,
  password: string,
  address: string,
): Promise<Account> {
  const account = await accountOf(access.db, personId);
  const takeBack = await access.throttling.attempt(account?.person.email ?? personId, address);
  if (!(await isRight(password, account?.passwordHash ?? null)) || !account) {
    throw new UserError('This is not your password. Try again.', 400);
  }
  await takeBack();
  return account;
}
