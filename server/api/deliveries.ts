import { defaultPattern, fileNameWord } from '@inkwell/core/naming';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../services.ts';
import { deliveriesOfProject, findDelivery } from '../store/projects/deliveries.ts';
import { archiveOf } from '../tasks/delivering/archive.ts';
import { endDelivery, requestDelivery } from '../tasks/delivering/requestDelivery.ts';
import { orNotFound, UserError } from '../userError.ts';
import { idOf } from './params.ts';

export const DeliverSchema = z.object({
  projectId: z.uuid(),
  pattern: z.string().max(200).default(defaultPattern),
  /** The plans that the person has seen, of the frames that are to be delivered: what has changed since is not delivered unseen. */
  seen: z.array(z.object({ frameId: z.uuid(), plan: z.string().max(100) })).max(5000),
});

export function deliveriesRouter(services: Services): Router {
  const { db } = services;
  const router = Router();

  router.get('/', async (request, response) => {
    response.json(await deliveriesOfProject(db, z.uuid().parse(request.query.project)));
  });

  router.post('/', async (request, response) => {
    response.status(202).json(await requestDelivery(services, DeliverSchema.parse(request.body)));
  });

  router.get('/:id', async (request, response) => {
    response.json(orNotFound(await findDelivery(db, idOf(request)), 'This delivery').delivery);
  });

  router.post('/:id/cancel', async (request, response) => {
    response.json(await endDelivery(services, idOf(request)));
  });

  router.get('/:id/archive', async (request, response) => {
    const { stored, delivery } = orNotFound(await findDelivery(db, idOf(request)), 'This delivery');
    if (delivery.state !== 'done') {
      const isOver = delivery.state === 'failed' || delivery.state === 'cancelled';
      throw new UserError(
        isOver ? 'This delivery was not finished. Deliver again.' : 'This delivery is not finished yet.',
        409,
      );
    }
    const day = delivery.createdAt.slice(0, 16).replace('T', '_').replace(':', '');
    response.attachment(`${fileNameWord(stored.projectName) || 'delivery'}_${day}.zip`);
    archiveOf(db, stored, delivery)
      .on('error', (error) => response.destroy(error))
      .pipe(response);
  });

  return router;
}
