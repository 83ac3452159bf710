import { mayAs, type Person, type Role, type Workspace } from '@inkwell/core/model';
import type { Request, RequestHandler, Response } from 'express';
import type { DoorServices, OpenInside, Services } from '../../services.ts';
import type { Settings } from '../../settings/settings.ts';
import { accountOf } from '../../store/access/people.ts';
import { listWorkspaces, workspacesOf } from '../../store/access/workspaces.ts';
import type { Asker } from '../../tasks/access/asker.ts';
import { credentialOf } from '../../tasks/access/passwords.ts';
import { acceptedToken } from '../../tasks/access/tokens.ts';
import { UserError } from '../../userError.ts';
import type { Contract, Method, Needed } from '../contracts/contract.ts';
import { originOf } from './guard.ts';
import { type HeldSession, isOfOwnPage, isSessionAlive, sessionOf } from './sessions.ts';

/** Somebody who is signed in, in one browser. */
export interface SignedIn {
  person: Person;
  session: HeldSession;
}

/** Where something is asked. */
type Within = Pick<Workspace, 'id' | 'role' | 'isFirst'>;

/**
 * Who asks: a page of this program, a program with a token, or somebody who does not say. Where accounts are needed, a page is
 * somebody's, and whoever does not say is a stranger. All but a stranger ask in a workspace; somebody who is in none that is named asks nowhere.
 */
type Asking =
  | { is: 'page'; within: Within | null }
  | ({ is: 'person'; isOwnPage: boolean; within: Within | null } & SignedIn)
  | { is: 'token'; may: 'look' | 'change'; within: Within | null }
  | { is: 'token of'; may: 'look' | 'change'; person: Person; within: Within | null }
  | { is: 'unknown'; within: Within | null }
  | { is: 'stranger'; within: null };

const makeOne = 'Make one on the page Programs, and send it as the header Authorization: Bearer TOKEN.';

/** A browser says of a request of a page that it is of the same origin; of an address that was typed in, that it is of none. */
const isOfPage = ({ headers }: Request) =>
  headers['sec-fetch-site'] === 'same-origin' || headers['sec-fetch-site'] === 'none';

/** Below it lies the API of a workspace that is named; what names none is asked in the one that whoever asks came to first. */
const named = /^\/in\/([\w-]+)(?=\/|\?|$)/;

/** Takes the name of a workspace out of an address. @returns null where none is named */
function takeNamed(request: Request): string | null {
  const [prefix, id] = named.exec(request.url) ?? [];
  if (prefix === undefined || id === undefined) return null;
  request.url = request.url.slice(prefix.length) || '/';
  return id;
}

/**
 * Finds out who asks, and in which workspace: by the token that a request bears, or by its session. A token that does not hold is refused, also
 * where none is needed.
 *
 * @param tokens whether programs have to show one where there are no accounts. On a machine with one person it brings order, and is no
 * wall: whoever may run programs there can do what that person can.
 */
export function findAsking(services: DoorServices, tokens: Settings['INKWELL_TOKENS']): RequestHandler {
  return async (request, response, next) => {
    const id = takeNamed(request);
    response.locals.named = id;
    const find = () => (services.access ? askingWithAccounts(services, request, id) : askingOf(services, request, id));
    response.locals.asking = await find();
    const { within } = asking(response);
    // What goes on for long asks again: a session is read anew, and somebody may have been taken out.
    response.locals.mayStill = async () => {
      const isStillIn = services.access === null || (await isSessionAlive(request));
      return isStillIn && (await find()).within?.id === within?.id;
    };
    if (tokens === 'needed' && asking(response).is === 'unknown') {
      throw new UserError(`Programs need a token here. ${makeOne}`, 401);
    }
    next();
  };
}

async function tokenIn({ whole }: DoorServices, authorization: string) {
  const [, secret] = /^Bearer +(\S+)$/i.exec(authorization) ?? [];
  const token = secret === undefined ? null : await acceptedToken(whole, secret);
  if (!token) {
    throw new UserError(`This token does not hold: it was withdrawn, has ended, or never was. ${makeOne}`, 401);
  }
  return token;
}

/** Whoever is at the machine itself owns all workspaces. @param id null for the first */
async function ownedWorkspace({ whole, firstWorkspace }: DoorServices, id: string | null): Promise<Within | null> {
  if (id === null || id === firstWorkspace) return { id: firstWorkspace, role: 'owner', isFirst: true };
  return (await listWorkspaces(whole)).find((one) => one.id === id) ?? null;
}

