import { type Delivery, isLeftOut } from '@inkwell/core/model';
import { patternProblem } from '@inkwell/core/naming';
import type { Services } from '../../services.ts';
import { addDelivery, cancelDelivery, deliveryProgress, findDelivery } from '../../store/projects/deliveries.ts';
import { framesOfProject } from '../../store/projects/frames.ts';
import { projectName } from '../../store/projects/projects.ts';
import { dropDeliveryWork } from '../../store/work.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { holdShares } from '../sharing/refusing.ts';
import { deliveryItems, type WantedFrame, wantedFrames } from './deliveryItems.ts';
import { queueDelivery } from './queueDelivery.ts';

const mostNamed = 3;

/** Refuses where what would be delivered is not what was seen, and names what has changed. */
function checkSeen(seen: ReadonlyMap<string, string>, wanted: readonly WantedFrame[]): void {
  const changed = wanted.filter(({ frame, hash }) => seen.get(frame.id) !== hash);
  const gone = [...seen.keys()].filter((id) => !wanted.some(({ frame }) => frame.id === id));
  if (changed.length === 0 && gone.length === 0) return;
  const named = changed
    .slice(0, mostNamed)
    .map(({ original, at }) => `${original.name}, ${at.network.name} ${at.place.name}`);
  const others = changed.length + gone.length - named.length;
  const all = [...named, ...(others > 0 ? [`${others} more`] : [])].join('; ');
  throw new UserError(
    `What you saw has changed since (${all}). Nothing was delivered: look at it again, then deliver.`,
    409,
    {
      changed: [...changed.map(({ frame }) => frame.id), ...gone],
    },
  );
}

export interface DeliveryRequest {
  projectId: string;
  /** How the files are named. */
  pattern: string;
  /** Only these frames; all where it is left out. */
  only?: readonly string[] | undefined;
  /** The plans that the person has seen, by frame. */
  seen: readonly { frameId: string; plan: string }[];
}

/**
 * Asks for the files of the frames of a project, as they are set now.
 *
 * @throws UserError where the pattern names no files, there is no frame, or a frame is not set any more as it was seen
 */
export async function requestDelivery(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  { projectId, pattern, only, seen }: DeliveryRequest,
): Promise<Delivery> {
  const problem = patternProblem(pattern);
  if (problem) throw new UserError(problem);
  const [known, planning, frames] = await Promise.all([
    projectName(db, projectId),
    planner.open(),
    framesOfProject(db, projectId),
  ]);
  const name = orNotFound(known, 'This project');
  const some = only && new Set(only);
  const asked = some ? frames.filter(({ frame }) => some.has(frame.id)) : frames;
  const wanted = wantedFrames(
    planning,
    asked.filter(({ frame }) => !isLeftOut(frame)),
  );
  checkSeen(new Map(seen.map(({ frameId, plan }) => [frameId, plan])), wanted);
  if (wanted.length === 0) {
    throw new UserError(
      asked.length > 0
        ? 'Every frame is left out of deliveries. Look them over, and say of one that it is fine.'
        : 'There is no frame to deliver. Choose a picture and a place for it first.',
    );
  }
  const items = deliveryItems(wanted, pattern);
  return db.transaction(async (tx) => {
    const { stored, delivery } = await addDelivery(tx, { projectId, projectName: name, pattern, items });
    await queueDelivery(tx, stored);
    await holdShares(tx, 'bytes', 'jobs');
    return delivery;
  });
}

/** Ends a delivery. The files that are made already stay listed; there is no archive of them. @throws UserError where it is over */
export async function endDelivery({ db }: Pick<Services, 'db'>, id: string): Promise<Delivery> {
  orNotFound(await deliveryProgress(db, id), 'This delivery');
  const isCancelled = await db.transaction(async (tx) => {
    const cancelled = await cancelDelivery(tx, id);
    if (cancelled) await dropDeliveryWork(tx, id);
    return cancelled;
  });
  if (!isCancelled) throw new UserError('This delivery is over already.', 409);
  return orNotFound(await findDelivery(db, id), 'This delivery').delivery;
}
