import type { Finish, FinishSettings } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { findFinish, finishNamed, saveFinish, setFinishDeleted } from '../../store/library/finishes.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure, saving } from '../plans/saveAndMeasure.ts';

const what = 'This finish';

/**
 * Saves a change of a finish that was made on a version of it, and asks for what has to be measured anew of its frames.
 *
 * @throws UserError with the finish as it is now where it was changed elsewhere
 */
export function changeFinish(
  services: Pick<Services, 'db' | 'planner'>,
  id: string,
  version: number,
  change: Partial<FinishSettings>,
): Promise<Finish> {
  return saveAndMeasure(
    services,
    async (tx) => {
      checkVersion(orNotFound(await findFinish(tx, id), what), version, 'This finish was changed in another window.');
      return orNotFound(await saveFinish(tx, id, version, change), what);
    },
    (tx) => framesAffected(tx, { finishId: id }),
  );
}

/** Puts a finish aside, from where it can be taken back. @throws UserError where it is in use */
export async function putFinishAside(services: Pick<Services, 'db'>, id: string): Promise<void> {
  await saving(services, async (tx) => {
    const { name } = orNotFound(await findFinish(tx, id), what);
    if ((await finishNamed(tx, id)) > 0) {
      throw new UserError(`${name} is in use. Choose another finish wherever it is used, then remove it.`, 409);
    }
    await setFinishDeleted(tx, id, true);
  });
}
