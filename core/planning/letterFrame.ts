import { coveredAreas, roundedRadius } from '../framing/index.ts';
import {
  gridOf,
  marksOnPicture,
  pictureBox,
  piecesOf,
  type Rect,
  seamsOf,
  spreadOf,
  union,
  wholeDimensions,
} from '../geometry/index.ts';
import { type FontBook, frameGround, itemsOnPicture, type Lettered, letterItems, roomIn } from '../lettering/index.ts';
import type {
  Analysis,
  FrameSettings,
  Ground,
  Hands,
  Lettering,
  MarkToCompose,
  Original,
  Place,
} from '../model/index.ts';
import { planContentArea } from './contentArea.ts';
import type { RenderPlan } from './renderPlan.ts';
import { markInFile } from './watched.ts';

/** What the words of a frame are made from, beside the frame itself. */
export interface LetteringToPlan {
  items: Lettering;
  /** Null while the fonts are loading: the frame is composed for its words all the same. */
  book: FontBook | null;
  originalId: string;
  /** `network/place`. */
  placeId: string;
  /** What was measured of the original; null where it was not looked at yet. */
  ground: Ground | null;
}

/** The words of a project as they are planned for one frame. @param seen in the original; null where it was not looked at yet */
export const letteringFor = (
  { lettering }: { lettering: Lettering },
  book: FontBook | null,
  { originalId, placeId }: Pick<LetteringToPlan, 'originalId' | 'placeId'>,
  seen: Analysis | null,
): LetteringToPlan => ({
  items: itemsOnPicture(lettering, originalId),
  book,
  originalId,
  placeId,
  ground: seen?.ground ?? null,
});

type OriginalToLetter = Pick<Original, 'width' | 'height' | 'trim'> & { marks: readonly MarkToCompose[] };
type Laid = Pick<RenderPlan, 'output' | 'shape' | 'stretch' | 'closing' | 'border' | 'window'>;

/** What the words of a frame come to, and would come to with other hands at them. */
export interface LetteredFrame extends Lettered {
  again(hands: Hands): Lettered;
}

/** Lays a project's items over a frame whose picture is planned. */
export function letterFrame(
  { items, book, originalId, placeId, ground }: LetteringToPlan & { book: FontBook },
  original: OriginalToLetter,
  place: Place,
  settings: FrameSettings,
  laid: Laid,
): LetteredFrame {
  const { pixels, margins } = planContentArea(laid);
  const content = { left: margins.left, top: margins.top, ...pixels };
  const marks = marksOnPicture(original.marks, pictureBox(original)).filter(({ role }) => role === 'keep');
  const placed = marks.map((mark) => ({ rect: markInFile(mark, laid), isSeen: isOnlySeen(mark) }));
  const rects = (isSeen: boolean) => placed.filter((one) => one.isSeen === isSeen).map(({ rect }) => rect);
  const radius = place.shape === 'rounded' ? roundedRadius(laid.output) : 0;
  const spread = spreadOf(place, settings);
  const pieces = spread ? piecesOf(spread) : [{ left: 0, top: 0, ...laid.output }];
  const covered = coveredAreas(place, { ...settings, closing: null });
  const inPlace = (piece: Rect) => {
    const shownPart = place.shownPart && !gridOf(place, settings) ? place.shownPart : undefined;
    return roomIn(piece, { shape: place.shape, shownPart }, radius, [...covered, ...rects(false)], rects(true));
  };
  const wholeRoom = (rect: Rect) =>
    roomIn(rect, { shape: 'rectangle' }, 0, [...covered, ...rects(false)], rects(true), spread ? seamsOf(spread) : []);
  const whole = spread && { left: 0, top: 0, ...wholeDimensions(spread) };
  const shown = Math.min(place.width, ...place.shownWidths);
  const frame = {
    originalId,
    place: { id: placeId, purpose: place.purpose },
    pieces: pieces.map((rect) => ({ rect, room: inPlace(rect) })),
    whole: whole && pieces.length > 1 ? { rect: whole, room: wholeRoom(whole) } : null,
    ground: frameGround(ground, laid.window, content, laid.stretch, original),
    subject: placed.length > 0 ? placed.map(({ rect }) => rect).reduce(union) : null,
    scale: place.width / shown,
  };
  const again = (hands: Hands) => letterItems(items, hands, frame, book);
  return { ...again(settings.hands), again };
}

/** A face that is sure is kept free as a mark is: nobody wants words over it. */
const isOnlySeen = (mark: MarkToCompose): boolean =>
  mark.proposed !== undefined && !(mark.role === 'keep' && mark.priority === 'must');
