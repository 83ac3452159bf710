import type { FinishFigures } from '@inkwell/core/model';
import { fileCount, planHash, type RenderPlan } from '@inkwell/core/planning';
import type { RecentPixels } from '../../imaging/copies/recentPixels.ts';
import type { WorkingCopies } from '../../imaging/copies/workingCopy.ts';
import { encodeFiles, type Rendered, renderAs, renderFiles } from '../../imaging/encoding/render.ts';
import { measureDetail } from '../../imaging/measuring/detail.ts';
import { measureLegibility } from '../../imaging/measuring/legibility.ts';
import { renderPixels } from '../../imaging/stages/renderPixels.ts';
import { timed } from '../../running/counting.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { keepDetails } from '../../store/measured/details.ts';
import { keepEncodings, keptEncodings } from '../../store/measured/encodings.ts';
import { keepFigures, knownFigures } from '../../store/measured/figures.ts';
import { keepLegibility } from '../../store/measured/legibilities.ts';
import { keepWeight, knownWeights } from '../../store/measured/weights.ts';
import type { WorkTask } from '../../store/schema/index.ts';
import { finishedFiles } from './finishedFiles.ts';
import { openedFiles } from './openedFiles.ts';

/** What measuring works with. */
export interface Measures {
  db: Database;
  copies: WorkingCopies;
  recent: RecentPixels;
}

/** Keeps what was found, in the transaction that says that the work is done. */
export type Keep = (tx: Queryable) => Promise<void>;

/** Encodes the files of a plan and measures them, as far as that is not known and kept already. */
export async function measurePlan(
  { db, copies, recent }: Measures,
  { plan, isWay }: { plan: RenderPlan; isWay: boolean },
): Promise<Keep> {
  const hash = planHash(plan);
  const weight = (await knownWeights(db, [hash])).get(hash);
  const isKept = (await keptEncodings(db, hash, fileCount(plan))) !== null;
  const isFigured = plan.finish === null || (await knownFigures(db, [hash])).size > 0;
  const copy = await copies.forPlan(plan);
  let figures: FinishFigures | null = null;
  const watch = isFigured ? undefined : { figures: (measured: FinishFigures) => (figures = measured) };
  let made: Pick<Rendered, 'pieces' | 'seams'> | null = null;
  let found = weight;
  if (!found) {
    // Other ways to make one frame's file share its pixels.
    const rendered =
      isWay && isFigured ? await encodeFiles(plan, await recent.get(plan)) : await renderFiles(plan, copy, watch);
    [made, found] = [rendered, rendered.weight];
  } else if (!isKept) made = await renderAs(plan, copy, found.files, watch);
  else if (!isFigured) await renderPixels(plan, copy, watch);
  const files = made && (await timed('open again', () => openedFiles(made)));
  return async (tx) => {
    if (found) await keepWeight(tx, found);
    if (figures) await keepFigures(tx, hash, figures);
    if (files) await keepEncodings(tx, hash, files);
  };
}

/** Measures what is left of marks where a file is shown small. */
export async function measureMarks(
  { copies }: Measures,
  { hash, plan, marks, shownWidths }: Extract<WorkTask, { kind: 'detail' }> & { plan: RenderPlan },
): Promise<Keep> {
  const copy = await copies.forPlan(plan);
  const kept = await timed('small marks', () => measureDetail(plan, marks, shownWidths, copy));
  return (tx) => keepDetails(tx, hash, kept);
}

/** Measures how well words can be read, on a plan's finished files. */
export async function measureWords(
  { db, copies }: Measures,
  { hash, plan, shownWidths }: Extract<WorkTask, { kind: 'legibility' }> & { plan: RenderPlan },
): Promise<Keep> {
  const files = await finishedFiles({ db, copies }, plan);
  const found = await timed('small words', () => measureLegibility(plan, files, shownWidths));
  return (tx) => keepLegibility(tx, hash, found);
}
