import type { FinishFigures, FrameChange } from '@inkwell/core/model';
import { measureDetail } from '../imaging/detail.ts';
import type { RecentPixels } from '../imaging/recentPixels.ts';
import { encodeFiles, renderFiles } from '../imaging/render.ts';
import { renderPixels } from '../imaging/renderPixels.ts';
import type { WorkingCopies } from '../imaging/workingCopy.ts';
import type { Planner } from '../planner.ts';
import type { Database } from '../store/database.ts';
import { keepDetails, knownDetails } from '../store/details.ts';
import { keepFigures, knownFigures } from '../store/figures.ts';
import { findFrame } from '../store/frames.ts';
import { keepWeight, knownWeights } from '../store/weights.ts';

/** What measuring works with. */
export interface Measures {
  db: Database;
  copies: WorkingCopies;
  planner: Planner;
  recent: RecentPixels;
}

/**
 * Measures what a frame, as it is set now, weighs at full size, and what is left of its marks where it is shown small.
 * @param change measures it as it would be with this. Does nothing about what is known already, or where the frame is gone.
 */
export async function measure(
  { db, copies, planner, recent }: Measures,
  frameId: string,
  change: FrameChange,
): Promise<void> {
  const found = await findFrame(db, frameId);
  const asked = found && { ...found, frame: { ...found.frame, ...change } };
  const measuring = asked && (await planner.open()).measuringOf(asked);
  if (!measuring) return;
  const { plan, planHash, detail } = measuring;
  const copy = await copies.get(plan.original);
  if (detail.marks.length > 0 && (await knownDetails(db, [detail.hash])).size === 0) {
    await keepDetails(db, detail.hash, await measureDetail(plan, detail.marks, detail.shownWidths, copy));
  }
  const isWeighed = (await knownWeights(db, [planHash])).size > 0;
  const isFigured = plan.finish === null || (await knownFigures(db, [planHash])).size > 0;
  if (isWeighed && isFigured) return;
  let figures: FinishFigures | null = null;
  const watch = { figures: (measured: FinishFigures) => (figures = measured) };
  if (isWeighed) await renderPixels(plan, copy, watch);
  // Ways to make one frame's file share its pixels.
  else if (isFigured && Object.keys(change).length > 0) {
    await keepWeight(db, (await encodeFiles(plan, await recent.get(plan))).weight);
  } else await keepWeight(db, (await renderFiles(plan, copy, isFigured ? undefined : watch)).weight);
  if (figures) await keepFigures(db, planHash, figures);
}
