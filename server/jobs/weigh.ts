import { planHash } from '@inkwell/core/planning';
import { renderFile } from '../imaging/render.ts';
import type { WorkingCopies } from '../imaging/workingCopy.ts';
import type { SpecBook } from '../specBook.ts';
import type { Database } from '../store/database.ts';
import { findFrame } from '../store/frames.ts';
import { keepWeight, knownWeights } from '../store/weights.ts';

/** Measures what a frame, as it is set now, weighs at full size. Does nothing where that is known or the frame is gone. */
export async function weigh(db: Database, copies: WorkingCopies, book: SpecBook, frameId: string): Promise<void> {
  const found = await findFrame(db, frameId);
  const plan = found && (await book.open()).planOf(found.frame, found.original);
  if (!plan || (await knownWeights(db, [planHash(plan)])).size > 0) return;
  const { weight } = await renderFile(plan, await copies.get(plan.original.sha256));
  await keepWeight(db, weight);
}
