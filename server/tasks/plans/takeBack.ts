import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import type { FramedPicture } from '../../store/projects/frames.ts';
import { orNotFound } from '../../userError.ts';
import { saveAndMeasure } from './saveAndMeasure.ts';

/**
 * Takes back something that was put aside. Nobody wanted its frames measured meanwhile: that is asked for again.
 *
 * @param what names it in an error
 * @param restore false where it is not there
 * @param affected its frames
 * @throws UserError where it is not there
 */
export async function takeBack(
  services: Pick<Services, 'db' | 'planner'>,
  what: string,
  restore: (tx: Queryable) => Promise<boolean>,
  affected: (tx: Queryable) => Promise<FramedPicture[]>,
): Promise<void> {
  orNotFound(await saveAndMeasure(services, async (tx) => (await restore(tx)) || null, affected), what);
}
