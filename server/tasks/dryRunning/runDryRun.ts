import type { DryRunOutcome } from '@inkwell/core/model';
import type { NetworkAccount } from '../../networkAccounts.ts';
import { blobBytes, keepBytes } from '../../store/blobs/blobs.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { keepSheetFindings } from '../../store/library/sheetFindings.ts';
import { deliveryProgress, findDelivery, storedDelivery } from '../../store/projects/deliveries.ts';
import {
  beginDryRun,
  endDryRun,
  isDryRunOpen,
  outcomesOf,
  type StoredDryRun,
  settleUploads,
  stopWaiting,
  storedDryRun,
  waitAt,
} from '../../store/projects/dryRuns.ts';
import type { DryRunItem, WorkTask } from '../../store/schema/index.ts';
import { addWork, dropFailed, failedDryRuns, type NewWork, priorities } from '../../store/work.ts';
import { findingsIn } from '../book/measuredSheets.ts';
import type { Later } from '../later.ts';
import type { Keep } from '../plans/measurePlan.ts';
import type { Planner } from '../plans/planner.ts';
import { dryRunItems } from './dryRunItems.ts';
import { lookAtPost } from './lookAtPost.ts';
import { NetworkAway, NetworkClient } from './networkClient.ts';
import { Cancelled, type PostOutcome, type Upload, uploadPost } from './uploadPost.ts';

/** What uploading works with. */
export interface Uploading {
  db: Database;
  planner: Planner;
  /** The accounts at the simulated networks, as they are now. */
  accounts: () => Promise<NetworkAccount[]>;
}
/** A network that cannot be reached, or is broken, is asked again after so long, for so long. */
const [againMs, giveUpMs] = [2000, 180_000];
/** A delivery that is being made is looked at this often. */
const deliveryMs = 1000;

const nothing: Keep = async () => undefined;

/** The work for the networks of a run. */
const workFor = (dryRunId: string, network: string | null): NewWork => ({
  key: `dry run ${dryRunId} ${network ?? ''}`,
  task: { kind: 'dry run', dryRunId, network },
  priority: priorities.uploading,
});

/** Asks for a run: first for what there is to upload. */
export const queueDryRun = (db: Queryable, dryRunId: string): Promise<void> => addWork(db, [workFor(dryRunId, null)]);

/** Finds out what a run uploads, or uploads what it has for one network. */
export async function runDryRun(
  uploading: Uploading,
  { dryRunId, network }: Extract<WorkTask, { kind: 'dry run' }>,
): Promise<Keep | Later> {
  const run = await storedDryRun(uploading.db, dryRunId);
  if (!run || (run.state !== 'waiting' && run.state !== 'working')) return nothing;
  return network === null ? begin(uploading.db, run) : uploadTo(uploading, run, network);
}

/** What a run uploads is settled once: when its delivery is done. */
async function begin(db: Database, run: StoredDryRun): Promise<Keep | Later> {
  let { items } = run;
  if (run.deliveryId !== null && items.length === 0) {
    const state = (await deliveryProgress(db, run.deliveryId))?.state ?? 'failed';
    if (state === 'waiting' || state === 'working') return { laterMs: deliveryMs };
    const [found, whole] = [await findDelivery(db, run.deliveryId), await storedDelivery(db, run.deliveryId)];
    items = found && whole && state === 'done' ? dryRunItems(found.delivery.files, whole.items) : [];
  }
  if (items.length === 0) {
    const why =
      'There is nothing to upload: the delivery was not finished, or has no file that a network could be asked about. Deliver again.';
    return async (tx) => void (await endDryRun(tx, run.id, 'failed', why));
  }
  const networks = [...new Set(items.map(({ network }) => network))];
  return async (tx) => {
    if (await beginDryRun(tx, run.id, items))
      await addWork(
        tx,
        networks.map((network) => workFor(run.id, network)),
      );
  };
}

async function uploadTo(uploading: Uploading, run: StoredDryRun, network: string): Promise<Keep | Later> {
  const { db, accounts } = uploading;
  const settled = await outcomesOf(db, run.id);
  const open = run.items
    .map((item, position): Upload => ({ item, position }))
    .filter(({ item, position }) => item.network === network && !settled.has(position));
  const account = (await accounts()).find(({ slug }) => slug === network);
  if (!account) {
    const away = new NetworkAway(`No simulated network is running as ${nameOf(open)}.`, null);
    return waitOrGiveUp(db, run, network, { open, current: open, isPublished: false }, away);
  }
  const client = new NetworkClient(account);
  const goOn = async () => {
    if (!(await isDryRunOpen(db, run.id))) throw new Cancelled();
  };
  for (const uploads of postsOf(open)) {
    let isPublished = false;
    try {
      const key = `${run.id} ${uploads[0]?.item.post}`;
      const posted = await uploadPost(client, { key, uploads, bytesOf: (item) => bytesOf(db, item), goOn });
      await stopWaiting(db, run.id, network);
      if (Array.isArray(posted)) await settlePost(uploading, run.id, uploads, posted);
      else {
        isPublished = true;
        await settlePost(uploading, run.id, uploads, await lookAtPost(db, client, posted, uploads));
      }
    } catch (error) {
      if (error instanceof Cancelled) return nothing;
      if (!(error instanceof NetworkAway)) throw error;
      return waitOrGiveUp(db, run, network, { open, current: uploads, isPublished }, error);
    }
  }
  return nothing;
}

