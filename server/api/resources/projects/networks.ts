import { NetworkStatusSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { emptyNetworks, networksThere } from '../../../tasks/dryRunning/networks.ts';
import { Resource } from '../../contracts/resource.ts';

/** The simulated networks, as far as a person has to do with them. */
export function networks({ accounts }: Pick<Services, 'accounts'>): Resource {
  const routes = new Resource('/networks', 'Simulated networks');

  routes.get('', { does: 'Lists the simulated networks.', answers: z.array(NetworkStatusSchema) }, async () =>
    networksThere(await accounts()),
  );

  routes.post('/empty', { does: 'Takes all posts off the simulated networks.' }, async () => {
    await emptyNetworks(await accounts());
  });

  return routes;
}
