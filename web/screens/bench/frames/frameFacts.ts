import { frameFindings } from '@inkwell/core/checking';
import type { ResolvedFinish } from '@inkwell/core/finishing';
import { contentAreaOf, type Margins } from '@inkwell/core/framing';
import { frameDimensions, type Grid, gridOf } from '@inkwell/core/geometry';
import type {
  Analysis,
  Dimensions,
  Finding,
  FinishFigures,
  FrameSettings,
  Measured,
  Original,
  PlaceOfNetwork,
  Weight,
  Window,
} from '@inkwell/core/model';
import {
  letteringFor,
  planContentArea,
  planHashes,
  planWithWords,
  type RenderPlan,
  watchedMarks,
} from '@inkwell/core/planning';
import { openTilt } from '@inkwell/core/proposing';
import { piecesInOrder } from '@inkwell/core/splitting';
import { remembering } from '../../../parts/many/remembering.ts';
import { type Finishing, finishFor } from './finishing.ts';
import { learn, serverHash } from './serverHashes.ts';

/** Everything that follows from how a frame is set. */
export interface FrameFacts {
  /** The window that is shown: composed, or as it was set by hand. */
  window: Window;
  /** What the window fills, for the geometry of windows. */
  contentArea: Dimensions;
  /** What lies round that in the file, on each side. */
  margins: Margins;
  /** The pixels of the whole, before it is cut into pieces. */
  output: Dimensions;
  /** The pixels of one file, which may be others than its place's. */
  file: Dimensions;
  /** How it is cut; null where it is one picture. */
  grid: Grid | null;
  /** The number of every piece in the order of uploading, by reading order. */
  numbers: number[];
  /** What the server calls the plan; null while it has not said so. */
  planHash: string | null;
  /** What one file may weigh: the limit less headroom. */
  budgetBytes: number;
  /** The keep marks whose similarity counts on its own, in the order in which it is measured. */
  watched: ReturnType<typeof watchedMarks>;
  /** What is laid over it; null where nothing is, and while fonts are loading. */
  lettering: RenderPlan['lettering'];
  /** How it is finished, and who says so. */
  finish: ResolvedFinish;
  /** What is carried out of that, or null where nothing is; with the oversize that the original has the pixels for. */
  carried: RenderPlan['finish'];
  /** What finishing has done; null while it is being measured, and of a plain frame. */
  figures: FinishFigures | null;
  /** The same of the frame left plain. */
  plainHash: string | null;
  /** Null while it is being measured. */
  weight: Weight | null;
  /** Whether it is known how well its words can be read; true where it has none. */
  isRead: boolean;
  /** Why it could not be measured, in words; null where it was, or still is. */
  failure: string | null;
  findings: Finding[];
}

interface FrameOnPlace {
  original: Original;
  seen: Analysis | null;
  at: PlaceOfNetwork;
  finishing: Finishing;
}

/** By the settings themselves: they are replaced, never changed, and the wall and the count in the head ask alike. */
const remembered = remembering<FrameSettings, FrameFacts>();

/**
 * @param measured what was measured of the frame, as it was set at that time
 * @param basis what the server's plan of these settings is made from; null where it does not have them
 */
export function frameFacts(
  one: FrameOnPlace,
  settings: FrameSettings,
  measured: Measured | undefined,
  basis: string | null,
): FrameFacts {
  const { seen } = one;
  const { place } = one.at;
  const finish = finishFor(one, settings);
  const { book } = one.finishing;
  const { keeping, lettering } = one.finishing.project;
  const { marks, decided, trim, words } = one.original;
  const blend = finish.treatment.blend;
  const from = [
    place,
    marks,
    decided,
    seen,
    trim,
    words,
    keeping,
    lettering,
    book,
    measured,
    basis,
    finish.finish,
    blend,
  ];
  return remembered(settings, from, () => factsOf(one, settings, finish, measured, basis));
}

function factsOf(
  one: FrameOnPlace,
  settings: FrameSettings,
  finish: ResolvedFinish,
  measured: Measured | undefined,
  basis: string | null,
): FrameFacts {
  const { original, seen } = one;
  const { place } = one.at;
  const { treatment } = finish;
  const { book } = one.finishing;
  const { keeping, lettering: items } = one.finishing.project;
  const shown = { originalId: original.id, placeId: one.at.id };
  const lettering = letteringFor(one.finishing.project, book, shown, seen);
  const { plan, atPlace, lettered, wordsRoom } = planWithWords({
    original,
    place,
    settings,
    treatment,
    keeping,
    lettering,
  });
  const own = hashesOf(plan, items.length === 0 || book !== null, measured?.basis === basis ? measured : undefined);
  const framed = { ...settings, border: treatment.border };
  const fresh = measured && measured.planHash === own.planHash ? measured : undefined;
  const weight = fresh?.weight ?? null;
  const figures = fresh?.figures ?? null;
  return {
    window: plan.window,
    contentArea: contentAreaOf(place, original, framed).dimensions,
    margins: planContentArea(atPlace).margins,
    output: frameDimensions(place, original, settings),
    file: plan.grid?.piece ?? plan.output,
    grid: gridOf(place, settings),
    numbers: piecesInOrder(place, settings)
      .flatMap((piece) => (piece ? [piece] : []))
      .sort((a, b) => a.index - b.index)
      .map((piece) => piece.number),
    planHash: own.planHash,
    budgetBytes: plan.encoding.budgetBytes,
    watched: watchedMarks(original, plan),
    finish,
    lettering: atPlace.lettering,
    carried: atPlace.finish,
    figures,
    plainHash: own.plainHash,
    weight,
    isRead: plan.lettering === null || (fresh?.legibility ?? null) !== null,
    failure: fresh?.failure ?? null,
    findings: frameFindings(
      {
        original,
        tilt: openTilt(original, seen),
        place,
        settings,
        treatment,
        weight,
        detail: fresh?.detail ?? null,
        legibility: fresh?.legibility ?? null,
        figures,
        wordsRoom,
        lettered,
      },
      plan.window,
    ),
  };
}

/**
 * What the server calls a plan that was made here.
 *
 * @param isWhole whether it is all there is: without its fonts the words are missing in it
 * @param measured what the server has measured of the same plan
 */
function hashesOf(
  plan: RenderPlan,
  isWhole: boolean,
  measured: Measured | undefined,
): { planHash: string | null; plainHash: string | null } {
  if (!isWhole) return { planHash: measured?.planHash ?? null, plainHash: measured?.plainHash ?? null };
  const own = planHashes(plan);
  if (measured) learn(own, measured);
  return { planHash: serverHash(own.planHash), plainHash: serverHash(own.plainHash) };
}
