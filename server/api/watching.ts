import { sql } from 'drizzle-orm';
import { Router } from 'express';
import { metricsText, metricsType, workMetrics } from '../running/metrics.ts';
import type { DoorServices } from '../services.ts';
import { UserError } from '../userError.ts';
import { allowed } from './door/access.ts';

/** How the program is: for whoever watches it. */
export function watching({ whole: db }: Pick<DoorServices, 'whole'>, isLeaving: () => boolean): Router {
  const router = Router();
  const work = workMetrics(db);

  // Answers 200 as long as the database answers; what goes wrong is answered as ever.
  router.get('/health', async (_request, response) => {
    await db.execute(sql`select 1`);
    response.json({ database: 'answers' });
  });

  // Whoever shares requests among servers asks whether this one takes more.
  router.get('/ready', async (_request, response) => {
    await db.execute(sql`select 1`);
    if (isLeaving()) throw new UserError('This server is being stopped. Ask another one.', 503);
    response.json({ ready: true });
  });

  router.get(
    '/metrics',
    allowed({ does: 'Tells figures about the program.', needs: 'keeper' }, 'get'),
    async (_request, response) => {
      response.type(metricsType).send(await metricsText([work]));
    },
  );

  return router;
}
