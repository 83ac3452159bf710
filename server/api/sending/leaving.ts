import type { Response } from 'express';
import { UserError } from '../../userError.ts';

/** Aborts where nobody waits for the answer any more: the work for it ends as well. */
export function leavingOf(response: Response): AbortSignal {
  const leaving = new AbortController();
  response.on('close', () => {
    if (!response.writableFinished) leaving.abort(new UserError('The request was cancelled.', 400));
  });
  return leaving.signal;
}
