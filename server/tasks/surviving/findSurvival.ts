import { encodeFiles } from '../../imaging/encoding/render.ts';
import { keepSurvival, knownSurvival } from '../../store/measured/survivals.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { findFrame } from '../../store/projects/frames.ts';
import { orNotFound } from '../../userError.ts';
import type { Keep, Measures } from '../plans/measurePlan.ts';
import type { Planner } from '../plans/planner.ts';
import { changed } from '../plans/waysToEncode.ts';
import { placeSays, survivalHash } from './network.ts';
import { survivalOf } from './survivalOf.ts';

/** Keeps nothing: nobody asks for it any more. */
const nothing: Keep = async () => undefined;

/**
 * Finds out how a frame is uploaded so that the most of it is seen, unless it is set otherwise by now.
 *
 * @param hash of all that this depends on, as it was asked for
 * @throws UserError where the sheet does not say what the network does
 */
export async function findSurvival(
  { db, planner, recent }: Measures & { planner: Planner },
  { frameId, hash }: { frameId: string; hash: string },
): Promise<Keep> {
  const planning = await planner.open();
  const framed = await findFrame(db, frameId);
  const at = framed && placeSays(planning.bookFor(framed.project), framed.frame.placeId);
  const measuring = framed && planning.measuringOf(framed);
  if (!framed || !at || !measuring || survivalHash(measuring.planned.planHash, at) !== hash) return nothing;
  if (await knownSurvival(db, hash)) return nothing;
  const own = measuring.plan;
  const weight =
    (await knownWeights(db, [measuring.planned.planHash])).get(measuring.planned.planHash) ??
    (await encodeFiles(own, await recent.get(own))).weight;
  const survival = await survivalOf(recent, {
    settings: framed.frame,
    original: framed.original,
    treatment: planning.finishOf(framed).treatment,
    at,
    weight,
    planWith: (change) => orNotFound(planning.planOf(changed(framed, change)), 'The place of this frame'),
  });
  return (tx) => keepSurvival(tx, hash, survival);
}