/** Keeps what became of a post, and what it says against the spec book. */
async function settlePost(
  { db, planner }: Uploading,
  dryRunId: string,
  uploads: readonly Upload[],
  outcomes: readonly PostOutcome[],
): Promise<void> {
  const planning = await planner.open();
  const told = uploads.flatMap(({ position, item: { line } }) => {
    const found = outcomes.find((one) => one.position === position);
    return found ? [{ line, outcome: found.outcome }] : [];
  });
  await db.transaction(async (tx) => {
    for (const { pictures = [] } of outcomes) for (const data of pictures) await keepBytes(tx, data);
    await settleUploads(
      tx,
      dryRunId,
      outcomes.map(({ position, outcome }) => ({ position, outcome })),
    );
    await keepSheetFindings(tx, findingsIn(planning, dryRunId, told));
  });
}

const nameOf = (uploads: readonly Upload[]) => uploads[0]?.item.line.network ?? 'this one';

/** Uploads by their posts, in posting order. */
function postsOf(uploads: readonly Upload[]): Upload[][] {
  const posts = new Map<string, Upload[]>();
  for (const upload of uploads) posts.set(upload.item.post, [...(posts.get(upload.item.post) ?? []), upload]);
  return [...posts.values()];
}

async function bytesOf(db: Database, { line }: DryRunItem): Promise<Buffer> {
  const data = await blobBytes(db, line.sha256);
  if (!data) throw new Error(`The bytes of ${line.file} are not there.`);
  return data;
}

/** How far a run has come at a network that is away. */
interface Stopped {
  /** All that is not settled there, and what of it is the post that could not be finished. */
  open: readonly Upload[];
  current: readonly Upload[];
  isPublished: boolean;
}

/** A busy network says when to come back, and is given that time. One that is away is asked again, but not for ever. */
async function waitOrGiveUp(
  db: Database,
  run: StoredDryRun,
  network: string,
  { open, current, isPublished }: Stopped,
  { message, retryMs }: NetworkAway,
): Promise<Keep | Later> {
  // A network that says when to come back is there: from then on it has not been away.
  if (retryMs !== null) await stopWaiting(db, run.id, network);
  const since = await waitAt(db, run.id, network, message);
  if (retryMs !== null) return { laterMs: retryMs };
  if (Date.now() - since.getTime() < giveUpMs) return { laterMs: againMs };
  const tried = `It was tried for ${Math.round(giveUpMs / 60_000)} minutes. Start the dry run again later.`;
  const why = isPublished
    ? `It is posted, but what is shown of it could not be fetched. ${message} ${tried}`
    : `${message} ${tried}`;
  const rest = open.filter((one) => !current.includes(one));
  return (tx) =>
    settleUploads(tx, run.id, [
      ...notReached(current, why),
      ...notReached(rest, 'It was not uploaded, because a post before it could not be finished.'),
    ]);
}

const notReached = (uploads: readonly Upload[], why: string): { position: number; outcome: DryRunOutcome }[] =>
  uploads.map(({ position }) => ({ position, outcome: { state: 'not reached', why } }));

/** Ends what could not be done, however often it was tried, so that runs end. */
export async function endFailedDryRuns(db: Database): Promise<void> {
  for (const { id, task, failure } of await failedDryRuns(db)) {
    await db.transaction(async (tx) => {
      if (!(await dropFailed(tx, id))) return;
      const why = `It could not be uploaded: ${failure ?? 'it failed.'}`;
      const run = await storedDryRun(tx, task.dryRunId);
      if (!run) return;
      if (task.network === null) return void (await endDryRun(tx, run.id, 'failed', why));
      const settled = await outcomesOf(tx, run.id);
      const open = run.items.map((item, position) => ({ item, position }));
      const left = open.filter(({ item, position }) => item.network === task.network && !settled.has(position));
      await settleUploads(tx, run.id, notReached(left, why));
    });
  }
}
