import { mayAs, type Person, type Role } from '@inkwell/core/model';
import type { Request, RequestHandler, Response } from 'express';
import type { Services } from '../services.ts';
import type { Settings } from '../settings/settings.ts';
import { accountOf } from '../store/access/people.ts';
import type { Asker } from '../tasks/access/asker.ts';
import { credentialOf } from '../tasks/access/passwords.ts';
import { acceptedToken } from '../tasks/access/tokens.ts';
import { UserError } from '../userError.ts';
import type { Contract, Method } from './contract.ts';
import { originOf } from './guard.ts';
import { type HeldSession, isOfOwnPage, sessionOf } from './sessions.ts';

/** Somebody who is signed in, in one browser. */
export interface SignedIn {
  person: Person;
  session: HeldSession;
}

/**
 * Who asks: a page of this program, a program with a token, or somebody who does not say. Where accounts are needed, a page is
 * somebody's, and whoever does not say is a stranger.
 */
type Asking =
  | { is: 'page' }
  | ({ is: 'person'; isOwnPage: boolean } & SignedIn)
  | { is: 'token'; may: 'look' | 'change' }
  | { is: 'token of'; may: 'look' | 'change'; person: Person }
  | { is: 'unknown' }
  | { is: 'stranger' };

const makeOne = 'Make one on the page Programs, and send it as the header Authorization: Bearer TOKEN.';

/** A browser says of a request of a page that it is of the same origin; of an address that was typed in, that it is of none. */
const isOfPage = ({ headers }: Request) =>
  headers['sec-fetch-site'] === 'same-origin' || headers['sec-fetch-site'] === 'none';

/**
 * Finds out who asks, by the token that a request bears, or by its session. A token that does not hold is refused, also where
 * none is needed.
 *
 * @param tokens whether programs have to show one where there are no accounts. On a machine with one person it brings order, and is no
 * wall: whoever may run programs there can do what that person can.
 */
export function findAsking(
  services: Pick<Services, 'db' | 'access'>,
  tokens: Settings['INKWELL_TOKENS'],
): RequestHandler {
  return async (request, response, next) => {
    response.locals.asking = services.access
      ? await askingWithAccounts(services, request)
      : await askingOf(services, request);
    if (tokens === 'needed' && asking(response).is === 'unknown') {
      throw new UserError(`Programs need a token here. ${makeOne}`, 401);
    }
    next();
  };
}

async function tokenIn(services: Pick<Services, 'db'>, authorization: string) {
  const [, secret] = /^Bearer +(\S+)$/i.exec(authorization) ?? [];
  const token = secret === undefined ? null : await acceptedToken(services, secret);
  if (!token) {
    throw new UserError(`This token does not hold: it was withdrawn, has ended, or never was. ${makeOne}`, 401);
  }
  return token;
}

async function askingOf(services: Pick<Services, 'db'>, request: Request): Promise<Asking> {
  const { authorization } = request.headers;
  if (authorization === undefined) return { is: isOfPage(request) ? 'page' : 'unknown' };
  return { is: 'token', may: (await tokenIn(services, authorization)).token.may };
}

async function askingWithAccounts(services: Pick<Services, 'db'>, request: Request): Promise<Asking> {
  const { authorization } = request.headers;
  if (authorization !== undefined) {
    const { token, personId } = await tokenIn(services, authorization);
    const account = personId === null ? null : await accountOf(services.db, personId);
    if (!account) throw new UserError(`This token was made before there were accounts. ${makeOne}`, 401);
    return { is: 'token of', may: token.may, person: account.person };
  }
  const session = sessionOf(request);
  const account = session && (await accountOf(services.db, session.personId));
  // A session ends with the password that it was begun with.
  if (!session || !account || credentialOf(account.passwordHash) !== session.credential) return { is: 'stranger' };
  return { is: 'person', person: account.person, session, isOwnPage: isOfOwnPage(request) };
}

const asking = (response: Response): Asking => response.locals.asking as Asking;

/** Who is signed in; null where nobody is, and where a program asks. */
export function signedIn(response: Response): SignedIn | null {
  const who = asking(response);
  return who.is === 'person' ? { person: who.person, session: who.session } : null;
}

/** The person who asks, or in whose name a program does; null where there are no accounts. */
export function personAsking(response: Response): Person | null {
  const who = asking(response);
  return who.is === 'person' || who.is === 'token of' ? who.person : null;
}

/** Who asks for something at the door. */
export const askerOf = (request: Request, response: Response): Asker => ({
  person: personAsking(response),
  address: request.ip ?? null,
  origin: originOf(request),
});

/** Lets a request through to a route where whoever asks may do what that does. @throws UserError where not */
export function allowed(contract: Contract, method: Method): RequestHandler {
  const changes = method !== 'get' && !contract.changesNothing;
  const needed = contract.needs ?? (changes ? 'editor' : 'viewer');
  return (_request, response, next) => {
    if (!contract.isOpen) refuse(asking(response), { pagesOnly: contract.pagesOnly ?? false, changes, needed, method });
    next();
  };
}

/** @throws UserError where somebody may not do what is asked */
function refuse(
  who: Asking,
  { pagesOnly, changes, needed, method }: { pagesOnly: boolean; changes: boolean; needed: Role; method: Method },
): void {
  if (who.is === 'stranger') throw new UserError('Nobody is signed in here. Sign in, then try again.', 401);
  if (who.is === 'person' && method !== 'get' && !who.isOwnPage) {
    throw new UserError('This request does not come from a page of this session. Reload the page and try again.', 401);
  }
  if (pagesOnly && who.is !== 'page' && who.is !== 'person') {
    throw new UserError('Only people may do this, on a page of the program; a token may not.', 403);
  }
  const isToken = who.is === 'token' || who.is === 'token of';
  if (changes && isToken && who.may === 'look') {
    throw new UserError('This token may only look. Use one that may change things.', 403);
  }
  if ((who.is === 'person' || who.is === 'token of') && !mayAs(who.person.role, needed))
    throw mayNot(who.person.role, needed);
}

const mayNot = (role: Role, needed: Role): UserError =>
  new UserError(
    needed === 'owner'
      ? 'Only an owner of the workspace may do this. Ask one of them.'
      : `You are here as ${role === 'viewer' ? 'a viewer' : `an ${role}`}, who looks and changes nothing. An owner can make you an editor.`,
    403,
  );
