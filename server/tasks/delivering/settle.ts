import type { Queryable } from '../../store/database.ts';
import { finishDelivery, keepSettled, type SettledFile } from '../../store/projects/deliveries.ts';
import { tellDone } from '../calling/tellWebhooks.ts';

/** Keeps what came of files of a delivery, and ends it where these were the last. Run it in a transaction. */
export async function settle(db: Queryable, deliveryId: string, files: readonly SettledFile[]): Promise<void> {
  await keepSettled(db, deliveryId, files);
  await endIfSettled(db, deliveryId);
}

/** Ends a delivery of which every file is settled, and tells whoever wants to hear of it. */
export async function endIfSettled(db: Queryable, deliveryId: string): Promise<void> {
  if (await finishDelivery(db, deliveryId)) await tellDone(db, deliveryId);
}
