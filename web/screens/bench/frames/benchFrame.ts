import { contentAreaOf, frameWindow, type SettlingFrom, settledPlaceOf } from '@inkwell/core/framing';
import { boundsOf, largestWindow } from '@inkwell/core/geometry';
import {
  type Analysis,
  basisOf,
  type Dimensions,
  type Frame,
  type FrameChange,
  type FrameSettings,
  type Measured,
  type Original,
  type PlaceOfNetwork,
  type Window,
} from '@inkwell/core/model';
import { letteringFor, roomAsked } from '@inkwell/core/planning';
import { useMemo } from 'react';
import type { BenchState } from '../state/benchState.ts';
import { useBench, useLiveWords, useSettings } from '../state/useBench.ts';
import { composedFrom } from './composed.ts';
import { type Finishing, finishFor, withWords } from './finishing.ts';
import { type FrameFacts, frameFacts } from './frameFacts.ts';

/** A frame with all that the bench has to know about where it goes. */
export interface BenchFrame {
  frame: Frame;
  /** With the trim that is set now, and the marks that frames are composed from: those that are set, and what was seen. */
  original: Original;
  /** What was seen in the original; null where it has not been looked at. */
  seen: Analysis | null;
  at: PlaceOfNetwork;
  finishing: Finishing;
}

export function benchFrames(
  frames: readonly Frame[],
  original: Original,
  places: Map<string, PlaceOfNetwork>,
  finishing: Finishing,
  seen: Analysis | null,
  settingsOf: (frame: Frame) => SettlingFrom,
): BenchFrame[] {
  const order = [...places.keys()];
  const composed = composedFrom(original, seen, finishing.project.composing);
  return frames
    .flatMap((frame) => {
      const at = places.get(frame.placeId);
      if (!at || frame.originalId !== original.id) return [];
      const settled = settledPlaceOf(at, composed, settingsOf(frame));
      return [{ frame, original: composed, seen, at: settled, finishing }];
    })
    .sort((a, b) => order.indexOf(a.at.id) - order.indexOf(b.at.id));
}

/** What the window of a frame fills, for the geometry of windows. */
export const contentAreaFor = (one: BenchFrame, settings: FrameSettings): Dimensions =>
  contentAreaOf(one.at.place, one.original, { ...settings, border: finishFor(one, settings).treatment.border })
    .dimensions;

/** The window of a frame: composed, or as it was set by hand. */
export const windowFor = (one: BenchFrame, settings: FrameSettings): Window =>
  frameWindow(
    one.original,
    one.at.place,
    { ...settings, border: finishFor(one, settings).treatment.border },
    roomAsked(
      letteringFor(one.finishing.project, null, { originalId: one.original.id, placeId: one.at.id }, null),
      one.at.place,
      settings,
    ),
  );

/** What sets a frame back to the largest upright window in the middle of its picture. */
export function resetChange(one: BenchFrame, settings: FrameSettings): FrameChange {
  const contentArea = contentAreaFor(one, { ...settings, stretch: 1 });
  return {
    window: largestWindow(boundsOf(one.original, null), contentArea),
    composed: false,
    backing: null,
    stretch: 1,
  };
}

/** What a picture of a frame is drawn from, whatever its width. */
export const pictureOf = (
  { frame, original, at }: BenchFrame,
  { output, window, settings, finish, savedHash, weight, lettering }: FrameState,
) => ({
  frameId: frame.id,
  original,
  place: at.place,
  output,
  window,
  settings,
  border: finish.treatment.border,
  planHash: savedHash,
  isMade: weight !== null,
  lettering,
});

/**
 * What the server's plan of a frame is made from, where it has the frame, and all that it follows from, as they are set
 * here; else null.
 */
export function savedBasis(
  { settings: set, saved, phases, moving }: Pick<BenchState, 'settings' | 'saved' | 'phases' | 'moving'>,
  one: BenchFrame,
  settings: FrameSettings,
): string | null {
  const frame = saved.frames[one.frame.id];
  const original = saved.originals[one.original.id];
  const [project] = Object.values(saved.projects);
  const { finish } = finishFor(one, settings);
  if (!frame || !original || !project || settings !== set.frames[frame.id]) return null;
  const isSaved =
    moving?.kind !== 'lettering' &&
    phases.frames[frame.id]?.is === 'clean' &&
    phases.originals[original.id]?.is === 'clean' &&
    phases.projects[project.id]?.is === 'clean' &&
    // Those that ship are not edited.
    (phases.finishes[finish.id]?.is ?? 'clean') === 'clean';
  return isSaved ? basisOf({ frame, original, project, finish, place: one.at.place, seen: one.seen }) : null;
}

export interface FrameState extends Omit<FrameFacts, 'planHash'> {
  settings: FrameSettings;
  /** What the server calls the plan that it has, or null while what is seen is not saved yet. */
  savedHash: string | null;
}

/** How a frame is set at this moment, and everything that follows from it. */
export function useFrameState(given: BenchFrame, measured: readonly Measured[] | undefined): FrameState | null {
  const words = useLiveWords();
  const one = useMemo((): BenchFrame => ({ ...given, finishing: withWords(given.finishing, words) }), [given, words]);
  const settings = useSettings(one.frame.id);
  const basis = useBench((bench) => (settings ? savedBasis(bench, one, settings) : null));
  const mine = measured?.find((each) => each.frameId === one.frame.id);
  return useMemo(() => {
    if (!settings) return null;
    const { planHash, ...facts } = frameFacts(one, settings, mine, basis);
    return { ...facts, settings, savedHash: basis === null ? null : planHash };
  }, [one, settings, basis, mine]);
}
