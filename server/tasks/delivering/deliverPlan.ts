import { fileReasons } from '@inkwell/core/checking';
import { windowRect } from '@inkwell/core/geometry';
import type { EncodedFile, ManifestFile, SeamStep } from '@inkwell/core/model';
import { besideClosing, fileCount, planContentArea, planHash, type RenderPlan, readPlan } from '@inkwell/core/planning';
import { measureFile } from '../../imaging/measuring/measure.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { blobBytes } from '../../store/library/blobs.ts';
import { keptEncodings, plansWithEncodings } from '../../store/measured/encodings.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import {
  beginDelivery,
  finishDelivery,
  openDeliveries,
  type SettledFile,
  type StoredDelivery,
  settle,
  unsettledItems,
} from '../../store/projects/deliveries.ts';
import type { DeliveryItem, WorkTask } from '../../store/schema.ts';
import { addWork, failures, type NewWork, priorities } from '../../store/work.ts';
import { planKey } from '../plans/measuredFrames.ts';
import type { Keep } from '../plans/measurePlan.ts';

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

/** What is said of a plan of another version of the program. */
export const otherVersion =
  'It was planned by another version of the program. Change something about it, or deliver again.';

const pixelsOf = ({ output }: RenderPlan) => output.width * output.height;

/**
 * Asks for everything that a delivery takes, in the caller's transaction: the files of every plan, where they are not made
 * already, and after each of them that they are put into the delivery. Earlier deliveries come first, and of one delivery the largest pictures: begun last, one would
 * run on alone while the other core has nothing left to do.
 */
export async function queueDelivery(
  db: Queryable,
  delivery: Pick<StoredDelivery, 'id' | 'items' | 'createdAt'>,
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
      await finishDelivery(tx, delivery.id);
    });
  }
}

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
  return files && ((tx) => settle(tx, deliveryId, files));
}

async function filesOf(db: Database, hash: string, first: DeliveryItem, run: Entry[]): Promise<SettledFile[] | null> {
  const { blocked = [] } = first;
  if (blocked.length > 0) return leftOut(run, () => blocked);
  const plan = readPlan(first.plan);
  if (!plan) return leftOut(run, () => [otherVersion]);
  const [weights, kept] = await Promise.all([knownWeights(db, [hash]), keptEncodings(db, hash, fileCount(plan))]);
  const weight = weights.get(hash);
  if (!weight || !kept) {
    const failure = (await failures(db, [planKey(hash)])).get(planKey(hash));
    return failure ? leftOut(run, () => [`It could not be made: ${failure}`]) : null;
  }
  const made: MadeFile[] = [];
  for (const [position, item] of run) {
    const index = item.piece?.index ?? 0;
    const [encoding, file] = [kept[index], weight.files[index]];
    const data = encoding && (await blobBytes(db, encoding.sha256));
    if (!encoding || !file || !data) throw new Error(`${item.fileName} has no piece ${index}.`);
    made.push({ position, item, plan, data, file, sha256: encoding.sha256, seams: encoding.seams });
  }
  const reasons = new Map<number, string[]>();
  for (const one of made) reasons.set(one.position, await reasonsAgainst(one));
  const failed = made.find(({ position }) => (reasons.get(position) ?? []).length > 0);
  if (!failed) {
    return made.map((one) => ({
      position: one.position,
      result: { sha256: one.sha256, file: manifestLine(one, hash) },
    }));
  }
  const other = `${failed.item.fileName} did not come out right, and without it the others are of no use.`;
  return leftOut(run, (position) => {
    const own = reasons.get(position) ?? [];
    return own.length > 0 ? own : [other];
  });
}

/** A file of a delivery that is made, with what was measured of it. */
interface MadeFile {
  position: number;
  item: DeliveryItem;
  plan: RenderPlan;
  data: Buffer;
  file: EncodedFile;
  sha256: string;
  seams: SeamStep[];
}

const leftOut = (run: Entry[], reasonsOf: (position: number) => string[]): SettledFile[] =>
  run.map(([position, { fileName, network, place }]) => ({
    position,
    result: { leftOut: { file: fileName, network, place, reasons: reasonsOf(position) } },
  }));

/** The dimensions of one file of a plan. */
const fileDimensions = ({ grid, output }: RenderPlan) => (grid ? grid.piece : output);

/** Why a file may not be delivered, after it was opened again. */
async function reasonsAgainst({ item: { limit }, plan, data, file }: MadeFile): Promise<string[]> {
  const { format, budgetBytes, least } = plan.encoding;
  const demand = { dimensions: fileDimensions(plan), format, limit, budgetBytes, least };
  return fileReasons({ ...(await measureFile(data)), similarity: file.similarity }, demand);
}

function manifestLine({ item, plan, data, file, sha256, seams }: MadeFile, hash: string): ManifestFile {
  const { piece } = item;
  return {
    file: item.fileName,
    original: item.original,
    originalSha256: plan.original.sha256,
    network: item.network,
    place: item.place,
    ...fileDimensions(plan),
    bytes: data.length,
    sha256,
    format: plan.encoding.format,
    quality: file.quality,
    chroma: file.chroma,
    colours: file.colours,
    similarity: file.similarity.overall,
    worstSpot: file.similarity.worst,
    limitBytes: item.limit.bytes,
    limitUnit: item.limit.unit,
    window: windowLine(plan, piece),
    planHash: hash,
    ...(item.finish ? { finish: item.finish } : {}),
    ...(piece ? { piece } : {}),
    ...(seams.length > 0 ? { seams } : {}),
  };
}

/** What of the original a file is from: all of it on a closing panel, else what the whole strip shows. */
function windowLine(plan: RenderPlan, piece: DeliveryItem['piece']): ManifestFile['window'] {
  const { strip, closing } = besideClosing(plan);
  const shown = closing && piece && piece.column === piece.columns ? closing : strip;
  const { turn, mirror } = shown.window;
  return { ...windowRect(shown.window, planContentArea(shown).window), turn, mirror };
}
