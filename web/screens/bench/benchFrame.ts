import { frameFindings } from '@inkwell/core/checking';
import { placeDimensions } from '@inkwell/core/geometry';
import type { Dimensions, Finding, Frame, FrameSettings, Original, PlaceOfNetwork, Weight } from '@inkwell/core/model';
import { planFrame, planHash } from '@inkwell/core/planning';
import { useMemo } from 'react';
import type { FrameWeight } from '../../api/projects.ts';
import { useBench, useSettings } from './useBench.ts';

/** A frame with all that the bench has to know about where it goes. */
export interface BenchFrame {
  frame: Frame;
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

const hashOf = ({ original, at }: BenchFrame, settings: FrameSettings) =>
  planHash(planFrame({ original, place: at.place, settings }));

export interface FrameState {
  settings: FrameSettings;
  /** The plan that the server has, or null while what is seen is not saved yet. */
  savedHash: string | null;
  /** Null while it is being measured. */
  weight: Weight | null;
  findings: Finding[];
}

/** How a frame is set at this moment, and everything that follows from it. */
export function useFrameState(one: BenchFrame, weights: readonly FrameWeight[] | undefined): FrameState | null {
  const settings = useSettings(one.frame.id);
  const saved = useBench((bench) => bench.saved[one.frame.id]);
  return useMemo(() => {
    if (!settings) return null;
    const hash = hashOf(one, settings);
    const measured =
      weights?.find((weight) => weight.frameId === one.frame.id && weight.planHash === hash)?.weight ?? null;
    return {
      settings,
      savedHash: saved && hashOf(one, saved) === hash ? hash : null,
      weight: measured,
      findings: frameFindings({ original: one.original, place: one.at.place, settings, weight: measured }),
    };
  }, [one, settings, saved, weights]);
}
