import pLimit from 'p-limit';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { lockSaves } from '../../store/lockSaves.ts';
import type { FramedPicture } from '../../store/projects/frames.ts';
import { addMeasuring } from '../../store/work.ts';
import { UserError } from '../../userError.ts';
import { queueMeasuring } from './measuredFrames.ts';

/** Of so many frames it is found out at once what there is to measure. Of more a worker does: nobody waits for that. */
const mostAtOnce = 300;

/**
 * Saves of one server run one after the other. Side by side they would not be done sooner, for they share its thread; but each
 * holds a connection from its beginning to its end, and whoever only reads would wait behind all of them.
 */
const limit = pLimit(1);

/**
 * Runs what decides and saves after every other that does, whichever server it comes to: what it reads in its transaction stays as
 * it is until that ends.
 */
export const saving = <Result>(
  { db }: Pick<Services, 'db'>,
  task: (tx: Queryable) => Promise<Result>,
): Promise<Result> =>
  limit(() =>
    db.transaction(async (tx) => {
      await lockSaves(tx);
      return task(tx);
    }),
  );

/**
 * Saves something, and asks in the same transaction for all that has to be measured anew because of it. What a frame is measured
 * as follows from itself, its original, its project and the library: were two of them changed side by side, neither would see
 * the other, and nobody would ask for what both come to.
 *
 * @param save gives what was saved; it throws where nothing may be
 * @param affected the frames that what was saved holds for, as they are then
 */
export const saveAndMeasure = <Saved>(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  save: (tx: Queryable) => Promise<Saved>,
  affected: (tx: Queryable, saved: Saved) => Promise<FramedPicture[]>,
): Promise<Saved> =>
  saving({ db }, async (tx) => {
    const saved = await save(tx);
    const frames = await affected(tx, saved);
    if (frames.length <= mostAtOnce) await queueMeasuring(tx, await planner.open(tx), frames);
    else await addMeasuring(tx, [...new Set(frames.map(({ frame }) => frame.projectId))]);
    return saved;
  });

/** Makes sure that a change was made on what is there now. @throws UserError with that where it was changed elsewhere */
export function checkVersion(current: { version: number }, version: number, words: string): void {
  if (current.version !== version) throw new UserError(words, 409, { current });
}
