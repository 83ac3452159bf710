import { createHash, randomBytes } from 'node:crypto';
import { passwordProblem } from '@inkwell/core/model';
import { hash, verify } from '@node-rs/argon2';
import { UserError } from '../../userError.ts';

/** Argon2id as the OWASP Password Storage Cheat Sheet asks for it: 19 MiB, twice, one thread. */
const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

let common: Promise<ReadonlySet<string>> | null = null;

/** Fifty thousand of them, in small letters; read when the first password is chosen. */
function commonPasswords(): Promise<ReadonlySet<string>> {
  common ??= import('@zxcvbn-ts/language-common').then(({ dictionary }) => new Set(dictionary['passwords-common']));
  return common;
}

/** A password as it is kept. @throws UserError where nobody should take it */
export async function newPasswordHash(password: string, of: { email: string; name: string }): Promise<string> {
  const known = await commonPasswords();
  const problem = passwordProblem(password, of, (word) => known.has(word));
  if (problem) throw new UserError(problem, 400);
  return hash(password, cost);
}

let nobodys: Promise<string> | null = null;

/** Checked against where there is no account, so that both take alike long. */
function passwordOfNobody(): Promise<string> {
  nobodys ??= hash(randomBytes(16).toString('hex'), cost);
  return nobodys;
}

/** Whether a password is right. @param kept null where there is no account: then it never is, after the same time */
export async function isRight(password: string, kept: string | null): Promise<boolean> {
  const isSame = await verify(kept ?? (await passwordOfNobody()), password);
  return kept !== null && isSame;
}

/** Stands for a password in a session, which ends when it changes; nothing can be told from it. */
export const credentialOf = (passwordHash: string): string =>
  createHash('sha256').update(passwordHash).digest('base64url').slice(0, 22);
