import { resolveFinish } from '@inkwell/core/finishing';
import { largestWindow, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import {
  type FrameSettings,
  type ImageFormat,
  type OpenProject,
  type Original,
  type Place,
  plainSettings,
} from '@inkwell/core/model';
import { asComposed } from '@inkwell/core/proposing';
import { firstGrid, notTaken } from '@inkwell/core/splitting';
import { changeFor, notUploaded } from '@inkwell/core/surviving';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { analysesOf } from '../../store/library/analyses.ts';
import type { NewFrame } from '../../store/projects/frames.ts';
import { UserError } from '../../userError.ts';
import { choicesByPlace } from '../surviving/learnedUploads.ts';
import { placeSays } from '../surviving/network.ts';

/** Makes the frame that a picture gets at a place: composed, unless its settings are given. @throws UserError where the place takes none */
export type NewFrameOf = (original: Original, placeId: string, settings: Partial<FrameSettings>) => NewFrame;

/** How frames of a project begin. @param tx a transaction, to see what it has changed; null for none @param originals those that are given places */
export async function newFrames(
  services: Pick<Services, 'db' | 'planner'>,
  tx: Queryable | null,
  project: OpenProject,
  originals: readonly Original[],
): Promise<NewFrameOf> {
  const analysisOf = await analysesOf(tx ?? services.db, originals);
  const planning = await (tx ? services.planner.open(tx) : services.planner.open());
  const book = planning.bookFor(project);
  const learned = await choicesByPlace(services);
  return (original, placeId, settings) => {
    const at = placeSays(book, placeId);
    if (!at) throw new UserError(`There is no place ${placeId} in the spec book.`);
    const { place } = at;
    const plain: NewFrame = {
      projectId: project.id,
      originalId: original.id,
      placeId,
      ...plainSettings,
      window: largestWindow(wholeOf(original), placeDimensions(place, original)),
      grid: firstGrid(place, original, asComposed(original, analysisOf(original), project.composing).marks),
      format: usualFormat(place),
      weighing: { ...plainSettings.weighing, aim: project.usualAim },
    };
    const choice = learned.get(placeId);
    const { blend } = resolveFinish({ frame: plain, original, project }, planning.finishes).treatment;
    const frame = { ...plain, ...(choice ? changeFor(choice, plain, blend) : {}), ...settings };
    const problem = notTaken(place, original, frame) ?? notUploaded(at, original, frame);
    if (problem) throw new UserError(problem);
    return frame;
  };
}

/** What a place recommends, or else what every network takes. */
function usualFormat({ formats, wishes }: Place): ImageFormat {
  const wished = wishes?.formats?.find((format) => formats.includes(format));
  return wished ?? (formats.includes('jpeg') ? 'jpeg' : (formats[0] ?? 'png'));
}
