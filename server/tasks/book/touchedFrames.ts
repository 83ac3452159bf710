import { isAboutFiles, type PlaceDifference, sheetDifferences } from '@inkwell/core/bookkeeping';
import { carriedWindow, contentAreaOf, frameWindow, settledPlace } from '@inkwell/core/framing';
import { boundsOf, frameDimensions } from '@inkwell/core/geometry';
import {
  type FrameChange,
  FrameSettingsSchema,
  type Place,
  type Reshaped,
  type SheetContent,
  saidOf,
} from '@inkwell/core/model';
import { letteringFor, roomAsked } from '@inkwell/core/planning';
import { asComposed } from '@inkwell/core/proposing';
import { notTaken } from '@inkwell/core/splitting';
import type { FramedPicture } from '../../store/projects/frames.ts';
import type { Planning } from '../plans/planner.ts';

/** A frame at a place that is changed, with the place as it was and as it is to be. */
export interface Touched {
  framed: FramedPicture;
  before: Place;
  after: Place;
  difference: PlaceDifference;
}

/** The frames at places of a sheet whose files are made by something else now, and how many stay on a version of it. */
export function touchedFrames(
  slug: string,
  before: SheetContent,
  after: SheetContent,
  frames: readonly FramedPicture[],
): { touched: Touched[]; staying: number } {
  const changed = new Map(
    sheetDifferences(before, after)
      .places.filter(({ kind, fields }) => kind === 'changed' && fields.some(({ field }) => isAboutFiles(field)))
      .map((difference) => [`${slug}/${difference.slug}`, difference]),
  );
  let staying = 0;
  const touched = frames.flatMap((framed): Touched[] => {
    const difference = changed.get(framed.frame.placeId);
    if (!difference?.before || !difference.after) return [];
    if (framed.project.pins[slug] !== undefined) {
      staying += 1;
      return [];
    }
    const { original, project, seen, frame } = framed;
    const composed = asComposed(original, seen, project.composing);
    const [then, now] = [difference.before, difference.after].map((place) => settledPlace(place, composed, frame));
    return then && now ? [{ framed, before: then, after: now, difference }] : [];
  });
  return { touched, staying };
}

/** By what a frame is known. */
export const whichOf = ({ framed: { frame } }: Touched) => ({
  frameId: frame.id,
  projectId: frame.projectId,
  originalId: frame.originalId,
  placeId: frame.placeId,
});

/** Whether a frame gets other dimensions. */
export const isReshaped = ({ framed: { frame, original }, before, after }: Touched): boolean => {
  const [then, now] = [before, after].map((place) => frameDimensions(place, original, frame));
  return then?.width !== now?.width || then?.height !== now?.height;
};

/** What the window of a frame fills, without and with a change of its place. */
function areasOf({ framed, before, after }: Touched, planning: Planning) {
  const { frame, original } = framed;
  const { border } = planning.finishOf(framed).treatment;
  const settings = { ...frame, border };
  const area = (place: Place) => contentAreaOf(place, original, settings).dimensions;
  return { settings, before: area(before), after: area(after), bounds: boundsOf(original, frame.backing) };
}

/** What a frame shows, and what it would show. */
export function pairOf(touched: Touched, planning: Planning): Reshaped {
  const { framed, before, after } = touched;
  const { frame, original, project, seen } = framed;
  const areas = areasOf(touched, planning);
  const composed = asComposed(original, seen, project.composing);
  const named = letteringFor(project, null, frame, null);
  const shown = (place: Place) => frameWindow(composed, place, areas.settings, roomAsked(named, place, frame));
  const then = shown(before);
  const now = frame.composed ? shown(after) : carriedWindow(then, areas.before, areas.after, areas.bounds);
  return {
    ...whichOf(touched),
    before: { dimensions: frameDimensions(before, original, frame), window: then },
    after: { dimensions: frameDimensions(after, original, frame), window: now },
    settings: FrameSettingsSchema.parse(frame),
    isByHand: !frame.composed,
  };
}

/**
 * What a frame is changed to as its place is: a window that a hand has set is carried over, and marked for a look. Null where
 * everything about it follows from its place by itself.
 */
export function carriedChange(touched: Touched, planning: Planning): FrameChange | null {
  const { framed, before, after } = touched;
  const { frame, original } = framed;
  const said = saidOf(after);
  const isTaken = notTaken(said, original, frame) === null;
  const isLoose =
    frame.dimensions !== null && !isTaken && notTaken(said, original, { ...frame, dimensions: null }) === null;
  const dimensions = isLoose ? { dimensions: null } : {};
  if (frame.composed || !isReshaped(touched)) return isLoose ? dimensions : null;
  const areas = areasOf(touched, planning);
  const window = carriedWindow(frame.window, areas.before, areas.after, areas.bounds);
  // Seen once more before that was looked at, it is still about what a hand has set.
  const carriedFrom = frame.carriedFrom ?? frameDimensions(before, original, frame);
  return { window, composed: false, carriedFrom, ...dimensions };
}
