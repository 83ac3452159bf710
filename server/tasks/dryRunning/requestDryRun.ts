import type { DryRun, ManifestFile } from '@inkwell/core/model';
import { defaultPattern } from '@inkwell/core/naming';
import { readPlan } from '@inkwell/core/planning';
import type { Services } from '../../services.ts';
import { keptEncodings } from '../../store/measured/encodings.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { findDelivery } from '../../store/projects/deliveries.ts';
import {
  addDryRun,
  endDryRun,
  findDryRun,
  isPictureOf,
  keepPictures,
  storedDryRun,
} from '../../store/projects/dryRuns.ts';
import { findFrame } from '../../store/projects/frames.ts';
import { dropDryRunWork, priorities } from '../../store/work.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { deliveryItems, wantedFrames } from '../delivering/deliveryItems.ts';
import { manifestLine } from '../delivering/manifestLine.ts';
import { finishedFiles } from '../plans/finishedFiles.ts';
import { queueMeasuring } from '../plans/measuredFrames.ts';
import { holdShares } from '../sharing/refusing.ts';
import { dryRunItems } from './dryRunItems.ts';
import { queueDryRun } from './runDryRun.ts';

type Stores = Pick<Services, 'db'>;

const what = 'This dry run';

/** Asks for a dry run of a delivery; one that is still being made is uploaded when it is done. @throws UserError where it was not finished */
export async function dryRunOfDelivery({ db }: Stores, deliveryId: string): Promise<DryRun> {
  const { delivery } = orNotFound(await findDelivery(db, deliveryId), 'This delivery');
  const { projectId, state, files } = delivery;
  if (state === 'failed' || state === 'cancelled') {
    throw new UserError('This delivery was not finished. Deliver again, then start a dry run.', 409);
  }
  if (state === 'done' && !files.some(({ placeThen }) => placeThen)) {
    throw new UserError(
      'This delivery has no file that a network could be asked about. Deliver again, then start a dry run.',
      409,
    );
  }
  return db.transaction(async (tx) => {
    const run = await addDryRun(tx, { projectId, deliveryId });
    await queueDryRun(tx, run.id);
    await holdShares(tx, 'jobs');
    return run;
  });
}

/**
 * Asks for a dry run of one frame as it is now, without a delivery.
 *
 * @param plan that the person has seen
 * @throws UserError where the frame has changed since, its file is not made yet, or it may not be delivered
 */
export async function dryRunOfFrame(
  { db, planner, copies }: Pick<Services, 'db' | 'planner' | 'copies'>,
  frameId: string,
  plan: string,
): Promise<DryRun> {
  const framed = orNotFound(await findFrame(db, frameId), 'This frame');
  const planning = await planner.open();
  const wanted = wantedFrames(planning, [framed]);
  const [frame] = wanted;
  if (!frame) throw new UserError('The place of this frame is not in the spec book any more.', 409);
  if (frame.hash !== plan)
    throw new UserError('The frame has changed since this was asked for. Look at it again.', 409);
  const items = deliveryItems(wanted, defaultPattern);
  const blocked = items.find((item) => item.blocked?.length)?.blocked ?? [];
  if (blocked.length > 0) throw new UserError(`This frame may not be delivered as it is: ${blocked.join(' ')}`, 409);
  const weight = (await knownWeights(db, [plan])).get(plan);
  if (!weight) {
    await db.transaction((tx) => queueMeasuring(tx, planning, [framed], priorities.looked, true));
    throw new UserError('The file of this frame is still being made. Try again in a moment.', 409);
  }
  // Files are kept for a while only: one that is not there any more is encoded again.
  await finishedFiles({ db, copies }, frame.plan);
  const kept = orNotFound(await keptEncodings(db, plan, items.length), 'The file of this frame');
  const lines = items.flatMap((item): ManifestFile[] => {
    const index = item.piece?.index ?? 0;
    const [file, encoding, read] = [weight.files[index], kept[index], readPlan(item.plan)];
    return file && encoding && read ? [manifestLine({ item, plan: read, file, encoding }, plan)] : [];
  });
  const { projectId } = framed.frame;
  const uploads = dryRunItems(lines, items);
  return db.transaction(async (tx) => {
    const run = await addDryRun(tx, { projectId, deliveryId: null, items: uploads });
    const pictures = lines.map(({ sha256 }) => sha256);
    await keepPictures(tx, run.id, pictures);
    await queueDryRun(tx, run.id);
    await holdShares(tx, 'jobs');
    return run;
  });
}

/** Ends a dry run. What was posted stays, and what came back; nothing more is uploaded. @throws UserError where it is over */
export async function cancelDryRun({ db }: Stores, id: string): Promise<DryRun> {
  orNotFound(await storedDryRun(db, id), what);
  const isCancelled = await db.transaction(async (tx) => {
    const ended = await endDryRun(tx, id, 'cancelled');
    if (ended) await dropDryRunWork(tx, id);
    return ended;
  });
  if (!isCancelled) throw new UserError('This dry run is over already.', 409);
  return orNotFound(await findDryRun(db, id), what);
}

/** Makes sure that a picture is one of a run. @throws UserError where it is not */
export async function checkPicture({ db }: Stores, id: string, sha256: string): Promise<void> {
  const run = orNotFound(await storedDryRun(db, id), what);
  orNotFound(await isPictureOf(db, run, sha256), 'This picture');
}
