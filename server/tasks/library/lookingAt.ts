import { analyserVersion, type Original, type PictureSource, type Seen } from '@inkwell/core/model';
import type { Logger } from 'pino';
import { analyse, LookFailed } from '../../imaging/analysing/analyse.ts';
import type { WorkingCopies } from '../../imaging/copies/workingCopy.ts';
import { timed } from '../../running/counting.ts';
import type { Queryable } from '../../store/database.ts';
import { analysesOf, keepAnalysis, notLookedAt } from '../../store/library/analyses.ts';
import { lockSaves } from '../../store/lockSaves.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { addWork, failures, type NewWork, priorities } from '../../store/work.ts';
import { UserError } from '../../userError.ts';
import { queueMeasuring } from '../plans/measuredFrames.ts';
import type { Keep } from '../plans/measurePlan.ts';
import type { Planner } from '../plans/planner.ts';

/** What is said of originals where nobody looks at them. */
export const switchedOff = 'Looking at pictures is switched off (INKWELL_LOOK). Mark by hand what matters.';

const keyOf = ({ sha256, page }: Pick<PictureSource, 'sha256' | 'page'>) =>
  `analyse ${analyserVersion} ${sha256} ${page}`;

/** The work of looking at an original. */
function lookWork({ sha256, page, width, height, hasAlpha }: PictureSource): NewWork {
  const picture = { sha256, page, width, height, hasAlpha };
  return { key: keyOf(picture), task: { kind: 'analyse', picture }, priority: priorities.analysing };
}

/** Asks to look at originals, as far as nobody has yet. @param again tries again what could not be looked at */
export async function queueLooking(db: Queryable, originals: readonly PictureSource[], again = false): Promise<void> {
  const analysisOf = await analysesOf(db, originals);
  const unseen = originals.filter((one) => (analysisOf(one)?.version ?? 0) < analyserVersion);
  await addWork(db, unseen.map(lookWork), again);
}

/** Asks to look at all originals that this version of the program has not looked at. */
export const queueUnseen = async (db: Queryable): Promise<void> => queueLooking(db, await notLookedAt(db));

/**
 * Looks at an original; its frames are composed from what is seen, and measured anew where that changes them.
 *
 * @throws UserError where that fails; the log has the cause
 */
export async function lookAt(
  { copies, planner, log }: { copies: WorkingCopies; planner: Planner; log: Logger },
  picture: PictureSource,
): Promise<Keep> {
  const analysis = await timed('look', () => analyse(picture, copies)).catch((error: unknown) => {
    if (!(error instanceof LookFailed)) throw error;
    log.error({ error: error.cause, sha256: picture.sha256 }, 'a picture could not be looked at');
    throw new UserError(`${error.message} Mark by hand what matters, or try again.`);
  });
  return async (tx) => {
    await lockSaves(tx);
    await keepAnalysis(tx, picture, analysis);
    await queueMeasuring(tx, await planner.open(tx), await framesAffected(tx, { picture }));
  };
}

/** How far the program is with looking at originals, in their order. */
export async function seenOf(
  { db, isLooking }: { db: Queryable; isLooking: boolean },
  originals: readonly Original[],
): Promise<Seen[]> {
  const analysisOf = await analysesOf(db, originals);
  const waiting = originals.filter((one) => (analysisOf(one)?.version ?? 0) < analyserVersion);
  const failed = await failures(db, waiting.map(keyOf));
  return originals.map((one) => ({
    originalId: one.id,
    analysis: analysisOf(one),
    failure: isLooking || analysisOf(one) ? (failed.get(keyOf(one)) ?? null) : switchedOff,
    mayTryAgain: isLooking,
  }));
}
