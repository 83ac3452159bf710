import { frameFindings } from '@inkwell/core/checking';
import { openingOf } from '@inkwell/core/framing';
import { frameDimensions, type Grid, gridOf } from '@inkwell/core/geometry';
import type { Dimensions, Finding, FrameSettings, Original, Place, Weight, Window } from '@inkwell/core/model';
import { planFrame, planHash } from '@inkwell/core/planning';
import { piecesInOrder } from '@inkwell/core/splitting';
import type { Measured } from '../../api/projects.ts';

/** Everything that follows from how a frame is set. */
export interface FrameFacts {
  /** The window that is shown: composed, or as it was set by hand. */
  window: Window;
  /** What the window fills, for the geometry of windows. */
  opening: Dimensions;
  /** The pixels of the whole, before it is cut into pieces. */
  output: Dimensions;
  /** How it is cut; null where it is one picture. */
  grid: Grid | null;
  /** The number of every piece in the order of uploading, by reading order. */
  numbers: number[];
  hash: string;
  /** Null while it is being measured. */
  weight: Weight | null;
  findings: Finding[];
}

type Input = [Place, Original['marks'], Original['trim'], Measured | undefined];
/** By the settings themselves: they are replaced, never changed, and the wall and the count in the head ask alike. */
const known = new WeakMap<FrameSettings, { input: Input; facts: FrameFacts }>();

/** @param measured what was measured of the frame, as it was set at that time */
export function frameFacts(
  original: Original,
  place: Place,
  settings: FrameSettings,
  measured: Measured | undefined,
): FrameFacts {
  const input: Input = [place, original.marks, original.trim, measured];
  const before = known.get(settings);
  if (before?.input.every((one, index) => one === input[index])) return before.facts;
  const plan = planFrame({ original, place, settings });
  const hash = planHash(plan);
  const fresh = measured?.planHash === hash ? measured : undefined;
  const weight = fresh?.weight ?? null;
  const facts: FrameFacts = {
    window: plan.window,
    opening: openingOf(place, original, settings).dimensions,
    output: frameDimensions(place, original, settings),
    grid: gridOf(place, settings),
    numbers: piecesInOrder(place, settings)
      .flatMap((piece) => (piece ? [piece] : []))
      .sort((a, b) => a.index - b.index)
      .map((piece) => piece.number),
    hash,
    weight,
    findings: frameFindings({ original, place, settings, weight, detail: fresh?.detail ?? null }, plan.window),
  };
  known.set(settings, { input, facts });
  return facts;
}
