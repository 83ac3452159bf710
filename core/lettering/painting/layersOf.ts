import type { Rect } from '../../geometry/index.ts';
import type { LetteredItem, LetterLayer, LetterStyle, ShapeItem } from '../../model/index.ts';
import { colourOn } from '../colourOn.ts';
import { alignmentOf, type BlockPart, partBox } from '../layout/block.ts';
import type { FrameGround } from '../layout/frameGround.ts';
import type { PlacedBlock } from '../layout/placeBlock.ts';
import type { Alignment } from '../setting/setWords.ts';
import { pathData } from '../type/outline.ts';
import { arrowPath, ellipsePath, roundedRectPath } from './shapes.ts';

/** What is painted for a block, from the lowest to the topmost, and where its items stand. */
export interface PaintedBlock {
  layers: LetterLayer[];
  items: LetteredItem[];
}

/** @param piece the frame, or the piece of it, that the block stands on */
export function paintBlock(
  { block, box, em, alignment: given }: PlacedBlock,
  piece: Rect,
  ground: FrameGround,
  isMoved: boolean,
): PaintedBlock {
  const alignment = given ?? alignmentOf(block, (box.left + box.width / 2 - piece.left) / piece.width);
  const painted = block.parts.map((part) => paintPart(part, partBox(part, box, em, alignment), ground, alignment, em));
  // What lies under words comes before any words, and one shade does for all of them.
  const words = block.parts.flatMap(({ item }) => (item.kind === 'words' ? [item.style.setOff] : []));
  const shade = words.find((setOff) => setOff.kind === 'shade');
  const layers = [
    ...(shade ? [shadeLayer(shade, box, piece)] : []),
    ...painted.flatMap(({ under }) => under),
    ...painted.flatMap((part) => part.layers),
  ];
  const items = painted.map((part, at) => {
    // The letters are what is painted last of an item.
    const letters = part.item.xHeight === null ? null : layers.indexOf(part.layers.at(-1) as LetterLayer);
    return { ...part.item, piece, letters, isMoved: isMoved && at === 0 };
  });
  return { layers, items };
}

interface PaintedPart {
  under: LetterLayer[];
  layers: LetterLayer[];
  item: Omit<LetteredItem, 'isMoved' | 'letters' | 'piece'>;
}

function paintPart(
  part: BlockPart,
  box: Rect,
  ground: FrameGround,
  alignment: Alignment,
  blockEm: number,
): PaintedPart {
  const { item, words } = part;
  const em = part.em * blockEm;
  const lettered = { itemId: item.id, text: '', box, xHeight: null, em, lines: words?.lines ?? 1 };
  if (item.kind === 'emblem') {
    const { plate, originalId, picture } = item;
    return {
      under: plate ? [plateLayer(plate, box, item.clearSpace * em)] : [],
      layers: [{ kind: 'picture', originalId, picture, within: box }],
      item: lettered,
    };
  }
  if (item.kind === 'shape') {
    const path = shapePath(item.form, box);
    return { under: [outlineLayer(path, item.colour, item.opacity)], layers: [], item: lettered };
  }
  if (!words) return { under: [], layers: [], item: lettered };
  const outline = words.outline(alignment);
  const pathAt: PathAt = (right, down) => pathData(outline, em, box.left + right, box.top + down);
  const { colour } = colourOn(item.style, ground.under(box));
  const { under, round } = setOffLayers(item.style, pathAt, box, em);
  return {
    under,
    layers: [...round, outlineLayer(pathAt(0, 0), colour, 1)],
    item: { ...lettered, text: words.text, xHeight: words.xHeight * em },
  };
}

const outlineLayer = (path: string, colour: string, opacity: number, stroke = 0, blur = 0): LetterLayer => ({
  kind: 'outline',
  path,
  colour,
  opacity,
  stroke,
  blur,
});

/** The letters' outline, moved by so many pixels. */
type PathAt = (right: number, down: number) => string;

/** What sets words off: what lies under all words, and what lies right round these. */
function setOffLayers({ setOff }: LetterStyle, pathAt: PathAt, box: Rect, em: number) {
  const none: { under: LetterLayer[]; round: LetterLayer[] } = { under: [], round: [] };
  switch (setOff.kind) {
    case 'none':
    case 'shade':
      return none;
    case 'outline':
      // Half of a line along the letters' edge lies under them.
      return { ...none, round: [outlineLayer(pathAt(0, 0), setOff.colour, 1, 2 * setOff.width * em)] };
    case 'shadow': {
      const path = pathAt(setOff.right * em, setOff.down * em);
      // Blurred by itself a thin letter would hardly be seen: it grows by as much as it is blurred.
      const grown = 2 * setOff.blur * em;
      return { ...none, round: [outlineLayer(path, setOff.colour, setOff.opacity, grown, setOff.blur * em)] };
    }
    case 'plate':
      return { ...none, under: [plateLayer(setOff, box, setOff.padding * em)] };
  }
}

type Plate = Pick<Extract<LetterStyle['setOff'], { kind: 'plate' }>, 'colour' | 'opacity' | 'rounding'>;

/** A surface that reaches out of a box by so many pixels on each side. */
function plateLayer({ colour, opacity, rounding }: Plate, box: Rect, by: number): LetterLayer {
  const plate = { left: box.left - by, top: box.top - by, width: box.width + 2 * by, height: box.height + 2 * by };
  const radius = (rounding * Math.min(plate.width, plate.height)) / 2;
  return outlineLayer(roundedRectPath(plate, radius), colour, opacity);
}

/** A shade is full up to here, as a share of its reach. */
const fullShare = 0.35;

/** A shade from the side of the piece to which the words are closest. */
function shadeLayer(
  { colour, opacity, reach }: Extract<LetterStyle['setOff'], { kind: 'shade' }>,
  box: Rect,
  piece: Rect,
): LetterLayer {
  const [right, bottom] = [piece.left + piece.width, piece.top + piece.height];
  const middle = { x: piece.left + piece.width / 2, y: piece.top + piece.height / 2 };
  const sides = [
    {
      edge: { x: middle.x, y: piece.top },
      inward: { x: 0, y: 1 },
      far: box.top + box.height - piece.top,
      whole: piece.height,
    },
    { edge: { x: middle.x, y: bottom }, inward: { x: 0, y: -1 }, far: bottom - box.top, whole: piece.height },
    {
      edge: { x: piece.left, y: middle.y },
      inward: { x: 1, y: 0 },
      far: box.left + box.width - piece.left,
      whole: piece.width,
    },
    { edge: { x: right, y: middle.y }, inward: { x: -1, y: 0 }, far: right - box.left, whole: piece.width },
  ];
  const { edge, inward, far, whole } = sides.reduce((best, one) =>
    one.far / one.whole < best.far / best.whole ? one : best,
  );
  // It reaches over all of the words, and fades beyond them.
  const length = Math.min(whole, Math.max(reach * whole, far * 1.25));
  const full = Math.max(fullShare * length, Math.min(far, length * 0.8));
  const at = (distance: number) => ({ x: edge.x + inward.x * distance, y: edge.y + inward.y * distance });
  return { kind: 'shade', within: piece, from: at(full), to: at(length), colour, opacity };
}

function shapePath(form: ShapeItem['form'], box: Rect): string {
  if (form === 'disc') return ellipsePath(box);
  if (form === 'arrow') return arrowPath(box);
  return roundedRectPath(box, form === 'plate' ? Math.min(box.width, box.height) * 0.08 : 0);
}
