import { contentAreaOf, frameWindow } from '@inkwell/core/framing';
import { boundsOf, largestWindow } from '@inkwell/core/geometry';
import type {
  Dimensions,
  Frame,
  FrameChange,
  FrameSettings,
  Measured,
  Original,
  PlaceOfNetwork,
  Window,
} from '@inkwell/core/model';
import equal from 'fast-deep-equal';
import { useMemo } from 'react';
import { settingsOf } from '../state/kinds.ts';
import { useBench, useBenchStore, useFinishing, useSettings } from '../state/useBench.ts';
import { type Finishing, finishFor } from './finishing.ts';
import { type FrameFacts, frameFacts } from './frameFacts.ts';

/** A frame with all that the bench has to know about where it goes. */
export interface BenchFrame {
  frame: Frame;
  /** With the marks and the trim that are set now. */
  original: Original;
  at: PlaceOfNetwork;
  finishing: Finishing;
}

export function benchFrames(
  frames: readonly Frame[],
  original: Original,
  places: Map<string, PlaceOfNetwork>,
  finishing: Finishing,
): BenchFrame[] {
  const order = [...places.keys()];
  return frames
    .flatMap((frame) => {
      const at = places.get(frame.placeId);
      return at && frame.originalId === original.id ? [{ frame, original, at, finishing }] : [];
    })
    .sort((a, b) => order.indexOf(a.at.id) - order.indexOf(b.at.id));
}

/** What the window of a frame fills, for the geometry of windows. */
export const contentAreaFor = (one: BenchFrame, settings: FrameSettings): Dimensions =>
  contentAreaOf(one.at.place, one.original, { ...settings, border: finishFor(one, settings).treatment.border })
    .dimensions;

/** The window of a frame: composed, or as it was set by hand. */
export const windowFor = (one: BenchFrame, settings: FrameSettings): Window =>
  frameWindow(one.original, one.at.place, { ...settings, border: finishFor(one, settings).treatment.border });

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
  { output, window, settings, finish, savedHash, weight }: FrameState,
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
});

export interface FrameState extends Omit<FrameFacts, 'hash'> {
  settings: FrameSettings;
  /** The plan that the server has, or null while what is seen is not saved yet. */
  savedHash: string | null;
}

/** How a frame is set at this moment, and everything that follows from it. */
export function useFrameState(one: BenchFrame, measured: readonly Measured[] | undefined): FrameState | null {
  const settings = useSettings(one.frame.id);
  const saved = useBench((bench) => bench.saved.frames[one.frame.id]);
  const savedOriginal = useBench((bench) => bench.saved.originals[one.original.id]);
  const savedFinishing = useFinishing(useBenchStore(), 'saved');
  const mine = measured?.find((each) => each.frameId === one.frame.id);
  return useMemo(() => {
    if (!settings) return null;
    const { original } = one;
    const { hash, ...facts } = frameFacts(one, settings, mine);
    const isSaved =
      saved !== undefined &&
      savedOriginal !== undefined &&
      equal(settingsOf.frames(saved), settings) &&
      equal(settingsOf.originals(savedOriginal), settingsOf.originals(original)) &&
      equal(savedFinishing.project.keeping, one.finishing.project.keeping) &&
      equal(finishFor({ ...one, finishing: savedFinishing }, settings).treatment, facts.finish.treatment);
    return { ...facts, settings, savedHash: isSaved ? hash : null };
  }, [one, settings, saved, savedOriginal, savedFinishing, mine]);
}
