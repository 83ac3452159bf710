import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { forgetUpload, learnedUploads, learnUpload } from '../../tasks/surviving/learnedUploads.ts';

export const LearnSchema = z.object({ frameId: z.uuid(), plan: z.string() });

/** The ways to upload that are used for all frames of their places. */
export function learnedUploadsRouter(services: Services): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await learnedUploads(services));
  });

  router.post('/', async (request, response) => {
    const { frameId, plan } = LearnSchema.parse(request.body);
    response.status(201).json(await learnUpload(services, frameId, plan));
  });

  router.delete('/:network/:place', async (request, response) => {
    await forgetUpload(services, `${request.params.network}/${request.params.place}`);
    response.status(204).end();
  });

  return router;
}
