import type { Finish, FinishSettings } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { findFinish, finishNamed, saveFinish, setFinishDeleted } from '../../store/library/finishes.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';

/**
 * Saves a change of a finish that was made on a version of it, and asks for what has to be measured anew of its frames.
 *
 * @throws UserError with the finish as it is now where it was changed elsewhere
 */
export async function changeFinish(
  services: Pick<Services, 'db' | 'planner'>,
  id: string,
  version: number,
  change: Partial<FinishSettings>,
): Promise<Finish> {
  const { db } = services;
  const finish = orNotFound(await findFinish(db, id), 'This finish');
  const saved = await saveAndMeasure(
    services,
    (tx) => saveFinish(tx, finish.id, version, change),
    (tx) => framesAffected(tx, { finishId: finish.id }),
  );
  if (saved) return saved;
  const current = orNotFound(await findFinish(db, finish.id), 'This finish');
  throw new UserError('This finish was changed in another window.', 409, { current });
}

/** Puts a finish aside, from where it can be taken back. @throws UserError where it is in use */
export async function putFinishAside({ db }: Pick<Services, 'db'>, id: string): Promise<void> {
  const finish = orNotFound(await findFinish(db, id), 'This finish');
  if ((await finishNamed(db, finish.id)) > 0) {
    throw new UserError(`${finish.name} is in use. Choose another finish wherever it is used, then remove it.`, 409);
  }
  await setFinishDeleted(db, finish.id, true);
}
