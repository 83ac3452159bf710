import { randomBytes } from 'node:crypto';
import type { FactorOffer, Person } from '@inkwell/core/model';
import { Secret, TOTP } from 'otpauth';
import {
  type Account,
  offeredFactor,
  offerFactor,
  takeFactor,
  takeStep,
  useRecoveryCode,
} from '../../store/access/people.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { UserError } from '../../userError.ts';
import { type Asker, note } from './asker.ts';
import { secretHash } from './linkSecrets.ts';

const issuer = 'Inkwell Frame';
/** As RFC 6238 has it, and as all authenticators read it: six digits each half minute. */
const periodSeconds = 30;
/** Clocks may be off by a half minute. */
const window = 1;
const codes = 10;
/** 80 bits of chance each, in base 32. */
const bytesOfCode = 10;

const totpOf = (secret: string, label = '') =>
  new TOTP({ issuer, label, secret: Secret.fromBase32(secret), digits: 6, period: periodSeconds });

/** The half minute of a code, counted from 1970; null where it is not of now. */
function stepOf(secret: string, code: string): number | null {
  const token = code.replace(/\s/g, '');
  const timestamp = Date.now();
  const delta = /^\d{6}$/.test(token) ? totpOf(secret).validate({ token, window, timestamp }) : null;
  return delta === null ? null : Math.floor(timestamp / 1000 / periodSeconds) + delta;
}

const plain = (code: string) => code.toUpperCase().replace(/[^A-Z2-7]/g, '');

/** Whether a code is right that was not taken before: of the authenticator, or one for the day when that is lost. */
export async function isCodeRight(db: Queryable, { person, factorSecret }: Account, code: string): Promise<boolean> {
  if (factorSecret === null) return false;
  const step = stepOf(factorSecret, code);
  if (step !== null) return takeStep(db, person.id, step);
  return useRecoveryCode(db, person.id, secretHash(plain(code)));
}

/** Begins to set up a second factor: it is asked for as soon as a code has shown that it works. @throws UserError */
export async function offerSecondFactor(db: Queryable, { id, email }: Person): Promise<FactorOffer> {
  const secret = new Secret({ size: 20 }).base32;
  if (!(await offerFactor(db, id, secret))) {
    throw new UserError('You have a second factor already. Take that away first.', 409);
  }
  return { secret, uri: totpOf(secret, email).toString() };
}

/** Asks for the second factor from now on. @returns codes for the day when the authenticator is lost @throws UserError */
export async function confirmSecondFactor(db: Database, { id }: Person, code: string, asker: Asker): Promise<string[]> {
  const secret = await offeredFactor(db, id);
  const step = secret === null ? null : stepOf(secret, code);
  if (secret === null || step === null) {
    throw new UserError(
      'This code is not right. Look at the clock of your device, and take the code that it shows now.',
      400,
    );
  }
  const made = Array.from(
    { length: codes },
    () => new Secret({ buffer: new Uint8Array(randomBytes(bytesOfCode)).buffer }).base32,
  );
  await db.transaction(async (tx) => {
    const isTaken = (await takeStep(tx, id, step)) && (await takeFactor(tx, id, secret, made.map(secretHash)));
    if (!isTaken) throw new UserError('This second factor was changed elsewhere. Reload the page.', 409);
    await note(tx, asker, 'second factor set up');
  });
  return made.map((one) => one.replace(/(.{4})(?=.)/g, '$1-'));
}
