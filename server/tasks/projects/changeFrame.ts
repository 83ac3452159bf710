import { isDeepStrictEqual } from 'node:util';
import { contentAreaOf, settledPlace } from '@inkwell/core/framing';
import { boundsOf, clampWindow } from '@inkwell/core/geometry';
import type { Border, ChangedFrame, Frame, FrameChange, Place, SavedFrame } from '@inkwell/core/model';
import { asComposed } from '@inkwell/core/proposing';
import { notTaken } from '@inkwell/core/splitting';
import { notUploaded } from '@inkwell/core/surviving';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { type FramedPicture, findFrame, framesOfProject, saveFrames } from '../../store/projects/frames.ts';
import { orNotFound, UserError } from '../../userError.ts';
import type { Planning } from '../plans/planner.ts';
import { checkVersion, saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { placeSays } from '../surviving/network.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

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

/** A change of a frame as it is kept. @throws UserError where the place does not take it */
function takenChange({ finishOf, bookFor }: Planning, framed: FramedPicture, change: FrameChange): FrameChange {
  const { frame, original, project } = framed;
  const at = orNotFound(placeSays(bookFor(project), frame.placeId), 'The place of this frame');
  const settings = { ...frame, ...change };
  const problem =
    (affectsGrid(change) ? notTaken(at.place, original, settings) : null) ??
    (change.uploadWidth ? notUploaded(at, original, settings) : null);
  if (problem) throw new UserError(problem);
  const { border } = finishOf({ ...framed, frame: settings }).treatment;
  return settledChange(framed, change, at.place, border);
}

const plannedOf = (framed: FramedPicture, { measuringOf }: Planning): SavedFrame => ({
  ...framed.frame,
  planned: measuringOf(framed)?.planned ?? null,
});

/**
 * Saves a change of a frame that was made on a version of it, and asks for what has to be measured anew.
 *
 * @throws UserError where the place does not take it, or with the frame as it is now where it was changed elsewhere
 */
export async function changeFrame(
  services: Stores,
  id: string,
  version: number,
  change: FrameChange,
): Promise<SavedFrame> {
  const { planner } = services;
  const saved = await saveAndMeasure(
    services,
    async (tx): Promise<FramedPicture> => {
      const framed = orNotFound(await findFrame(tx, id), 'This frame');
      const planning = await planner.open(tx);
      checkVersion(plannedOf(framed, planning), version, 'This frame was changed in another window.');
      const [frame = null] = await saveFrames(tx, [id], takenChange(planning, framed, change));
      return { ...framed, frame: orNotFound(frame, 'This frame') };
    },
    async (_, framed) => [framed],
  );
  return plannedOf(saved, await planner.open());
}

/** A change of one of many frames, made on a version of it. */
export interface AskedChange {
  id: string;
  version: number;
  change: FrameChange;
}

/** Saves changes of many frames of a project at once: each by itself, so that one that cannot be saved holds up none. */
export function changeFramesOf(
  services: Stores,
  projectId: string,
  asked: readonly AskedChange[],
): Promise<ChangedFrame[]> {
  const ids = asked.map(({ id }) => id);
  return saveAndMeasure(
    services,
    async (tx) => {
      const planning = await services.planner.open(tx);
      const framedById = new Map((await framesOfProject(tx, projectId, ids)).map((one) => [one.frame.id, one]));
      const alike = new Map<string, Alike>();
      const outcomes = asked.map(({ id, version, change }): ChangedFrame | null => {
        const framed = framedById.get(id);
        if (!framed) return { id, is: 'gone' };
        if (framed.frame.version !== version) return { id, is: 'elsewhere', frame: framed.frame };
        try {
          const taken = otherThan(framed.frame, takenChange(planning, framed, change));
          const key = JSON.stringify(taken);
          const group = alike.get(key) ?? { change: taken, ids: [] };
          alike.set(key, group);
          group.ids.push(id);
          return null;
        } catch (error) {
          if (error instanceof UserError) return { id, is: 'refused', reason: error.message };
          throw error;
        }
      });
      const saved = await saveAlike(tx, [...alike.values()]);
      return asked.map(({ id }, index): ChangedFrame => {
        const frame = saved.get(id);
        return outcomes[index] ?? (frame ? { id, is: 'saved', frame } : { id, is: 'gone' });
      });
    },
    (tx, outcomes) =>
      framesOfProject(
        tx,
        projectId,
        outcomes.flatMap((one) => (one.is === 'saved' ? one.id : [])),
      ),
  );
}

/** What a change sets otherwise: whoever sends all settings of frames changes them alike all the same. */
const otherThan = (frame: Frame, change: FrameChange): FrameChange => {
  const before = new Map<string, unknown>(Object.entries(frame));
  return Object.fromEntries(
    Object.entries(change).filter(([name, value]) => !isDeepStrictEqual(before.get(name), value)),
  );
};

/** Frames that are changed alike. */
interface Alike {
  change: FrameChange;
  ids: string[];
}

/** Saves changes of many frames, those that are alike in one statement. @returns the frames as they are then, by id */
async function saveAlike(tx: Queryable, changes: readonly Alike[]): Promise<Map<string, Frame>> {
  const saved = new Map<string, Frame>();
  for (const { change, ids } of changes) {
    for (const frame of await saveFrames(tx, ids, change)) saved.set(frame.id, frame);
  }
  return saved;
}
