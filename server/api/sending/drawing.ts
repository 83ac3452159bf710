import { availableParallelism } from 'node:os';
import type { Request, RequestHandler, Response } from 'express';
import pLimit from 'p-limit';

/** So many pictures are drawn for requests at a time; the others wait, and leave the processor to what is answered at once. */
const limit = pLimit(Math.max(2, availableParallelism()));

/** A request that draws a picture. Whoever has gone before it is its turn gets nothing drawn. */
export const drawing =
  (handle: (request: Request, response: Response) => Promise<void>): RequestHandler =>
  (request, response) =>
    limit(async () => {
      if (!request.socket.destroyed) await handle(request, response);
    });
