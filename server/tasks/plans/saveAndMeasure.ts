import pLimit from 'p-limit';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { lockSaves } from '../../store/lockSaves.ts';
import type { FramedPicture } from '../../store/projects/frames.ts';
import { queueMeasuring } from './measuredFrames.ts';

/**
 * Saves of one server run one after the other. Side by side they would not be done sooner, for they share its thread; but each
 * holds a connection from its beginning to its end, and whoever only reads would wait behind all of them.
 */
const limit = pLimit(1);

/**
 * Saves something, and asks in the same transaction for all that has to be measured anew because of it. What a frame is measured
 * as follows from itself, its original, its project and the library: were two of them changed side by side, neither would see
 * the other, and nobody would ask for what both come to. So one is saved after the other, whichever server it comes to.
 *
 * @param save gives what was saved; null where nothing was, because it was made on an older version. What it reads in the
 * transaction stays as it is until that ends
 * @param affected the frames that what was saved holds for, as they are then
 */
export function saveAndMeasure<Saved>(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  save: (tx: Queryable) => Promise<Saved | null>,
  affected: (tx: Queryable, saved: Saved) => Promise<FramedPicture[]>,
): Promise<Saved | null> {
  return limit(() =>
    db.transaction(async (tx) => {
      await lockSaves(tx);
      const saved = await save(tx);
      if (saved !== null) await queueMeasuring(tx, await planner.open(tx), await affected(tx, saved));
      return saved;
    }),
  );
}
