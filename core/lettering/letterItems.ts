import type { Rect } from '../geometry/index.ts';
import type { Hands, Item, LetteredItem, Lettering, LetterLayer, Place } from '../model/index.ts';
import { asWritten, type MovedProblem, placedByHand, problemsOf } from './byHand.ts';
import type { ReadyItem } from './layout/block.ts';
import type { FrameGround } from './layout/frameGround.ts';
import { grouped, type Lost, layOut } from './layout/layOut.ts';
import type { Room } from './layout/room.ts';
import { paintBlock } from './painting/layersOf.ts';
import { setWords } from './setting/setWords.ts';
import type { ChosenFile, FontBook } from './type/fontBook.ts';

interface PieceToLetter {
  rect: Rect;
  room: Room;
}

/** What says which items a frame has. */
export interface FrameOfItems {
  originalId: string;
  place: Pick<Place, 'purpose'> & { id: string };
}

/** A frame as its items see it. */
export interface FrameToLetter extends FrameOfItems {
  /** The pieces that the picture is spread over, with the room on each; one where it is not cut. */
  pieces: readonly PieceToLetter[];
  /** All of them as one, with the seams between them; null where it is not cut. */
  whole: PieceToLetter | null;
  ground: FrameGround;
  subject: Rect | null;
  /** Pixels of the file to one that is shown, where it is shown smallest. */
  scale: number;
}

/** What a frame's items come to. */
export interface Lettered {
  layers: LetterLayer[];
  items: LetteredItem[];
  /** The project's items that are meant for this frame, as hands have written them here. */
  written: Item[];
  lost: Lost[];
  /** What is doubtful about where hands have put items. */
  moved: MovedProblem[];
  /** Characters that no font has, by item. */
  missing: { item: Item; characters: string[] }[];
  toLoad: ChosenFile[];
}

/** Whether an item is shown on an original. */
export const isOnOriginal = ({ originalIds }: Pick<Item, 'originalIds'>, originalId: string): boolean =>
  originalIds === null || originalIds.includes(originalId);

/** Whether an item is meant for a frame at all. */
export const isOn = (item: Item, { originalId, place }: FrameOfItems): boolean =>
  isOnOriginal(item, originalId) && !item.notOn.includes(place.purpose) && !item.notOnPlaces.includes(place.id);

/** Lays a project's items over one frame. */
export function letterItems(lettering: Lettering, hands: Hands, frame: FrameToLetter, book: FontBook): Lettered {
  const found: Lettered = { layers: [], items: [], written: [], lost: [], moved: [], missing: [], toLoad: [] };
  found.written = lettering
    .filter((item) => isOn(item, frame) && !hands[item.id]?.isOff)
    .map((item) => asWritten(item, hands[item.id]));
  const ready = found.written.flatMap((item) => readyOf(item, book, found));
  // Nothing stands where it will be until all fonts are there.
  if (found.toLoad.length > 0) return found;
  const { pieces, whole } = frame;
  const isAcross = ({ long }: Versions) => whole !== null && long.item.onPieces === 'across';
  const across = ready.filter(isAcross);
  const onPieces = (taken: readonly Rect[]): Rect[] =>
    pieces.flatMap((piece, at) => {
      const items = ready.filter((one) => !isAcross(one) && isOnPiece(one.long.item, at, pieces.length));
      return letterPiece(items, hands, beside(piece, taken), frame, found);
    });
  const overAll = (taken: readonly Rect[]): Rect[] =>
    whole && across.length > 0 ? letterPiece(across, hands, beside(whole, taken), frame, found) : [];
  // What matters most comes first.
  const [first] = ready;
  if (first && isAcross(first)) onPieces(overAll([]));
  else overAll(onPieces([]));
  return found;
}

/** A piece where some rectangles are taken already. */
const beside = ({ rect, room }: PieceToLetter, taken: readonly Rect[]): PieceToLetter => ({
  rect,
  room: { ...room, closed: [...room.closed, ...taken] },
});

/** Lays items over one piece: first what hands have put there, then all else beside that. @returns what they take */
function letterPiece(
  items: readonly Versions[],
  hands: Hands,
  { rect, room }: PieceToLetter,
  { ground, subject, scale }: FrameToLetter,
  found: Lettered,
): Rect[] {
  const standOf = ({ item }: ReadyItem) => hands[item.id]?.stand ?? null;
  // What a hand has put somewhere takes along what stands under it, and leaves where it stood under something.
  const own = items.filter(({ long }) => long.item.wish === under && standOf(long));
  const groups = [...grouped(items.filter((one) => !own.includes(one))), ...own.flatMap((one) => grouped([one]))];
  const stands = groups.flatMap((group) => {
    const [first, ...others] = group.long;
    const stand = first && standOf(first);
    const placed = stand && placedByHand({ first, under: others, stand }, rect);
    return placed ? [{ group, first, under: others, stand, placed }] : [];
  });
  const free = groups.filter((group) => !stands.some((stood) => stood.group === group));
  const closed = [...room.closed, ...stands.map(({ placed }) => placed.box)];
  const { blocks, lost } = layOut({ groups: free, room: { ...room, closed }, ground, subject, scale });
  const painted = [
    ...stands.map(({ placed }) => paintBlock(placed, rect, ground, true)),
    ...blocks.map((block) => paintBlock(block, rect, ground, false)),
  ];
  for (const { layers, items: stood } of painted) {
    const before = found.layers.length;
    found.layers.push(...layers);
    found.items.push(...stood.map((one) => ({ ...one, letters: one.letters === null ? null : one.letters + before })));
  }
  found.moved.push(...stands.flatMap((put) => problemsOf(put, rect, room, scale)));
  found.lost.push(...lost);
  return [...stands.map(({ placed }) => placed.box), ...blocks.map(({ box }) => box)];
}

const under: Item['wish'] = 'under the words before';

const isOnPiece = ({ onPieces }: Item, piece: number, count: number): boolean =>
  count === 1 || onPieces === 'each' || piece === (onPieces === 'first' ? 0 : count - 1);

interface Versions {
  long: ReadyItem;
  short: ReadyItem | null;
}

function readyOf(item: Item, book: FontBook, found: Lettered): Versions[] {
  if (item.kind !== 'words') return [{ long: { item }, short: null }];
  const set = (text: string): ReadyItem | null => {
    const { ways, missing, toLoad } = setWords(text, item.style, book);
    found.toLoad.push(...toLoad);
    if (missing.length > 0) found.missing.push({ item, characters: missing });
    return ways.length > 0 ? { item, ways } : null;
  };
  const [long, short] = [set(item.text), item.short.trim() === '' ? null : set(item.short)];
  return long ? [{ long, short }] : [];
}
