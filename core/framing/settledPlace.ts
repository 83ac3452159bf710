import {
  boundsOf,
  dimensionsToChoose,
  type Picture,
  pictureBox,
  placeDimensions,
  takesSeveral,
} from '../geometry/index.ts';
import {
  type Area,
  type Dimensions,
  type FrameSettings,
  type Mark,
  type Place,
  type PlaceOfNetwork,
  plainSettings,
  type SettledPlace,
  saidOf,
} from '../model/index.ts';
import { composeWindow } from './composeWindow.ts';
import { contentAreaOf } from './contentArea.ts';

/** What the choice of dimensions depends on. */
export type SettlingFrom = Pick<FrameSettings, 'dimensions' | 'backing' | 'window'>;
type Marked = Picture & { marks: readonly Mark[] };

/** What a frame of some dimensions would show of a picture, as it is composed. */
export interface Shown {
  dimensions: Dimensions;
  /** Share of the keep marks that lie where they should, 0..1. */
  kept: number;
  /** Share of the avoid marks that are out, 0..1. */
  avoided: number;
  /** Share of the picture that is shown, 0..1. */
  share: number;
  /** 1 where the subject lies where the composition wants it. */
  composition: number;
}

/** What other dimensions show has to be worth so much more that those which the place wishes for are left. */
const worthLeaving = 1.03;
/** A poorer composition is worth at most so much of what is shown: as in the choice of a window. */
const worthOfComposition = 0.5;

const worthOf = ({ share, composition }: Shown) => share * (1 - worthOfComposition * (1 - composition));

/**
 * The dimensions that serve a picture best among those that its place takes: which keep the most marks, then leave out the most that is
 * to be out, then show the most of the picture, well composed. Those that the place wishes for come first where others are hardly better.
 *
 * @returns the best one, and what the wished ones would show; null where the place leaves nothing to choose
 */
export function servingDimensions(
  place: Place,
  original: Marked,
  { backing, window }: Omit<SettlingFrom, 'dimensions'>,
): { best: Shown; wished: Shown } | null {
  const choices = dimensionsToChoose(place, original);
  const [wish] = choices;
  if (!wish) return null;
  const box = pictureBox(original);
  const bounds = boundsOf(original, null);
  const shown = (dimensions: Dimensions): Shown => {
    // A backing is chosen to show the whole picture: what counts is how much of the frame that fills.
    if (backing) {
      const [a, b] = [dimensions.width / dimensions.height, box.width / box.height];
      return { dimensions, kept: 1, avoided: 1, share: Math.min(a, b) / Math.max(a, b), composition: 1 };
    }
    const at = settledAt(place, dimensions);
    const contentArea = contentAreaOf(at, original, { ...plainSettings, border: null });
    const { window: found, score } = composeWindow(bounds, contentArea, original.marks, window);
    const high = (found.span * dimensions.height) / dimensions.width;
    const { kept, avoided, composition } = score;
    return {
      dimensions,
      kept,
      avoided,
      composition,
      share: Math.min(1, (found.span * high) / (box.width * box.height)),
    };
  };
  const wished = shown(wish);
  const best = choices.slice(1).reduce((so, dimensions) => {
    const other = shown(dimensions);
    return isBetter(other, so, so === wished ? worthLeaving : 1) ? other : so;
  }, wished);
  return { best, wished };
}

function isBetter(one: Shown, than: Shown, by: number): boolean {
  if (one.kept !== than.kept) return one.kept > than.kept;
  if (one.avoided !== than.avoided) return one.avoided > than.avoided;
  return worthOf(one) > worthOf(than) * by;
}

/** A place at some of the dimensions that it takes, with its areas where they lie there. */
export function settledAt(place: Place, { width, height }: Dimensions): SettledPlace {
  const { otherDimensions: _, ...fixed } = place;
  const from = typeof place.height === 'number' ? place.height : height;
  const [x, y] = [width / place.width, height / from];
  const scaled = (area: Area): Area => ({
    ...area,
    left: area.left * x,
    top: area.top * y,
    width: area.width * x,
    height: area.height * y,
  });
  const covered = place.covered.map(scaled);
  const shownPart = place.shownPart && scaled(place.shownPart);
  return { ...fixed, width, height, covered, ...(shownPart ? { shownPart } : {}), said: saidOf(place) };
}

/** By the marks of a picture and its place: what serves it is asked for again and again. */
const known = new WeakMap<readonly Mark[], WeakMap<Place, Map<string, Dimensions>>>();

function chosen(place: Place, original: Marked, settings: SettlingFrom): Dimensions {
  const ofMarks = known.get(original.marks) ?? new WeakMap<Place, Map<string, Dimensions>>();
  known.set(original.marks, ofMarks);
  const ofPlace = ofMarks.get(place) ?? new Map<string, Dimensions>();
  ofMarks.set(place, ofPlace);
  const { turn, mirror } = settings.window;
  const key = JSON.stringify([pictureBox(original), turn, mirror, settings.backing !== null]);
  const dimensions =
    ofPlace.get(key) ??
    servingDimensions(place, original, settings)?.best.dimensions ??
    placeDimensions(place, original);
  ofPlace.set(key, dimensions);
  return dimensions;
}

/**
 * A place as one frame meets it: at the dimensions that are set for the frame, or at those that serve its picture best. A place that
 * takes no others is itself.
 */
export function settledPlace(place: Place, original: Marked, settings: SettlingFrom): Place {
  if ('said' in place || !takesSeveral(place)) return place;
  const { dimensions } = settings;
  if (typeof place.height !== 'number') return settledAt(place, placeDimensions(place, original, dimensions));
  return settledAt(place, dimensions ?? chosen(place, original, settings));
}

/** The same of a place with its network. */
export function settledPlaceOf(at: PlaceOfNetwork, original: Marked, settings: SettlingFrom): PlaceOfNetwork {
  const place = settledPlace(at.place, original, settings);
  return place === at.place ? at : { ...at, place };
}
