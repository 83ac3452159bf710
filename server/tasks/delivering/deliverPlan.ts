import { fileReasons } from '@inkwell/core/checking';
import type { MeasuredFile } from '@inkwell/core/model';
import { fileCount, type RenderPlan, readPlan } from '@inkwell/core/planning';
import { blobBytes } from '../../store/blobs/blobs.ts';
import type { Database } from '../../store/database.ts';
import { keptEncodings } from '../../store/measured/encodings.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { beginDelivery, type SettledFile, unsettledItems } from '../../store/projects/deliveries.ts';
import type { DeliveryItem, WorkTask } from '../../store/schema/index.ts';
import { dropFailed, failedOfDeliveries, failures } from '../../store/work.ts';
import { planKey } from '../plans/measuredFrames.ts';
import type { Keep } from '../plans/measurePlan.ts';
import { otherVersion } from '../plans/otherVersion.ts';
import { holdShares } from '../sharing/refusing.ts';
import { fileDimensions, type MadeFile, manifestLine } from './manifestLine.ts';
import { settle } from './settle.ts';

type Entry = [position: number, item: DeliveryItem];

/** Puts the files of a plan into a delivery: all of them, or none where one of them may not be delivered. Null: not made yet. */
export async function deliverPlan(
  db: Database,
  { deliveryId, planHash: hash, positions }: Extract<WorkTask, { kind: 'deliver' }>,
): Promise<Keep | null> {
  const delivery = await unsettledItems(db, deliveryId, positions);
  if (!delivery || (delivery.state !== 'waiting' && delivery.state !== 'working')) return async () => undefined;
  if (delivery.state === 'waiting') await beginDelivery(db, deliveryId);
  const [first] = delivery.items;
  const files = first ? await filesOf(db, hash, first[1], delivery.items) : [];
  return (
    files &&
    (async (tx) => {
      await settle(tx, deliveryId, files);
      await holdShares(tx, 'bytes');
    })
  );
}

/** Leaves out of their deliveries what could not be put into them, however often that was tried, so that they end. */
export async function leaveOutFailed(db: Database): Promise<void> {
  for (const { id, task, failure } of await failedOfDeliveries(db)) {
    if (task.kind !== 'deliver') continue;
    const { deliveryId, positions } = task;
    await db.transaction(async (tx) => {
      // Somebody else may have done it, or it is tried again.
      if (!(await dropFailed(tx, id))) return;
      const delivery = await unsettledItems(tx, deliveryId, positions);
      const reasons = [`It could not be put into the delivery: ${failure}`];
      await settle(
        tx,
        deliveryId,
        leftOut(delivery?.items ?? [], () => reasons),
      );
    });
  }
}

async function filesOf(db: Database, hash: string, first: DeliveryItem, run: Entry[]): Promise<SettledFile[] | null> {
  const plan = readPlan(first.plan);
  // What another version planned is of several frames: each has reasons of its own.
  if (!plan || isBlocked(first)) {
    return leftOut(run, (_, item) => (isBlocked(item) ? (item.blocked ?? []) : [otherVersion]));
  }
  const [weights, kept] = await Promise.all([knownWeights(db, [hash]), keptEncodings(db, hash, fileCount(plan))]);
  const weight = weights.get(hash);
  if (!weight || !kept) {
    const failure = (await failures(db, [planKey(hash)])).get(planKey(hash));
    return failure ? leftOut(run, () => [`It could not be made: ${failure}`]) : null;
  }
  const tooHeavy = postReason(plan, kept);
  if (tooHeavy) return leftOut(run, () => [tooHeavy]);
  const made: (MadeFile & { position: number })[] = [];
  for (const [position, item] of run) {
    const index = item.piece?.index ?? 0;
    const [encoding, file] = [kept[index], weight.files[index]];
    // Reading them checks that they are the very bytes that were opened when they were made.
    const data = encoding && (await blobBytes(db, encoding.sha256));
    if (!encoding || !file || !data) throw new Error(`${item.fileName} has no piece ${index}.`);
    made.push({ position, item, plan, file, encoding });
  }
  const reasons = new Map(made.map((one) => [one.position, reasonsAgainst(one)]));
  const failed = made.find(({ position }) => (reasons.get(position) ?? []).length > 0);
  if (!failed) {
    return made.map((one) => ({
      position: one.position,
      result: { sha256: one.encoding.sha256, file: manifestLine(one, hash) },
    }));
  }
  const other = `${failed.item.fileName} did not come out right, and without it the others are of no use.`;
  return leftOut(run, (position) => {
    const own = reasons.get(position) ?? [];
    return own.length > 0 ? own : [other];
  });
}

const isBlocked = ({ blocked = [] }: DeliveryItem) => blocked.length > 0;

const leftOut = (run: Entry[], reasonsOf: (position: number, item: DeliveryItem) => string[]): SettledFile[] =>
  run.map(([position, item]) => ({
    position,
    result: {
      leftOut: { file: item.fileName, network: item.network, place: item.place, reasons: reasonsOf(position, item) },
    },
  }));

/** Why all files of a post are too heavy together, in words; null where they are not, or that is not limited. */
function postReason({ encoding }: RenderPlan, kept: readonly { opened: MeasuredFile }[]): string | null {
  const { postBudgetBytes: most } = encoding;
  const all = kept.reduce((sum, { opened }) => sum + opened.bytes, 0);
  if (most === undefined || all <= most) return null;
  return (
    `The ${kept.length} files of this post weigh ${all.toLocaleString('en')} bytes together; ` +
    `its place takes ${most.toLocaleString('en')} bytes, less headroom. Take fewer pieces, or another format.`
  );
}

/** Why a file may not be delivered, going by what it was when it was opened again. */
function reasonsAgainst({ item: { limit }, plan, file, encoding }: MadeFile): string[] {
  const { format, budgetBytes, least } = plan.encoding;
  const demand = { dimensions: fileDimensions(plan), format, limit, budgetBytes, least };
  return fileReasons({ ...encoding.opened, similarity: file.similarity }, demand);
}
