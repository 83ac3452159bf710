import { fileReasons } from '@inkwell/core/checking';
import { windowRect } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import { planHash, planOpening } from '@inkwell/core/planning';
import { measureFile } from '../imaging/measure.ts';
import { type RenderedFile, renderAtQuality, renderFile } from '../imaging/render.ts';
import type { WorkingCopies, WorkingCopy } from '../imaging/workingCopy.ts';
import { keepBytes } from '../store/blobs.ts';
import type { Database } from '../store/database.ts';
import { beat, findDelivery, finish, settle, settledPositions } from '../store/deliveries.ts';
import type { DeliveryItem } from '../store/schema.ts';
import { keepWeight, knownWeights } from '../store/weights.ts';
import { inTwos } from './inTwos.ts';

const beatSeconds = 3;

/**
 * Makes the files of a delivery that are not made yet. Taken up again after a broken run it goes on where that one
 * stopped: every finished file is stored with its line of the manifest, in one transaction.
 */
export async function deliver(db: Database, copies: WorkingCopies, id: string): Promise<void> {
  const found = await findDelivery(db, id);
  if (!found || found.delivery.state === 'done' || found.delivery.state === 'failed') return;
  await beat(db, id);
  const pulse = setInterval(() => void beat(db, id).catch(() => clearInterval(pulse)), beatSeconds * 1000);
  try {
    const settled = await settledPositions(db, id);
    // The largest first: begun last, it would run on alone while the other core has nothing left to do.
    const open = [...found.stored.items.entries()]
      .filter(([position]) => !settled.has(position))
      .sort(([, a], [, b]) => pixelsOf(b.plan.output) - pixelsOf(a.plan.output));
    await inTwos(open, ([position, item]) => deliverItem(db, copies, id, position, item));
    clearInterval(pulse);
    await finish(db, id, 'done', null);
  } catch (error) {
    clearInterval(pulse);
    await finish(
      db,
      id,
      'failed',
      'The files could not be made. Deliver again; if it happens again, look into the log.',
    );
    throw error;
  } finally {
    clearInterval(pulse);
  }
}

const pixelsOf = ({ width, height }: Dimensions) => width * height;

async function deliverItem(
  db: Database,
  copies: WorkingCopies,
  id: string,
  position: number,
  item: DeliveryItem,
): Promise<void> {
  const { plan } = item;
  const rendered = await renderKnown(db, plan, await copies.get(plan.original.sha256));
  const { encoding, output } = plan;
  const demand = { dimensions: output, format: encoding.format, limit: item.limit, budgetBytes: encoding.budgetBytes };
  const reasons = fileReasons(await measureFile(rendered.data), demand);
  await db.transaction(async (tx) => {
    if (reasons.length > 0) {
      await settle(tx, id, position, {
        leftOut: { file: item.fileName, network: item.network, place: item.place, reasons },
      });
      return;
    }
    const sha256 = await keepBytes(tx, rendered.data);
    const file = {
      file: item.fileName,
      original: item.original,
      originalSha256: plan.original.sha256,
      network: item.network,
      place: item.place,
      ...output,
      bytes: rendered.data.length,
      sha256,
      format: encoding.format,
      quality: rendered.weight.quality,
      limitBytes: item.limit.bytes,
      limitUnit: item.limit.unit,
      window: {
        ...windowRect(plan.window, planOpening(plan).window),
        turn: plan.window.turn,
        mirror: plan.window.mirror,
      },
      planHash: planHash(plan),
    };
    await settle(tx, id, position, { sha256, file });
  });
}

/** The file of a plan; where its weight was measured before, it is encoded once, at the quality found then. */
async function renderKnown(
  db: Database,
  plan: DeliveryItem['plan'],
  copy: WorkingCopy,
): Promise<Pick<RenderedFile, 'data' | 'weight'>> {
  const known = (await knownWeights(db, [planHash(plan)])).get(planHash(plan));
  if (known) return { data: await renderAtQuality(plan, copy, known.quality), weight: known };
  const rendered = await renderFile(plan, copy);
  await keepWeight(db, rendered.weight);
  return rendered;
}
