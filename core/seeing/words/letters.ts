import type { Rect } from '../../geometry/index.ts';
import { coloursOf, type Raster } from '../../planes/index.ts';
import { type ComponentTree, componentTree } from './componentTree.ts';
import { stableParts } from './stableParts.ts';
import { strokeOf } from './strokeWidth.ts';

/** A part of a picture that may be a letter, or letters that touch. */
export interface Letter {
  left: number;
  top: number;
  width: number;
  height: number;
  /** How many of its pixels there are. */
  area: number;
  /** Lighter than what surrounds it. */
  isLight: boolean;
  /** The width of its strokes, in pixels. */
  stroke: number;
  /** How much its strokes differ in width: their standard deviation over their mean. */
  strokeSpread: number;
  /** Its mean colour, and that of what surrounds it. */
  colour: readonly number[];
  around: readonly number[];
}

const leastHeight = 6;
const leastArea = 12;
/** A letter takes no more of the picture's height or width than this. */
const most = { height: 0.6, width: 0.9, area: 0.2 };
/** A stroke is no wider than this part of the letter's height. */
const mostStroke = 0.45;
const mostStrokeSpread = 0.85;
/** Less than so many levels between a letter and its ground are not read. */
const leastContrast = 22;

/** The parts of a picture that may be letters, light ones and dark ones. @param levels its luminance */
export function lettersOf(picture: Raster, levels: Uint8Array): Letter[] {
  const dark = levels.map((level) => 255 - level);
  return [...lightLetters(picture, levels, true), ...lightLetters(picture, dark, false)];
}

function lightLetters(picture: Raster, levels: Uint8Array, isLight: boolean): Letter[] {
  const { width, height } = picture;
  const tree = componentTree(levels, width, height);
  const parts = stableParts(tree, (part) => {
    const [wide, high] = sizeOf(tree, part);
    const area = tree.area[part] as number;
    // What the picture's edge cuts is no whole letter.
    const isWhole =
      (tree.left[part] as number) > 0 &&
      (tree.top[part] as number) > 0 &&
      (tree.right[part] as number) < width - 1 &&
      (tree.bottom[part] as number) < height - 1;
    return (
      isWhole &&
      Math.max(wide, high) >= leastHeight &&
      area >= leastArea &&
      high <= most.height * height &&
      wide <= most.width * width &&
      wide * high <= most.area * width * height &&
      wide <= 14 * high &&
      high <= 14 * wide
    );
  });
  return parts.flatMap((part) => {
    const letter = letterOf(picture, levels, tree, part, isLight);
    return letter ? [letter] : [];
  });
}

const sizeOf = ({ left, top, right, bottom }: ComponentTree, part: number) =>
  [(right[part] as number) - (left[part] as number) + 1, (bottom[part] as number) - (top[part] as number) + 1] as const;

/** What can be said of a part; null where it is no letter. */
function letterOf(
  picture: Raster,
  levels: Uint8Array,
  tree: ComponentTree,
  part: number,
  isLight: boolean,
): Letter | null {
  const [width, height] = sizeOf(tree, part);
  const [left, top] = [tree.left[part] as number, tree.top[part] as number];
  const area = tree.area[part] as number;
  const mask = maskOf(levels, picture.width, tree.pixel[part] as number, { left, top, width, height });
  const { stroke, spread } = strokeOf(mask, width + 2, height + 2);
  const long = Math.max(width, height);
  if (stroke > mostStroke * long || (spread > mostStrokeSpread && stroke > 2)) return null;
  const { colour, around } = coloursAt(picture, mask, { left, top, width, height });
  const contrast = Math.max(...colour.map((value, channel) => Math.abs(value - (around[channel] as number))));
  if (contrast < leastContrast) return null;
  return { left, top, width, height, area, isLight, stroke, strokeSpread: spread, colour, around };
}

/** 1 for every pixel of a part in its box, which has a rim of one pixel. @param from one of its darkest pixels */
function maskOf(levels: Uint8Array, across: number, from: number, { left, top, width, height }: Rect): Uint8Array {
  const stride = width + 2;
  const mask = new Uint8Array(stride * (height + 2));
  const least = levels[from] as number;
  const waiting: number[] = [];
  const take = (x: number, y: number) => {
    if (x < left || y < top || x >= left + width || y >= top + height) return;
    const place = (y - top + 1) * stride + x - left + 1;
    if (mask[place] === 1 || (levels[y * across + x] as number) < least) return;
    mask[place] = 1;
    waiting.push(x, y);
  };
  take(from % across, Math.floor(from / across));
  while (waiting.length > 0) {
    const [y, x] = [waiting.pop() as number, waiting.pop() as number];
    for (let ny = y - 1; ny <= y + 1; ny += 1) {
      for (let nx = x - 1; nx <= x + 1; nx += 1) take(nx, ny);
    }
  }
  return mask;
}

/** The mean colour of a part, and that of the rest of its box with a rim. */
function coloursAt({ data, width, height, channels }: Raster, mask: Uint8Array, box: Rect) {
  const colours = coloursOf({ channels });
  const [inside, outside] = [new Array<number>(colours).fill(0), new Array<number>(colours).fill(0)];
  let [within, without] = [0, 0];
  const stride = box.width + 2;
  for (let row = 0; row < box.height + 2; row += 1) {
    const y = box.top + row - 1;
    if (y < 0 || y >= height) continue;
    for (let column = 0; column < stride; column += 1) {
      const x = box.left + column - 1;
      if (x < 0 || x >= width) continue;
      const isIn = mask[row * stride + column] === 1;
      if (isIn) within += 1;
      else without += 1;
      const sums = isIn ? inside : outside;
      for (let channel = 0; channel < colours; channel += 1) {
        sums[channel] = (sums[channel] as number) + (data[(y * width + x) * channels + channel] as number);
      }
    }
  }
  return {
    colour: inside.map((sum) => sum / Math.max(1, within)),
    around: outside.map((sum) => sum / Math.max(1, without)),
  };
}
