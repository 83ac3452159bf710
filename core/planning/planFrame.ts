import { changesNothing } from '../finishing/index.ts';
import { borderOf, contentAreaOf, frameWindow, ringOf, roundedRadius, settledPlace } from '../framing/index.ts';
import {
  boundsOf,
  enlargement,
  frameDimensions,
  type Grid,
  type GridSettings,
  gridOf,
  hasClosing,
  type Picture,
  type Pose,
  pictureBox,
  piecesOf,
  scaledBy,
  uploadShare,
  wholeWindow,
} from '../geometry/index.ts';
import { type Lettered, wordsRoom } from '../lettering/index.ts';
import {
  type Border,
  carriesTransparency,
  type Dimensions,
  type FrameSettings,
  type MetadataPolicy,
  type Original,
  type Place,
  type Treatment,
  type Window,
} from '../model/index.ts';
import { defaultHeadroom } from '../weighing/index.ts';
import { scalePlan } from './derived/scaledPlan.ts';
import { encodingOf, plainEncoding } from './encodingPlan.ts';
import { type LetteredFrame, type LetteringToPlan, letterFrame } from './letterFrame.ts';
import { engineVersion, type RenderPlan } from './renderPlan.ts';
import { watchedMarks, watchedRect } from './watched.ts';

/** Transparency becomes this colour where the format cannot carry it. */
export const flattenColour = '#ffffff';

/** A thousandth of an original pixel: finer differences are arithmetic noise and must not change a plan's hash. */
const grain = 1000;
const settle = (value: number) => Math.round(value * grain) / grain;
const settled = (window: Window): Window => ({
  ...window,
  centreX: settle(window.centreX),
  centreY: settle(window.centreY),
  span: settle(window.span),
  turn: settle(window.turn),
});

export interface FrameToPlan {
  original: Pick<Original, 'sha256' | 'page' | 'width' | 'height' | 'hasAlpha' | 'trim' | 'marks' | 'words' | 'origin'>;
  place: Place;
  settings: FrameSettings;
  treatment: Treatment;
  /** What goes into the file beside its pixels. */
  keeping: MetadataPolicy;
  /** What is laid over the picture; nothing where it is left out. */
  lettering?: LetteringToPlan | undefined;
  /** Share of the limit that is left free, 0..1. */
  headroom?: number;
}

/** A plan, and what its words came to; null where it has none. */
export interface PlannedFrame {
  /** Of the files that are made. */
  plan: RenderPlan;
  /** The same in the pixels of the place: what hands and findings are about. */
  atPlace: RenderPlan;
  lettered: LetteredFrame | null;
  /** That its words ask its window for, in squares of its shorter side. */
  wordsRoom: number;
}

/** The plan of one frame's files. */
export const planFrame = (frame: FrameToPlan): RenderPlan => planWithWords(frame).plan;

/** The same with all that is to be said of its words. */
export function planWithWords({
  original,
  place: said,
  settings,
  treatment,
  keeping,
  lettering,
  headroom = defaultHeadroom,
}: FrameToPlan): PlannedFrame {
  const place = settledPlace(said, original, settings);
  const room = lettering ? roomAsked(lettering, place, settings) : 0;
  const window = frameWindow(original, place, { ...settings, border: treatment.border }, room);
  const output = frameDimensions(place, original, settings);
  const contentArea = contentAreaOf(place, original, { ...settings, border: treatment.border }).dimensions;
  const isTransparent = original.hasAlpha || settings.backing?.kind === 'transparent' || isCutOut(place, settings);
  const needsFlattening = settings.flatten !== null || !carriesTransparency(settings.format);
  const bare = {
    engine: engineVersion,
    original: { sha256: original.sha256, page: original.page, width: original.width, height: original.height },
    picture: pictureBox(original),
    window: settled(window),
    backing: settings.backing,
    output,
    stretch: settings.stretch,
    shape: shapeOf(place, settings, output),
    grid: gridOf(place, settings),
    finish: finishOf(treatment, window, contentArea),
    border: borderAround(borderOf(place, treatment.border), gridOf(place, settings), output),
    closing: closingPanel(original, place, settings, window),
    flatten: isTransparent && needsFlattening ? (settings.flatten ?? flattenColour) : null,
  };
  const { book = null } = lettering ?? {};
  const lettered =
    lettering && book && lettering.items.length > 0
      ? letterFrame({ ...lettering, book }, original, place, settings, bare)
      : null;
  const laid = { ...bare, lettering: lettered && laidOver(lettered) };
  const withEncoding = (plan: RenderPlan): RenderPlan => {
    const words = plan.lettering?.items.map(({ box }) => box) ?? [];
    const watched = [
      ...watchedMarks(original, plan).map(({ rect }) => rect),
      ...words.flatMap((box) => watchedRect(box, plan.output)),
    ];
    const dimensions = plan.grid?.piece ?? plan.output;
    return {
      ...plan,
      encoding: encodingOf({
        original,
        place,
        settings,
        keeping,
        headroom,
        dimensions,
        watched,
        isCut: plan.grid !== null,
      }),
    };
  };
  const atPlace = withEncoding({ ...laid, encoding: plainEncoding(settings.format) });
  const share = uploadShare(place, settings);
  if (share === 1) return { plan: atPlace, atPlace, lettered, wordsRoom: room };
  const uploaded = scalePlan(atPlace, share);
  // Finished to look as it does in its place, at what its own pixels leave room for.
  const finish = finishOf(treatment, window, scaledBy(contentArea, share));
  const plan = withEncoding({ ...uploaded, finish: finish && { ...finish, scale: share } });
  return { plan, atPlace, lettered, wordsRoom: room };
}

