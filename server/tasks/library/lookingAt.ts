import { analyserVersion, type Original, type Seen } from '@inkwell/core/model';
import { analyse } from '../../imaging/analysing/analyse.ts';
import type { WorkingCopies } from '../../imaging/copies/workingCopy.ts';
import type { Queryable } from '../../store/database.ts';
import { analysesOf, keepAnalysis, notLookedAt } from '../../store/library/analyses.ts';
import { lockSaves } from '../../store/lockSaves.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import type { LookedAt } from '../../store/schema.ts';
import { addWork, failures, type NewWork, priorities } from '../../store/work.ts';
import { queueMeasuring } from '../plans/measuredFrames.ts';
import type { Keep } from '../plans/measurePlan.ts';
import type { Planner } from '../plans/planner.ts';

/** What is said of originals where nobody looks at them. */
export const switchedOff = 'Looking at pictures is switched off (INKWELL_LOOK). Mark by hand what matters.';

const keyOf = ({ sha256, page }: Pick<LookedAt, 'sha256' | 'page'>) => `analyse ${analyserVersion} ${sha256} ${page}`;

/** The work of looking at an original. */
function lookWork({ sha256, page, width, height, hasAlpha }: LookedAt): NewWork {
  const picture = { sha256, page, width, height, hasAlpha };
  return { key: keyOf(picture), task: { kind: 'analyse', picture }, priority: priorities.analysing };
}

/** Asks to look at originals, as far as nobody has yet. @param again tries again what could not be looked at */
export async function queueLooking(db: Queryable, originals: readonly LookedAt[], again = false): Promise<void> {
  const analysisOf = await analysesOf(db, originals);
  const unseen = originals.filter((one) => (analysisOf(one)?.version ?? 0) < analyserVersion);
  await addWork(db, unseen.map(lookWork), again);
}

/** Asks to look at all originals that this version of the program has not looked at. */
export const queueUnseen = async (db: Queryable): Promise<void> => queueLooking(db, await notLookedAt(db));

/** Looks at an original; its frames are composed from what is seen, and measured anew where that changes them. */
export async function lookAt(
  { copies, planner }: { copies: WorkingCopies; planner: Planner },
  picture: LookedAt,
): Promise<Keep> {
  const analysis = await analyse(picture, copies);
  return async (tx) => {
    await lockSaves(tx);
    await keepAnalysis(tx, picture, analysis);
    await queueMeasuring(tx, await planner.open(tx), await framesAffected(tx, { picture }));
  };
}

/** How far the program is with looking at originals, in their order. */
export async function seenIn(
  { db, isLooking }: { db: Queryable; isLooking: boolean },
  originals: readonly Original[],
): Promise<Seen[]> {
  const analysisOf = await analysesOf(db, originals);
  const waiting = originals.filter((one) => (analysisOf(one)?.version ?? 0) < analyserVersion);
  const failed = await failures(db, waiting.map(keyOf));
  return originals.map((one) => ({
    originalId: one.id,
    analysis: analysisOf(one),
    failure: failed.get(keyOf(one)) ?? (isLooking || analysisOf(one) ? null : switchedOff),
  }));
}
