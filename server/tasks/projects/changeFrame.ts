import { contentAreaOf, settledPlace } from '@inkwell/core/framing';
import { boundsOf, clampWindow } from '@inkwell/core/geometry';
import type { Border, FrameChange, Place, SavedFrame } from '@inkwell/core/model';
import { asComposed } from '@inkwell/core/proposing';
import { notTaken } from '@inkwell/core/splitting';
import { notUploaded } from '@inkwell/core/surviving';
import type { Services } from '../../services.ts';
import { type FramedPicture, findFrame, saveFrame } from '../../store/projects/frames.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { placeSays } from '../surviving/network.ts';

/** Whether a change is about what a place has a say in: other changes are taken whatever its numbers have become. */
const affectsGrid = ({ grid, closing, dimensions }: FrameChange) =>
  grid !== undefined || closing !== undefined || dimensions !== undefined;

/** The change as it is kept: a window that is set lies where it may, and was moved by hand unless the change says otherwise. */
function settledChange(
  { frame, original, project, seen }: FramedPicture,
  change: FrameChange,
  place: Place,
  border: Border | null,
): FrameChange {
  if (!change.window) return change;
  const { composed = false } = change;
  const settings = { ...frame, ...change, composed, border };
  const at = settledPlace(place, asComposed(original, seen, project.composing), settings);
  const bounds = boundsOf(original, settings.backing);
  const window = clampWindow(change.window, bounds, contentAreaOf(at, original, settings).dimensions);
  // A window that a hand has set is about the dimensions that it was set at: no mark changes them any more.
  const isHeld = !composed && settings.dimensions === null && place.otherDimensions !== undefined;
  const held = isHeld ? { dimensions: { width: at.width, height: at.height as number } } : {};
  return { ...held, carriedFrom: null, ...change, composed, window };
}

/**
 * Saves a change of a frame that was made on a version of it, and asks for what has to be measured anew.
 *
 * @throws UserError where the place does not take it, or with the frame as it is now where it was changed elsewhere
 */
export async function changeFrame(
  services: Pick<Services, 'db' | 'planner'>,
  id: string,
  version: number,
  change: FrameChange,
): Promise<SavedFrame> {
  const { planner } = services;
  const saved = await saveAndMeasure(
    services,
    async (tx): Promise<FramedPicture> => {
      const framed = orNotFound(await findFrame(tx, id), 'This frame');
      const { frame } = framed;
      const planning = await planner.open(tx);
      const { finishOf, measuringOf } = planning;
      const at = orNotFound(placeSays(planning.bookFor(framed.project), frame.placeId), 'The place of this frame');
      const { place } = at;
      const current: SavedFrame = { ...frame, planned: measuringOf(framed)?.planned ?? null };
      checkVersion(current, version, 'This frame was changed in another window.');
      const settings = { ...frame, ...change };
      const problem =
        (affectsGrid(change) ? notTaken(place, framed.original, settings) : null) ??
        (change.uploadWidth ? notUploaded(at, framed.original, settings) : null);
      if (problem) throw new UserError(problem);
      const { border } = finishOf({ ...framed, frame: settings }).treatment;
      const row = await saveFrame(tx, frame.id, version, settledChange(framed, change, place, border));
      return { ...framed, frame: orNotFound(row, 'This frame') };
    },
    async (_, framed) => [framed],
  );
  const { measuringOf } = await planner.open();
  return { ...saved.frame, planned: measuringOf(saved)?.planned ?? null };
}
