import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import { Refusal } from '../refusal.ts';

/** Turns whatever went wrong into a status and a sentence. What is nobody's fault but ours goes to the log in full. */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    if (error instanceof Refusal) {
      if (error.cause) log.info({ cause: error.cause, url: request.url }, error.message);
      response.status(error.status).json({ message: error.message, ...error.details });
      return;
    }
    if (error instanceof ZodError) {
      response.status(400).json({ message: `This could not be understood. ${sentenceOf(error)}` });
      return;
    }
    if (error instanceof SyntaxError || hasStatus(error, 400)) {
      response.status(400).json({ message: 'The request is not readable JSON. Reload the page and try again.' });
      return;
    }
    log.error({ error, url: request.url }, 'request failed');
    response
      .status(500)
      .json({ message: 'Something went wrong in the program. Nothing that was saved is lost; try again.' });
  };
}

/** The first thing that is wrong with the input, and where. */
function sentenceOf(error: ZodError): string {
  const [issue] = error.issues;
  if (!issue) return '';
  const where = issue.path.length > 0 ? `In ${issue.path.join('.')}: ` : '';
  return `${where}${issue.message.replace(/\.?$/, '.')}`;
}

const hasStatus = (error: unknown, status: number) =>
  typeof error === 'object' && error !== null && 'status' in error && error.status === status;
