import type { FinishFigures } from '@inkwell/core/model';
import { measureDetail } from '../imaging/detail.ts';
import { renderFiles } from '../imaging/render.ts';
import { renderPixels } from '../imaging/renderPixels.ts';
import type { WorkingCopies } from '../imaging/workingCopy.ts';
import type { Planner } from '../planner.ts';
import type { Database } from '../store/database.ts';
import { keepDetails, knownDetails } from '../store/details.ts';
import { keepFigures, knownFigures } from '../store/figures.ts';
import { findFrame } from '../store/frames.ts';
import { keepWeight, knownWeights } from '../store/weights.ts';

/**
 * Measures what a frame, as it is set now, weighs at full size, and what is left of its marks where it is shown small.
 * Does nothing about what is known already, or where the frame is gone.
 */
export async function measure(db: Database, copies: WorkingCopies, planner: Planner, frameId: string): Promise<void> {
  const found = await findFrame(db, frameId);
  const measuring = found && (await planner.open()).measuringOf(found);
  if (!measuring) return;
  const { plan, planHash, detail } = measuring;
  const copy = await copies.get(plan.original.sha256);
  if (detail.marks.length > 0 && (await knownDetails(db, [detail.hash])).size === 0) {
    await keepDetails(db, detail.hash, await measureDetail(plan, detail.marks, detail.shownWidths, copy));
  }
  const isWeighed = (await knownWeights(db, [planHash])).size > 0;
  const isFigured = plan.finish === null || (await knownFigures(db, [planHash])).size > 0;
  if (isWeighed && isFigured) return;
  let figures: FinishFigures | null = null;
  const watch = { figures: (measured: FinishFigures) => (figures = measured) };
  if (isWeighed) await renderPixels(plan, copy, watch);
  else await keepWeight(db, (await renderFiles(plan, copy, isFigured ? undefined : watch)).weight);
  if (figures) await keepFigures(db, planHash, figures);
}
