import type { Request, RequestHandler, Response } from 'express';
import type { Services } from '../services.ts';
import type { Settings } from '../settings.ts';
import { acceptedToken } from '../tasks/access/tokens.ts';
import { UserError } from '../userError.ts';
import type { Contract, Method } from './contract.ts';

/** Who asks: a page of this program, a program with a token, or somebody who does not say. */
type Asking = { is: 'page' } | { is: 'token'; may: 'look' | 'change' } | { is: 'unknown' };

const makeOne = 'Make one on the page Programs, and send it as the header Authorization: Bearer TOKEN.';

/** A browser says of a request of a page that it is of the same origin; of an address that was typed in, that it is of none. */
const isOfPage = ({ headers }: Request) =>
  headers['sec-fetch-site'] === 'same-origin' || headers['sec-fetch-site'] === 'none';

/**
 * Finds out who asks, by the token that a request bears. One that does not hold is refused, also where none is needed.
 *
 * @param tokens whether programs have to show one. On a machine with one person it brings order, and is no wall: whoever may run
 * programs there can do what that person can.
 */
export function findAsking(services: Pick<Services, 'db'>, tokens: Settings['INKWELL_TOKENS']): RequestHandler {
  return async (request, response, next) => {
    response.locals.asking = await askingOf(services, request);
    if (tokens === 'needed' && asking(response).is === 'unknown') {
      throw new UserError(`Programs need a token here. ${makeOne}`, 401);
    }
    next();
  };
}

async function askingOf(services: Pick<Services, 'db'>, request: Request): Promise<Asking> {
  const { authorization } = request.headers;
  if (authorization === undefined) return { is: isOfPage(request) ? 'page' : 'unknown' };
  const [, secret] = /^Bearer +(\S+)$/i.exec(authorization) ?? [];
  const token = secret === undefined ? null : await acceptedToken(services, secret);
  if (!token)
    throw new UserError(`This token does not hold: it was withdrawn, has ended, or never was. ${makeOne}`, 401);
  return { is: 'token', may: token.may };
}

const asking = (response: Response): Asking => response.locals.asking as Asking;

/** Lets a request through to a route where whoever asks may do what that does. @throws UserError where not */
export function allowed(contract: Contract, method: Method): RequestHandler {
  const changes = method !== 'get' && !contract.changesNothing;
  return (_request, response, next) => {
    const who = asking(response);
    if (contract.pagesOnly && who.is !== 'page') {
      throw new UserError('Tokens are only made and withdrawn by people, on the page Programs.', 403);
    }
    if (changes && who.is === 'token' && who.may === 'look') {
      throw new UserError('This token may only look. Use one that may change things.', 403);
    }
    next();
  };
}
