import type { CallBody } from '@inkwell/core/model';
import { addCalls, webhookIds } from '../../store/access/webhooks.ts';
import type { Queryable } from '../../store/database.ts';
import { findDelivery } from '../../store/projects/deliveries.ts';
import { orNotFound } from '../../userError.ts';
import { queueCalls } from './queueCalls.ts';

/** Tells every webhook that a delivery is done, in the transaction that made it so: each hears of it once, or nothing is done. */
export async function tellDone(db: Queryable, deliveryId: string): Promise<void> {
  const ids = await webhookIds(db);
  if (ids.length === 0) return;
  const { stored, delivery } = orNotFound(await findDelivery(db, deliveryId), 'This delivery');
  await tell(db, ids, deliveryId, {
    type: 'delivery.done',
    timestamp: new Date().toISOString(),
    data: {
      delivery: deliveryId,
      project: delivery.projectId,
      projectName: stored.projectName,
      files: delivery.files.length,
      leftOut: delivery.leftOut.length,
      archive: `/api/v1/deliveries/${deliveryId}/archive`,
    },
  });
}

/** Sends something to one webhook, to see whether it arrives. @throws UserError where that is not there */
export async function tryWebhook(db: Queryable, id: string): Promise<void> {
  const [there] = await webhookIds(db, id);
  await tell(db, [orNotFound(there, 'This webhook')], null, {
    type: 'webhook.tried',
    timestamp: new Date().toISOString(),
    data: { delivery: null, project: null, projectName: '', files: 0, leftOut: 0, archive: null },
  });
}

async function tell(db: Queryable, webhooks: readonly string[], deliveryId: string | null, said: CallBody) {
  const body = JSON.stringify(said);
  const calls = await addCalls(
    db,
    webhooks.map((webhookId) => ({ webhookId, type: said.type, deliveryId, body })),
  );
  await queueCalls(db, calls);
}
