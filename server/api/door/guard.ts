import type { Request, RequestHandler } from 'express';
import { isLoopback } from '../../settings/loopback.ts';
import { UserError } from '../../userError.ts';

/** What says how the program is: it tells nobody more than its own rules allow, under whatever name it is asked. */
const watched = /^\/(health|ready|metrics)$/;

/**
 * Lets only requests through that address the program by its own name and come from a page of it: another site's page, or a
 * name that was made to point here, gets nothing.
 *
 * @param origin at which people reach the program; null where that is this machine
 */
export const ownHostOnly =
  (origin: string | null): RequestHandler =>
  (request, _response, next) => {
    const isMeant =
      origin === null
        ? isLoopback(hostOf(request).replace(/:\d+$/, ''))
        : originOf(request) === origin || watched.test(request.path);
    if (!isMeant) {
      throw new UserError(`This address is not served here. Use ${origin ?? 'http://127.0.0.1'}.`, 403);
    }
    const from = request.headers.origin;
    if (from !== undefined && from !== originOf(request)) {
      throw new UserError('Requests from other sites are refused.', 403);
    }
    // A browser says where a request comes from. Following a link to a page of this program is all that others may do.
    const site = request.headers['sec-fetch-site'];
    if ((site === 'cross-site' || site === 'same-site') && request.path.startsWith('/api/v1')) {
      throw new UserError('Requests from other sites are refused.', 403);
    }
    next();
  };

const hostOf = (request: Request): string => request.host ?? '';

/** What stands in the address bar of whoever asks. */
export const originOf = (request: Request): string => `${request.protocol}://${hostOf(request)}`;
