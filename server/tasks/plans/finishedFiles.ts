import { fileCount, planHash, type RenderPlan } from '@inkwell/core/planning';
import type { WorkingCopies } from '../../imaging/copies/workingCopy.ts';
import { renderAs } from '../../imaging/encoding/render.ts';
import { blobBytes } from '../../store/blobs/blobs.ts';
import type { Database } from '../../store/database.ts';
import { keepEncodings, keptEncodings } from '../../store/measured/encodings.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { UserError } from '../../userError.ts';
import { openedFiles } from './openedFiles.ts';

/**
 * The files of a plan that has been measured, in reading order: as they are kept, or encoded again as they are known to come out.
 *
 * @throws UserError where it has not been measured yet
 */
export async function finishedFiles(
  { db, copies }: { db: Database; copies: WorkingCopies },
  plan: RenderPlan,
): Promise<Buffer[]> {
  const hash = planHash(plan);
  const kept = await keptEncodings(db, hash, fileCount(plan));
  const files: Buffer[] = [];
  for (const { sha256 } of kept ?? []) {
    const data = await blobBytes(db, sha256);
    if (data) files.push(data);
  }
  if (files.length === fileCount(plan)) return files;
  const weight = (await knownWeights(db, [hash])).get(hash);
  if (!weight) throw new UserError('This file has not been made yet. It is shown as soon as it is measured.', 404);
  const made = await openedFiles(await renderAs(plan, await copies.forPlan(plan), weight.files));
  await db.transaction((tx) => keepEncodings(tx, hash, made));
  return made.map(({ data }) => data);
}
