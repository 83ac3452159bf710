import type { ErrorRequestHandler, Request } from 'express';
import type { Logger } from 'pino';
import { ZodError, z } from 'zod';
import { isDatabaseAway, isUnfit } from '../database/postgresFailures.ts';
import { diskFull, isAboutRoom } from '../diskFull.ts';
import { ObjectsAway } from '../store/blobs/objects.ts';
import { UserError } from '../userError.ts';

/** Seconds after which it is worth asking again. */
const retryAfter = 2;

/** Turns whatever went wrong into a status and a sentence. What is nobody's fault but ours goes to the log in full. */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    response.setHeader('Cache-Control', 'no-store');
    const refusal = refusalOf(error);
    if (!refusal) {
      log.error({ error, path: pathOf(request) }, 'request failed');
      response
        .status(500)
        .json({ message: 'Something went wrong in the program. Nothing that was saved is lost; try again.' });
      return;
    }
    const cause = error instanceof UserError ? error.cause : error;
    if (cause && refusal.status !== 404) {
      log.info({ error: cause, status: refusal.status, path: pathOf(request) }, 'refused');
    }
    if (refusal.status === 401) response.setHeader('WWW-Authenticate', 'Bearer');
    if (refusal.status === 429)
      response.setHeader('Retry-After', String(refusal.details?.retryAfterSeconds ?? retryAfter));
    if (refusal.status === 503) response.setHeader('Retry-After', retryAfter);
    response.status(refusal.status).json({ message: refusal.message, ...refusal.details });
  };
}

/** The address of a request, without what somebody looks for. */
const pathOf = ({ originalUrl }: Request): string => originalUrl.split('?')[0] ?? '';

/** What an error means for whoever asked; null where it is ours. */
function refusalOf(error: unknown): UserError | null {
  if (error instanceof UserError) return error;
  if (error instanceof ZodError) return new UserError(`This could not be understood. ${sentenceOf(error)}`, 400);
  if (isAboutRoom(error)) return diskFull();
  if (error instanceof ObjectsAway) {
    return new UserError(`${error.message} The program goes on as soon as it does; try again in a moment.`, 503);
  }
  if (isDatabaseAway(error)) {
    return new UserError(
      'The database does not answer. The program goes on as soon as it does; try again in a moment.',
      503,
    );
  }
  if (isUnfit(error)) {
    return new UserError(
      'Something in this request is too large, or names what is not there. Reload the page and try again.',
      400,
    );
  }
  if (statusOf(error) === 413) return new UserError(tooLarge(error), 413);
  const words = httpWords[statusOf(error) ?? 0];
  if (words) return new UserError(words, statusOf(error) as UserError['status']);
  return error instanceof SyntaxError || error instanceof URIError
    ? new UserError(httpWords[400] as string, 400)
    : null;
}

/** What the web server itself refuses, in words. */
const httpWords: Record<number, string> = {
  400: 'The request is not readable. Reload the page and try again.',
  404: 'This is not there. Go back and reload.',
  415: 'The request is written in a way that is not read here. JSON is taken in UTF-8, plain or compressed with gzip.',
};

/** Some requests may be larger than others: the parser says which limit was passed. */
function tooLarge(error: unknown): string {
  const { data } = z.object({ limit: z.number() }).safeParse(error);
  const most = data ? `${Math.round(data.limit / 1024 ** 2)} MB, the most that is` : 'what is';
  return `The request is larger than ${most} taken at once. Send less of it at a time.`;
}

/** The first thing that is wrong with the input, and where. */
function sentenceOf(error: ZodError): string {
  const [issue] = error.issues;
  if (!issue) return '';
  const where = issue.path.length > 0 ? `In ${issue.path.join('.')}: ` : '';
  return `${where}${issue.message.replace(/\.?$/, '.')}`;
}

const statusOf = (error: unknown): number | null =>
  typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number'
    ? error.status
    : null;
