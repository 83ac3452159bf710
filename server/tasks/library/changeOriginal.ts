import type { Original, OriginalSettings } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { addPage, findOriginal, saveOriginalSettings, setOriginalDeleted } from '../../store/library/originals.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { queueLooking } from './lookingAt.ts';

const what = 'This original';

/** Why marks or a trim cannot lie where they are asked for, in words, or null. */
export function regionProblem(
  { width, height }: Original,
  { marks = [], trim = null }: Partial<OriginalSettings>,
): string | null {
  const isOutside = (one: { left: number; top: number; width: number; height: number }) =>
    one.left < 0 || one.top < 0 || one.left + one.width > width + 0.01 || one.top + one.height > height + 0.01;
  const stray = marks.find(isOutside);
  if (stray) return `${stray.name} reaches past the picture, which is ${width} × ${height} px. Draw it inside.`;
  if (trim && isOutside(trim)) return `The trim reaches past the picture, which is ${width} × ${height} px.`;
  return null;
}

/**
 * Saves what is set on an original, changed on a version of it, and asks for what has to be measured anew of its frames.
 *
 * @throws UserError where a region reaches past the picture, or with the original as it is now where it was changed elsewhere
 */
export function changeOriginal(
  services: Pick<Services, 'db' | 'planner'>,
  id: string,
  version: number,
  change: Partial<OriginalSettings>,
): Promise<Original> {
  return saveAndMeasure(
    services,
    async (tx) => {
      const original = orNotFound(await findOriginal(tx, id), what);
      checkVersion(original, version, 'The marks or words of this picture were changed in another window.');
      const problem = regionProblem(original, change);
      if (problem) throw new UserError(problem);
      return orNotFound(await saveOriginalSettings(tx, id, version, change), what);
    },
    (tx) => framesAffected(tx, { originalId: id }),
  );
}

/** Takes an original back that was put aside. Nobody wanted its frames measured meanwhile: that is asked for again. */
export async function takeOriginalBack(services: Pick<Services, 'db' | 'planner'>, id: string): Promise<void> {
  await saveAndMeasure(
    services,
    async (tx) => orNotFound(await setOriginalDeleted(tx, id, false), what),
    (tx) => framesAffected(tx, { originalId: id }),
  );
}

/** The number of a page of an original, from 0. @throws UserError where it has no such page */
export function pageOf({ pages }: Original, page: number): number {
  if (page < pages) return page;
  throw new UserError(`This file has ${pages} pages or frames; there is none with number ${page + 1}.`, 404);
}

/** Takes other pages of a file that came in: each becomes an original of its own over the same bytes. */
export async function takePages(
  { db, pages, isLooking }: Pick<Services, 'db' | 'pages' | 'isLooking'>,
  original: Original,
  asked: readonly number[],
  signal: AbortSignal,
): Promise<Original[]> {
  const added: Original[] = [];
  for (const page of asked) {
    const { width, height, hasAlpha } = await pages.open(original, pageOf(original, page), signal);
    added.push(await addPage(db, original, { page, width, height, hasAlpha }));
  }
  if (isLooking) await queueLooking(db, added);
  return added;
}
