import { frameFindings } from '@inkwell/core/checking';
import type { ResolvedFinish } from '@inkwell/core/finishing';
import type { PlaceOfNetwork } from '@inkwell/core/model';
import { defaultPattern, fileNames, fileNameWord, nameable, patternProblem } from '@inkwell/core/naming';
import { planHash, type RenderPlan } from '@inkwell/core/planning';
import { piecesInOrder } from '@inkwell/core/splitting';
import { Router } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';
import type { Services } from '../services.ts';
import { addDelivery, cancelDelivery, deliveriesOfProject, findDelivery, storedDelivery } from '../store/deliveries.ts';
import { type FramedPicture, framesOfProject } from '../store/frames.ts';
import { projectName } from '../store/projects.ts';
import type { DeliveryItem } from '../store/schema.ts';
import { dropDeliveryWork } from '../store/work.ts';
import { archiveOf } from '../tasks/archive.ts';
import { queueDelivery } from '../tasks/deliverPlan.ts';
import { found, idOf } from './params.ts';

export const DeliverSchema = z.object({
  projectId: z.uuid(),
  pattern: z.string().max(200).default(defaultPattern),
  /** The plans that the person has seen, of the frames that are to be delivered: what has changed since is not delivered unseen. */
  seen: z.array(z.object({ frameId: z.uuid(), plan: z.string().max(100) })).max(5000),
});

const mostNamed = 3;

/** Refuses where what would be delivered is not what was seen, and names what has changed. */
function checkSeen(seen: ReadonlyMap<string, string>, wanted: readonly WantedFrame[]): void {
  const changed = wanted.filter(({ frame, plan }) => seen.get(frame.id) !== planHash(plan));
  const gone = [...seen.keys()].filter((id) => !wanted.some(({ frame }) => frame.id === id));
  if (changed.length === 0 && gone.length === 0) return;
  const named = changed
    .slice(0, mostNamed)
    .map(({ original, at }) => `${original.name}, ${at.network.name} ${at.place.name}`);
  const others = changed.length + gone.length - named.length;
  const all = [...named, ...(others > 0 ? [`${others} more`] : [])].join('; ');
  throw new Refusal(
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
  finish: ResolvedFinish;
}

export function deliveriesRouter({ db, planner }: Services): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    response.json(await deliveriesOfProject(db, z.uuid().parse(request.query.project)));
  });

  router.post('/', async (request, response) => {
    const { projectId, pattern, seen } = DeliverSchema.parse(request.body);
    const problem = patternProblem(pattern);
    if (problem) throw new Refusal(problem);
    const [known, { places, planOf, finishOf }, frames] = await Promise.all([
      projectName(db, projectId),
      planner.open(),
      framesOfProject(db, projectId),
    ]);
    const name = found(known, 'This project');
    const wanted = frames.flatMap((framed): WantedFrame[] => {
      const at = places.get(framed.frame.placeId);
      const plan = planOf(framed);
      return at && plan ? [{ ...framed, at, plan, finish: finishOf(framed) }] : [];
    });
    checkSeen(new Map(seen.map(({ frameId, plan }) => [frameId, plan])), wanted);
    if (wanted.length === 0)
      throw new Refusal('There is no frame to deliver. Choose a picture and a place for it first.');
    const files = wanted.flatMap(({ frame, original, at, plan, finish }) =>
      piecesInOrder(at.place, frame).map((piece) => ({ frame, original, at, plan, finish, piece })),
    );
    const blocked = new Map(
      wanted.map(({ frame, original, at, finish: { treatment } }) => {
        const findings = frameFindings({ original, place: at.place, settings: frame, treatment, weight: null });
        return [frame.id, findings.filter((one) => one.level === 'blocker').map((one) => one.text)];
      }),
    );
    const names = fileNames(
      pattern,
      files.map(({ frame, original, at, piece }) => nameable(original, at, frame.format, piece, frame.height)),
    );
    const items = files.map(
      ({ frame, original, at, plan, finish, piece }, index): DeliveryItem => ({
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
      }),
    );
    const delivery = await db.transaction(async (tx) => {
      const added = await addDelivery(tx, { projectId, projectName: name, pattern, items });
      await queueDelivery(tx, added.stored);
      return added.delivery;
    });
    response.status(202).json(delivery);
  });

  router.get('/:id', async (request, response) => {
    response.json(found(await findDelivery(db, idOf(request)), 'This delivery').delivery);
  });

  // Ends it. The files that are made already stay listed; there is no archive of them.
  router.post('/:id/cancel', async (request, response) => {
    const id = idOf(request);
    found(await storedDelivery(db, id), 'This delivery');
    const isCancelled = await db.transaction(async (tx) => {
      const cancelled = await cancelDelivery(tx, id);
      if (cancelled) await dropDeliveryWork(tx, id);
      return cancelled;
    });
    if (!isCancelled) throw new Refusal('This delivery is over already.', 409);
    response.json(found(await findDelivery(db, id), 'This delivery').delivery);
  });

  router.get('/:id/archive', async (request, response) => {
    const { stored, delivery } = found(await findDelivery(db, idOf(request)), 'This delivery');
    if (delivery.state !== 'done') {
      const isOver = delivery.state === 'failed' || delivery.state === 'cancelled';
      throw new Refusal(
        isOver ? 'This delivery was not finished. Deliver again.' : 'This delivery is not finished yet.',
        409,
      );
    }
    const day = delivery.createdAt.slice(0, 16).replace('T', '_').replace(':', '');
    response.attachment(`${fileNameWord(stored.projectName) || 'delivery'}_${day}.zip`);
    archiveOf(db, stored, delivery)
      .on('error', (error) => response.destroy(error))
      .pipe(response);
  });

  return router;
}
