import { fileReasons } from '@inkwell/core/checking';
import { windowRect } from '@inkwell/core/geometry';
import type { EncodedFile, ManifestFile, SeamStep } from '@inkwell/core/model';
import { besideClosing, planHash, planOpening } from '@inkwell/core/planning';
import { measureFile } from '../imaging/measure.ts';
import { type Rendered, renderAs, renderFiles } from '../imaging/render.ts';
import type { WorkingCopies, WorkingCopy } from '../imaging/workingCopy.ts';
import { inTwos } from '../inTwos.ts';
import { keepBytes } from '../store/blobs.ts';
import type { Database } from '../store/database.ts';
import { beat, findDelivery, finish, settle, settledPositions } from '../store/deliveries.ts';
import type { DeliveryItem } from '../store/schema.ts';
import { keepWeight, knownWeights } from '../store/weights.ts';

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
    const open = [...found.stored.items.entries()].filter(([position]) => !settled.has(position));
    // The pieces of one frame are rendered together, once.
    const runs = byPlan(open);
    // The largest first: begun last, it would run on alone while the other core has nothing left to do.
    runs.sort(([a], [b]) => pixelsOf(b) - pixelsOf(a));
    await inTwos(runs, (run) => deliverRun(db, copies, id, run));
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

type Entry = [position: number, item: DeliveryItem];

function byPlan(entries: readonly Entry[]): Entry[][] {
  const runs = new Map<string, Entry[]>();
  for (const entry of entries) {
    const hash = planHash(entry[1].plan);
    const run = runs.get(hash);
    if (run) run.push(entry);
    else runs.set(hash, [entry]);
  }
  return [...runs.values()];
}

const pixelsOf = (entry: Entry | undefined) => (entry ? entry[1].plan.output.width * entry[1].plan.output.height : 0);

/** Makes the files of one plan: all of them, or none where one of them may not be delivered. */
async function deliverRun(db: Database, copies: WorkingCopies, id: string, run: Entry[]): Promise<void> {
  const { plan, blocked = [] } = run[0]?.[1] ?? {};
  if (!plan) return;
  if (blocked.length > 0) return leaveOut(db, id, run, () => blocked);
  const { pieces, seams: measured, weight } = await renderKnown(db, plan, await copies.get(plan.original));
  const made = run.map(([position, item]): MadeFile => {
    const [piece, file] = [pieces[item.piece?.index ?? 0], weight.files[item.piece?.index ?? 0]];
    if (!piece || !file) throw new Error(`${item.fileName} has no piece ${item.piece?.index}.`);
    return { position, item, data: piece.data, file };
  });
  const reasons = new Map<number, string[]>();
  for (const one of made) reasons.set(one.position, await reasonsAgainst(one));
  const failed = made.find(({ position }) => (reasons.get(position) ?? []).length > 0);
  if (failed) {
    const other = `${failed.item.fileName} did not come out right, and without it the others are of no use.`;
    return leaveOut(db, id, run, (position) => {
      const own = reasons.get(position) ?? [];
      return own.length > 0 ? own : [other];
    });
  }
  const seams = await measured();
  await db.transaction(async (tx) => {
    for (const one of made) {
      const sha256 = await keepBytes(tx, one.data);
      const file = manifestLine(one, sha256, seams.get(one.item.piece?.index ?? 0) ?? []);
      await settle(tx, id, one.position, { sha256, file });
    }
  });
}

/** A file of a delivery that is made, with what was measured of it. */
interface MadeFile {
  position: number;
  item: DeliveryItem;
  data: Buffer;
  file: EncodedFile;
}

async function leaveOut(db: Database, id: string, run: Entry[], reasonsOf: (position: number) => string[]) {
  await db.transaction(async (tx) => {
    for (const [position, { fileName, network, place }] of run) {
      const leftOut = { file: fileName, network, place, reasons: reasonsOf(position) };
      await settle(tx, id, position, { leftOut });
    }
  });
}

/** The dimensions of one file of a plan. */
const fileDimensions = ({ grid, output }: DeliveryItem['plan']) => (grid ? grid.piece : output);

/** Why a file may not be delivered, after it was opened again. */
async function reasonsAgainst({ item: { plan, limit }, data, file }: MadeFile): Promise<string[]> {
  const { format, budgetBytes, least } = plan.encoding;
  const demand = { dimensions: fileDimensions(plan), format, limit, budgetBytes, least };
  return fileReasons({ ...(await measureFile(data)), similarity: file.similarity }, demand);
}

function manifestLine({ item, data, file }: MadeFile, sha256: string, seams: SeamStep[]): ManifestFile {
  const { plan, piece } = item;
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
    planHash: planHash(plan),
    ...(item.finish ? { finish: item.finish } : {}),
    ...(piece ? { piece } : {}),
    ...(seams.length > 0 ? { seams } : {}),
  };
}

/** What of the original a file is from: all of it on a closing panel, else what the whole strip shows. */
function windowLine(plan: DeliveryItem['plan'], piece: DeliveryItem['piece']): ManifestFile['window'] {
  const { strip, closing } = besideClosing(plan);
  const shown = closing && piece && piece.column === piece.columns ? closing : strip;
  const { turn, mirror } = shown.window;
  return { ...windowRect(shown.window, planOpening(shown).window), turn, mirror };
}

/** The files of a plan; where its weight was measured before, they are encoded once, at the quality found then. */
async function renderKnown(
  db: Database,
  plan: DeliveryItem['plan'],
  copy: WorkingCopy,
): Promise<Pick<Rendered, 'pieces' | 'seams' | 'weight'>> {
  const known = (await knownWeights(db, [planHash(plan)])).get(planHash(plan));
  if (known) return { ...(await renderAs(plan, copy, known.files)), weight: known };
  const rendered = await renderFiles(plan, copy);
  await keepWeight(db, rendered.weight);
  return rendered;
}