async function askingOf(services: DoorServices, request: Request, id: string | null): Promise<Asking> {
  const { authorization } = request.headers;
  if (authorization === undefined) {
    const within = await ownedWorkspace(services, id);
    return { is: isOfPage(request) ? 'page' : 'unknown', within };
  }
  const { token, workspaceId } = await tokenIn(services, authorization);
  const within = id === null || id === workspaceId ? await ownedWorkspace(services, workspaceId) : null;
  return { is: 'token', may: token.may, within };
}

async function askingWithAccounts(services: DoorServices, request: Request, id: string | null): Promise<Asking> {
  const { whole } = services;
  const { authorization } = request.headers;
  if (authorization !== undefined) {
    const { token, personId, workspaceId } = await tokenIn(services, authorization);
    const account = personId === null ? null : await accountOf(whole, personId);
    if (!account) throw new UserError(`This token was made before there were accounts. ${makeOne}`, 401);
    const { person } = account;
    const all = await workspacesOf(whole, person.id);
    const within = all.find((one) => one.id === workspaceId && (id === null || id === workspaceId)) ?? null;
    return { is: 'token of', may: token.may, person, within };
  }
  const session = sessionOf(request);
  if (!session) return { is: 'stranger', within: null };
  const [account, all] = await Promise.all([accountOf(whole, session.personId), workspacesOf(whole, session.personId)]);
  // A session ends with the password that it was begun with.
  if (!account || credentialOf(account.passwordHash) !== session.credential) return { is: 'stranger', within: null };
  const within = (id === null ? all[0] : all.find((one) => one.id === id)) ?? null;
  return { is: 'person', person: account.person, session, isOwnPage: isOfOwnPage(request), within };
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

/** The workspace that the address of a request names; null where it names none. */
export const namedWorkspace = (response: Response): string | null => response.locals.named as string | null;

/** The workspace in which something is asked; null where whoever asks is in none. */
export const whereAsked = (response: Response): string | null => asking(response).within?.id ?? null;

/** The workspace in which something is asked. @throws UserError where whoever asks is in none, or not in the one that was named */
export function workspaceAsked(response: Response): Within {
  const who = asking(response);
  if (who.is === 'stranger') throw nobodyThere();
  if (!who.within) throw notInside();
  return who.within;
}

/** The workspace in which something is asked, opened for whoever asks. @throws UserError as above */
export const openAsked = (inside: OpenInside, response: Response): Services =>
  inside(workspaceAsked(response).id, personAsking(response)?.id ?? null);

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
  { pagesOnly, changes, needed, method }: { pagesOnly: boolean; changes: boolean; needed: Needed; method: Method },
): void {
  if (who.is === 'stranger') throw nobodyThere();
  if (who.is === 'person' && method !== 'get' && !who.isOwnPage) {
    throw new UserError('This request does not come from a page of this session. Reload the page and try again.', 401);
  }
  if (pagesOnly && who.is !== 'page' && who.is !== 'person') {
    throw new UserError('Only people may do this, on a page of the program; a token may not.', 403);
  }
  if (needed !== 'account') refuseWithin(who.within, needed);
  const isToken = who.is === 'token' || who.is === 'token of';
  if (changes && isToken && who.may === 'look') {
    throw new UserError('This token may only look. Use one that may change things.', 403);
  }
}

/** @throws UserError where somebody may not do in a workspace what takes a role in it */
function refuseWithin(within: Within | null, needed: Role | 'keeper'): void {
  if (!within) throw notInside();
  const { role, isFirst } = within;
  if (needed === 'keeper' && !isFirst) {
    throw new UserError('Only an owner of the first workspace may do this: they look after the door for all.', 403);
  }
  const least = needed === 'keeper' ? 'owner' : needed;
  if (!mayAs(role, least)) throw mayNot(role, least);
}

const nobodyThere = (): UserError => new UserError('Nobody is signed in here. Sign in, then try again.', 401);

const notInside = (): UserError =>
  new UserError('There is no such workspace, or you are not in it. Go to one of yours.', 404);

const mayNot = (role: Role, needed: Role): UserError =>
  new UserError(
    needed === 'owner'
      ? 'Only an owner of the workspace may do this. Ask one of them.'
      : `You are here as ${role === 'viewer' ? 'a viewer' : `an ${role}`}, who looks and changes nothing. An owner can make you an editor.`,
    403,
  );
