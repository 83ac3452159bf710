import { MadeWebhookSchema, NewWebhookSchema, WebhookSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listWebhooks, setWebhookDeleted } from '../../../store/access/webhooks.ts';
import { makeWebhook } from '../../../tasks/calling/makeWebhook.ts';
import { tryWebhook } from '../../../tasks/calling/tellWebhooks.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

const what = 'This webhook';
/** What happens here is told to others. */
const owners = { needs: 'owner' } as const;

/** Addresses that hear when a delivery is done. */
export function webhooks(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/webhooks', 'Webhooks');

  routes.get(
    '',
    { does: 'Lists the webhooks, each with what it was told last.', ...owners, answers: z.array(WebhookSchema) },
    () => listWebhooks(db),
  );

  routes.post(
    '',
    {
      does: 'Makes a webhook: an address that is told when a delivery is done. The secret that its calls are signed by is told once.',
      ...owners,
      takes: NewWebhookSchema,
      answers: MadeWebhookSchema,
      status: 201,
    },
    ({ body }) => makeWebhook(services, body),
  );

  routes.post(
    '/:id/try',
    { does: 'Sends a webhook something, to see whether it arrives.', ...owners, status: 202 },
    ({ id }) => db.transaction((tx) => tryWebhook(tx, id)),
  );

  routes.delete('/:id', { does: 'Takes a webhook away. It hears nothing any more.', ...owners }, async ({ id }) => {
    orNotFound(await setWebhookDeleted(db, id, true), what);
  });

  routes.post('/:id/restore', { does: 'Takes a webhook back that was taken away.', ...owners }, async ({ id }) => {
    orNotFound(await setWebhookDeleted(db, id, false), what);
  });

  return routes;
}
