import type { Survival, UploadChoice } from '@inkwell/core/model';
import { changeFor, choiceOf, searchSurvival, uploadWidths } from '@inkwell/core/surviving';
import { encodeFiles } from '../../imaging/encoding/render.ts';
import { keepSurvival, knownSurvival } from '../../store/measured/survivals.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { type FramedPicture, findFrame } from '../../store/projects/frames.ts';
import { UserError } from '../../userError.ts';
import type { Keep, Measures } from '../plans/measurePlan.ts';
import type { Planner, Planning } from '../plans/planner.ts';
import { changed } from '../plans/waysToEncode.ts';
import { attempt, referencesOf } from './attempt.ts';
import { afterUploadOf, type PlaceSays, placeSays, survivalHash } from './network.ts';

/** Times a finish's own blend: weaker and stronger. */
const strengths = [1, 0.5, 0.75, 1.25, 1.5];

/** Keeps nothing: nobody asks for it any more. */
const nothing: Keep = async () => undefined;

/**
 * Finds out how a frame is uploaded so that the most of it is seen, unless it is set otherwise by now. Its files are made in many ways,
 * and each goes through what its sheet says that its network does.
 *
 * @param hash of all that this depends on, as it was asked for
 * @throws UserError where the sheet does not say what the network does
 */
export async function findSurvival(
  measures: Measures & { planner: Planner },
  { frameId, hash }: { frameId: string; hash: string },
): Promise<Keep> {
  const { db, planner } = measures;
  const planning = await planner.open();
  const framed = await findFrame(db, frameId);
  const at = framed && placeSays(planning, framed.frame.placeId);
  const measuring = framed && planning.measuringOf(framed);
  if (!framed || !at || !measuring || survivalHash(measuring.planned.planHash, at) !== hash) return nothing;
  if (await knownSurvival(db, hash)) return nothing;
  const survival = await survivalOf(measures, planning, framed, at);
  return (tx) => keepSurvival(tx, hash, survival);
}

/** The same for a frame as it is given. */
export async function survivalOf(
  { db, recent }: Pick<Measures, 'db' | 'recent'>,
  planning: Planning,
  framed: FramedPicture,
  at: PlaceSays,
): Promise<Survival> {
  const after = afterUploadOf(at);
  if (!after) throw new UserError(`Its sheet does not say what ${at.network.name} does with a file after an upload.`);
  const { frame, original } = framed;
  const { place } = at;
  const own = planned(planning, framed);
  const hash = planning.measuringOf(framed)?.planned.planHash ?? '';
  const weight = (await knownWeights(db, [hash])).get(hash) ?? (await encodeFiles(own, await recent.get(own))).weight;
  const references = await referencesOf(recent, planned(planning, changed(framed, { uploadWidth: null })));
  const asSet = choiceOf(frame, weight);
  const { blend, second } = planning.finishOf(framed).treatment;
  const room = {
    widths: uploadWidths(place, original, frame, at.says),
    formats: place.formats,
    strengths: own.finish && second.amount > 0 ? strengths.filter((strength) => strength * blend <= 1) : [1],
  };
  return searchSurvival(asSet, room, (choice: UploadChoice) => {
    const plan = choice === asSet ? own : planned(planning, changed(framed, changeFor(choice, frame, blend)));
    return attempt(recent, { choice, plan, place, after, references }, choice !== asSet);
  });
}

function planned({ planOf }: Planning, framed: FramedPicture) {
  const plan = planOf(framed);
  if (!plan) throw new UserError('The place of this frame is no longer in the spec book.');
  return plan;
}
