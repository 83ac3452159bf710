import { frameFindings } from '@inkwell/core/checking';
import type { ResolvedFinish } from '@inkwell/core/finishing';
import type { Delivery, PlaceOfNetwork } from '@inkwell/core/model';
import { fileNames, nameable, patternProblem } from '@inkwell/core/naming';
import type { LetteredFrame, RenderPlan } from '@inkwell/core/planning';
import { asComposed } from '@inkwell/core/proposing';
import { piecesInOrder } from '@inkwell/core/splitting';
import type { Services } from '../../services.ts';
import { addDelivery, cancelDelivery, findDelivery, storedDelivery } from '../../store/projects/deliveries.ts';
import { type FramedPicture, framesOfProject } from '../../store/projects/frames.ts';
import { projectName } from '../../store/projects/projects.ts';
import type { DeliveryItem } from '../../store/schema.ts';
import { dropDeliveryWork } from '../../store/work.ts';
import { orNotFound, UserError } from '../../userError.ts';
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

interface WantedFrame extends FramedPicture {
  at: PlaceOfNetwork;
  plan: RenderPlan;
  hash: string;
  finish: ResolvedFinish;
  lettered: LetteredFrame | null;
}

export interface DeliveryRequest {
  projectId: string;
  /** How the files are named. */
  pattern: string;
  /** The plans that the person has seen, by frame. */
  seen: readonly { frameId: string; plan: string }[];
}

/**
 * Asks for the files of all frames of a project, as they are set now.
 *
 * @throws UserError where the pattern names no files, there is no frame, or a frame is not set any more as it was seen
 */
export async function requestDelivery(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  { projectId, pattern, seen }: DeliveryRequest,
): Promise<Delivery> {
  const problem = patternProblem(pattern);
  if (problem) throw new UserError(problem);
  const [known, { places, measuringOf, finishOf, letteredOf }, frames] = await Promise.all([
    projectName(db, projectId),
    planner.open(),
    framesOfProject(db, projectId),
  ]);
  const name = orNotFound(known, 'This project');
  const wanted = frames.flatMap((framed): WantedFrame[] => {
    const at = places.get(framed.frame.placeId);
    const measuring = measuringOf(framed);
    if (!at || !measuring) return [];
    const { plan, planned } = measuring;
    const found = { plan, hash: planned.planHash, finish: finishOf(framed), lettered: letteredOf(framed) };
    return [{ ...framed, at, ...found }];
  });
  checkSeen(new Map(seen.map(({ frameId, plan }) => [frameId, plan])), wanted);
  if (wanted.length === 0) {
    throw new UserError('There is no frame to deliver. Choose a picture and a place for it first.');
  }
  const items = itemsOf(wanted, pattern);
  return db.transaction(async (tx) => {
    const { stored, delivery } = await addDelivery(tx, { projectId, projectName: name, pattern, items });
    await queueDelivery(tx, stored);
    return delivery;
  });
}

/** Ends a delivery. The files that are made already stay listed; there is no archive of them. @throws UserError where it is over */
export async function endDelivery({ db }: Pick<Services, 'db'>, id: string): Promise<Delivery> {
  orNotFound(await storedDelivery(db, id), 'This delivery');
  const isCancelled = await db.transaction(async (tx) => {
    const cancelled = await cancelDelivery(tx, id);
    if (cancelled) await dropDeliveryWork(tx, id);
    return cancelled;
  });
  if (!isCancelled) throw new UserError('This delivery is over already.', 409);
  return orNotFound(await findDelivery(db, id), 'This delivery').delivery;
}

/** One item for every file of some frames, in posting order. */
function itemsOf(wanted: readonly WantedFrame[], pattern: string): DeliveryItem[] {
  const files = wanted.flatMap((one) => piecesInOrder(one.at.place, one.frame).map((piece) => ({ ...one, piece })));
  const blocked = new Map(wanted.map((one) => [one.frame.id, blockersOf(one)]));
  const names = fileNames(
    pattern,
    files.map(({ frame, original, at, piece }) => nameable(original, at, frame.format, piece, frame.height)),
  );
  return files.map(({ frame, original, at, plan, finish, piece }, index) => ({
    fileName: names[index] ?? '',
    plan,
    original: original.name,
    network: at.network.name,
    place: at.place.name,
    limit: at.place.limit,
    ...(plan.finish || plan.border
      ? { finish: { name: finish.finish.name, version: finish.finish.version, blend: finish.treatment.blend } }
      : {}),
    ...(piece ? { piece } : {}),
    blocked: blocked.get(frame.id) ?? [],
  }));
}

/** What forbids to deliver a frame, in words, as far as that is known before it is rendered. */
function blockersOf({
  frame,
  original,
  project,
  seen,
  at,
  plan,
  finish: { treatment },
  lettered,
}: WantedFrame): string[] {
  const composed = asComposed(original, seen, project.composing);
  const toCheck = { original: composed, place: at.place, settings: frame, treatment, weight: null, lettered };
  const findings = frameFindings(toCheck, plan.window);
  return findings.filter((one) => one.level === 'blocker').map((one) => one.text);
}
