import { planHash, type RenderPlan, readPlan } from '@inkwell/core/planning';
import type { Database, Queryable } from '../../store/database.ts';
import { plansWithEncodings } from '../../store/measured/encodings.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { openDeliveries, type WholeDelivery } from '../../store/projects/deliveries.ts';
import type { DeliveryItem } from '../../store/schema/index.ts';
import { addWork, type NewWork, priorities } from '../../store/work.ts';
import { planKey } from '../plans/measuredFrames.ts';
import { endIfSettled } from './settle.ts';

type Entry = [position: number, item: DeliveryItem];

/** Files of a delivery that have one plan. */
interface Run {
  /** Null where another version of the program made it. */
  plan: RenderPlan | null;
  entries: Entry[];
}

/** The files of a delivery by the hashes of their plans: the pieces of one frame are made together, once. */
function byPlan(items: readonly DeliveryItem[]): Map<string, Run> {
  const runs = new Map<string, Run>();
  for (const entry of items.entries()) {
    const plan = readPlan(entry[1].plan);
    const hash = plan ? planHash(plan) : 'of another version';
    const run = runs.get(hash) ?? { plan, entries: [] };
    run.entries.push(entry);
    runs.set(hash, run);
  }
  return runs;
}

const pixelsOf = ({ output }: RenderPlan) => output.width * output.height;

/**
 * Asks for everything that a delivery takes, in the caller's transaction: the files of every plan, where they are not made
 * already, and after each of them that they are put into the delivery. Earlier deliveries come first, and of one delivery the largest pictures: begun last, one would
 * run on alone while the other core has nothing left to do.
 */
export async function queueDelivery(
  db: Queryable,
  delivery: Pick<WholeDelivery, 'id' | 'projectId' | 'items' | 'createdAt'>,
): Promise<void> {
  const began = delivery.createdAt.getTime() / 1000;
  const runs = byPlan(delivery.items);
  const hashes = [...runs.keys()];
  const weights = await knownWeights(db, hashes);
  const kept = await plansWithEncodings(db, hashes);
  const wanted = [...runs].flatMap(([hash, { plan, entries }]): NewWork[] => {
    const rank = (plan ? pixelsOf(plan) : 0) / 1e9 - began;
    const made: NewWork = {
      key: planKey(hash),
      task: { kind: 'plan', plan, isWay: false },
      priority: priorities.delivering,
      rank,
      projectId: delivery.projectId,
    };
    const put: NewWork = {
      key: `deliver ${delivery.id} ${hash}`,
      task: {
        kind: 'deliver',
        deliveryId: delivery.id,
        planHash: hash,
        positions: entries.map(([position]) => position),
      },
      priority: priorities.putting,
      rank,
      after: planKey(hash),
      deliveryId: delivery.id,
      projectId: delivery.projectId,
    };
    const isBlocked = entries.some(([, { blocked = [] }]) => blocked.length > 0);
    const isMade = weights.has(hash) && kept.has(hash);
    return plan === null || isBlocked || isMade ? [put] : [made, put];
  });
  await addWork(db, wanted, true);
}

/** Asks again for what deliveries take that are not over: whatever has become of the work that was asked for. */
export async function resumeDeliveries(db: Database): Promise<void> {
  for (const delivery of await openDeliveries(db)) {
    await db.transaction(async (tx) => {
      await queueDelivery(tx, delivery);
      await endIfSettled(tx, delivery.id);
    });
  }
}
