import { Router } from 'express';
import type { Services } from '../../services.ts';
import { emptyNetworks, networksThere } from '../../tasks/dryRunning/networks.ts';

/** The simulated networks, as far as a person has to do with them. */
export function networksRouter({ accounts }: Pick<Services, 'accounts'>): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(networksThere(await accounts()));
  });

  router.post('/empty', async (_request, response) => {
    await emptyNetworks(await accounts());
    response.status(204).end();
  });

  return router;
}
