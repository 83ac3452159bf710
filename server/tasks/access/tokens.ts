import type { MadeToken, NewToken } from '@inkwell/core/model';
import { addToken, type HeldToken, holdingToken, noteUse, type OfToken } from '../../store/access/tokens.ts';
import type { Queryable } from '../../store/database.ts';
import { newLinkSecret, secretHash } from './linkSecrets.ts';

/** How every token begins: whoever finds one in a file knows what it is. */
const mark = 'inkwell_';
const shownCharacters = mark.length + 6;

/** Makes a token. What it says is answered here and kept nowhere. */
export async function makeToken(db: Queryable, asked: NewToken, of: OfToken): Promise<MadeToken> {
  const secret = `${mark}${newLinkSecret()}`;
  const token = await addToken(db, {
    ...asked,
    ...of,
    hash: secretHash(secret),
    beginning: secret.slice(0, shownCharacters),
  });
  return { token, secret };
}

/** The token that says this, where it holds, noting that it is used; null where there is none. */
export async function acceptedToken(db: Queryable, secret: string): Promise<HeldToken | null> {
  const held = await holdingToken(db, secretHash(secret));
  if (held) await noteUse(db, held.token.id);
  return held;
}
