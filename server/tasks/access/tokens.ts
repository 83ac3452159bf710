import { createHash, randomBytes } from 'node:crypto';
import type { MadeToken, NewToken, Token } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { addToken, holdingToken, noteUse } from '../../store/access/tokens.ts';

/** How every token begins: whoever finds one in a file knows what it is. */
const mark = 'inkwell_';
const bytesOfChance = 32;
const shownCharacters = mark.length + 6;

const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex');

/** Makes a token. What it says is answered here and kept nowhere. */
export async function makeToken({ db }: Pick<Services, 'db'>, asked: NewToken): Promise<MadeToken> {
  const secret = `${mark}${randomBytes(bytesOfChance).toString('base64url')}`;
  const token = await addToken(db, { ...asked, hash: hashOf(secret), beginning: secret.slice(0, shownCharacters) });
  return { token, secret };
}

/** The token that says this, where it holds, noting that it is used; null where there is none. */
export async function acceptedToken({ db }: Pick<Services, 'db'>, secret: string): Promise<Token | null> {
  const token = await holdingToken(db, hashOf(secret));
  if (token) await noteUse(db, token.id);
  return token;
}
