import { frameFindings } from '@inkwell/core/checking';
import { openingOf } from '@inkwell/core/framing';
import { boundsOf, largestWindow, placeDimensions } from '@inkwell/core/geometry';
import type {
  Dimensions,
  Finding,
  Frame,
  FrameChange,
  FrameSettings,
  Original,
  PlaceOfNetwork,
  Weight,
  Window,
} from '@inkwell/core/model';
import { planFrame, planHash } from '@inkwell/core/planning';
import equal from 'fast-deep-equal';
import { useMemo } from 'react';
import type { Measured } from '../../api/projects.ts';
import { settingsOf } from './benchState.ts';
import { useBench, useSettings } from './useBench.ts';

/** A frame with all that the bench has to know about where it goes. */
export interface BenchFrame {
  frame: Frame;
  /** With the marks and the trim that are set now. */
  original: Original;
  at: PlaceOfNetwork;
  output: Dimensions;
}

export function benchFrames(
  frames: readonly Frame[],
  original: Original,
  places: Map<string, PlaceOfNetwork>,
): BenchFrame[] {
  const order = [...places.keys()];
  return frames
    .flatMap((frame) => {
      const at = places.get(frame.placeId);
      return at && frame.originalId === original.id
        ? [{ frame, original, at, output: placeDimensions(at.place, original) }]
        : [];
    })
    .sort((a, b) => order.indexOf(a.at.id) - order.indexOf(b.at.id));
}

/** What the window of a frame fills, for the geometry of windows. */
export const openingFor = (
  { original, at }: BenchFrame,
  settings: Pick<FrameSettings, 'ring' | 'stretch'>,
): Dimensions => openingOf(at.place, original, settings).dimensions;

/** What sets a frame back to the largest upright window in the middle of its picture. */
export function resetChange(one: BenchFrame, { ring }: Pick<FrameSettings, 'ring'>): FrameChange {
  const opening = openingFor(one, { ring, stretch: 1 });
  return { window: largestWindow(boundsOf(one.original, null), opening), composed: false, backing: null, stretch: 1 };
}

export interface FrameState {
  settings: FrameSettings;
  /** The window that is shown: composed, or as it was set by hand. */
  window: Window;
  /** What the window fills, for the geometry of windows. */
  opening: Dimensions;
  /** The plan that the server has, or null while what is seen is not saved yet. */
  savedHash: string | null;
  /** Null while it is being measured. */
  weight: Weight | null;
  findings: Finding[];
}

/** How a frame is set at this moment, and everything that follows from it. */
export function useFrameState(one: BenchFrame, measured: readonly Measured[] | undefined): FrameState | null {
  const settings = useSettings(one.frame.id);
  const saved = useBench((bench) => bench.saved.frames[one.frame.id]);
  const savedOriginal = useBench((bench) => bench.saved.originals[one.original.id]);
  const planned = useMemo(() => {
    if (!settings) return null;
    const { original, at } = one;
    const plan = planFrame({ original, place: at.place, settings });
    return { settings, window: plan.window, hash: planHash(plan) };
  }, [one, settings]);
  return useMemo(() => {
    if (!planned) return null;
    const { original, at, frame } = one;
    const { hash, window } = planned;
    const isSaved =
      saved !== undefined &&
      savedOriginal !== undefined &&
      equal(settingsOf.frames(saved), planned.settings) &&
      equal(settingsOf.originals(savedOriginal), settingsOf.originals(original));
    const mine = measured?.find((each) => each.frameId === frame.id && each.planHash === hash);
    const weight = mine?.weight ?? null;
    const detail = mine?.detail ?? null;
    return {
      settings: planned.settings,
      window,
      opening: openingFor(one, planned.settings),
      savedHash: isSaved ? hash : null,
      weight,
      findings: frameFindings({ original, place: at.place, settings: planned.settings, weight, detail }, window),
    };
  }, [one, planned, saved, savedOriginal, measured]);
}