/** The room that a project's words ask for in one frame, in squares of its shorter side. */
export const roomAsked = (
  { items, originalId, placeId }: Pick<LetteringToPlan, 'items' | 'originalId' | 'placeId'>,
  { purpose }: Pick<Place, 'purpose'>,
  { hands }: Pick<FrameSettings, 'hands'>,
): number => wordsRoom(items, hands, { originalId, place: { id: placeId, purpose } });

const laidOver = ({ layers, items }: Lettered): RenderPlan['lettering'] =>
  layers.length > 0 ? { scale: { x: 1, y: 1 }, layers, items } : null;

/** Beyond so many pixels of output a file is no small size that wants finishing, and would not fit into memory. */
export const mostFinished = 50_000_000;
/** What is enlarged for sharpening has at most so many pixels. */
const mostEnlarged = 60_000_000;

/** A treatment as far as the original has the pixels for it; null where nothing is done. */
function finishOf(
  { border: _, ...treatment }: Treatment,
  window: Window,
  contentArea: Dimensions,
): RenderPlan['finish'] {
  const area = contentArea.width * contentArea.height;
  if (changesNothing({ ...treatment, border: null }) || area > mostFinished) return null;
  return { ...treatment, oversize: settle(oversizeFor(treatment, window, contentArea)), scale: 1 };
}

/** How many times its dimensions a frame is sharpened at: never more than the original has the pixels for. */
export function oversizeFor(
  { oversize }: Pick<Treatment, 'oversize'>,
  window: Window,
  contentArea: Dimensions,
): number {
  const there = 1 / enlargement(window, contentArea);
  const bearable = Math.sqrt(mostEnlarged / (contentArea.width * contentArea.height));
  return Math.max(1, Math.min(oversize, there, bearable));
}

/** Whether a frame is delivered as its shape, with nothing round it; pieces of one picture never are. */
export const isCutOut = (place: Pick<Place, 'shape' | 'group'>, { cutOut }: Pick<FrameSettings, 'cutOut'>): boolean =>
  cutOut && place.shape !== 'rectangle' && !place.group;

/** A border with the rectangles that it runs inside of: the whole file, or every piece of it. */
function borderAround(border: Border | null, grid: Grid | null, output: Dimensions): RenderPlan['border'] {
  if (!border) return null;
  const pieces = grid && border.round === 'pieces' ? piecesOf(grid) : [{ left: 0, top: 0, ...output }];
  return { ...border, around: pieces };
}

/** The panel after the last of a strip: the whole picture, turned and mirrored as the strip is. Null where it has none. */
export function closingPanel(
  original: Picture,
  place: Place,
  settings: GridSettings & Pick<FrameSettings, 'stretch'>,
  pose: Pose,
): RenderPlan['closing'] {
  const { closing, stretch } = settings;
  if (!closing || !hasClosing(place, settings) || typeof place.height !== 'number') return null;
  const panel = { width: place.width, height: place.height * stretch };
  return {
    width: place.width,
    window: settled(wholeWindow(boundsOf(original, closing), panel, pose)),
    backing: closing,
  };
}

function shapeOf(place: Place, settings: FrameSettings, output: Dimensions): RenderPlan['shape'] {
  const ring = ringOf(place, output, settings.ring);
  const cutOut = isCutOut(place, settings);
  if (!ring && !cutOut) return null;
  const kind = place.shape === 'circle' ? 'ellipse' : 'rounded';
  return { kind, radius: kind === 'rounded' ? roundedRadius(output) : 0, ring, cutOut };
}
