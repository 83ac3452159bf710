import type { RequestHandler } from 'express';
import type { Counting } from '../../tasks/sharing/counting.ts';
import { personAsking, whereAsked } from './access.ts';

/** Counts every request, and every upload, against the shares of whoever asks and of the workspace. Strangers are held up by the door. */
export function countAsked(counting: Counting): RequestHandler {
  return async (request, response, next) => {
    const workspaceId = whereAsked(response);
    if (workspaceId !== null) {
      const personId = personAsking(response)?.id ?? null;
      await counting.count('requests', workspaceId, personId);
      // Files come in forms alone.
      if (request.is('multipart/form-data')) await counting.count('uploads', workspaceId, personId);
    }
    next();
  };
}
