import type { FrameChange, FrameSettings, Original, Survival, Treatment, Weight } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { changeFor, choiceOf, searchSurvival, uploadWidths } from '@inkwell/core/surviving';
import type { RecentPixels } from '../../imaging/copies/recentPixels.ts';
import { UserError } from '../../userError.ts';
import { attempt, referencesOf } from './attempt.ts';
import type { PlaceSays } from './network.ts';

/** Times a finish's own blend: weaker and stronger. */
const strengths = [1, 0.5, 1.5];

/** A frame whose upload is looked for. */
export interface ToSurvive {
  settings: FrameSettings;
  original: Original;
  treatment: Treatment;
  at: PlaceSays;
  /** As it is set, measured. */
  weight: Weight;
  /** The plan of the frame with some of its settings changed. */
  planWith(change: FrameChange): RenderPlan;
}

/**
 * Finds out how a frame is uploaded so that the most of it is seen. Its files are made in many ways, and each goes through what its
 * sheet says that its network does.
 *
 * @throws UserError where the sheet does not say that
 */
export async function survivalOf(recent: RecentPixels, subject: ToSurvive): Promise<Survival> {
  const { settings, original, treatment, at, weight, planWith } = subject;
  const { place, says, network } = at;
  const after = says.afterUpload;
  if (!after) throw new UserError(`The sheet of ${network.name} does not say what becomes of a file after its upload.`);
  const { blend, second } = treatment;
  const own = planWith({});
  const references = await referencesOf(recent, planWith({ uploadWidth: null }));
  const asSet = choiceOf(settings, weight);
  const room = {
    widths: uploadWidths(place, original, settings, says),
    formats: place.formats,
    strengths: own.finish && second.amount > 0 ? strengths.filter((strength) => strength * blend <= 1) : [1],
  };
  return searchSurvival(asSet, room, (choice) => {
    const plan = choice === asSet ? own : planWith(changeFor(choice, settings, blend));
    return attempt(recent, { choice, plan, place, after, references }, choice !== asSet);
  });
}
