import type { RequestHandler } from 'express';
import { UserError } from '../userError.ts';

const own = new Set(['127.0.0.1', 'localhost']);

/**
 * Lets only requests through that address this machine by its own name and come from a page of this program: another
 * site's page, or a name that was made to point here, gets nothing.
 */
export const ownHostOnly: RequestHandler = (request, _response, next) => {
  const host = request.headers.host ?? '';
  if (!own.has(host.replace(/:\d+$/, '')))
    throw new UserError('This address is not served here. Use http://127.0.0.1.', 403);
  const { origin } = request.headers;
  if (origin !== undefined && origin !== `http://${host}`) {
    throw new UserError('Requests from other sites are refused.', 403);
  }
  // A browser says where a request comes from. Following a link to a page of this program is all that others may do.
  const site = request.headers['sec-fetch-site'];
  if ((site === 'cross-site' || site === 'same-site') && request.path.startsWith('/api/v1')) {
    throw new UserError('Requests from other sites are refused.', 403);
  }
  next();
};
