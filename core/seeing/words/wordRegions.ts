import { type Rect, union } from '../../geometry/index.ts';
import type { Raster } from '../../planes/index.ts';
import { luminancePlane } from '../luminance.ts';
import { type Letter, lettersOf } from './letters.ts';
import { type LineFigures, lineFigures } from './lineFigures.ts';
import { type TextLine, textLines } from './textLines.ts';

/** A line or a block of words. */
export interface WordRegion {
  rect: Rect;
  /** How many letters were found in it, and how clearly they differ from their ground, 0..1. */
  letters: number;
  clearness: number;
}

/** What a row of letters is like: at least so many letters, levels and clearness, and no more differences than these. */
interface Bounds {
  letters: number;
  twoLevels: number;
  contrast: number;
  strokes: number;
  heights: number;
  stray: number;
}

/**
 * The rows that are words: those that meet one of these. The fewer letters a row has, the clearer it has to be, for a few leaves
 * or bricks often stand in a row. Chosen on made posters against photographs without words: see bench/RESULTS.md.
 */
const kinds: readonly Bounds[] = [
  { letters: 3, twoLevels: 0.84, contrast: 80, strokes: 0.32, heights: 0.3, stray: 0.1 },
  { letters: 4, twoLevels: 0.86, contrast: 84, strokes: 0.6, heights: 0.36, stray: 0.2 },
  { letters: 5, twoLevels: 0.78, contrast: 60, strokes: 0.4, heights: 0.38, stray: 0.12 },
  { letters: 5, twoLevels: 0.86, contrast: 40, strokes: 0.35, heights: 0.35, stray: 0.1 },
  { letters: 8, twoLevels: 0.84, contrast: 100, strokes: 0.6, heights: 0.45, stray: 0.2 },
  { letters: 10, twoLevels: 0.67, contrast: 80, strokes: 0.35, heights: 0.35, stray: 0.12 },
];
/** Words of letters that touch have few parts, which stand for at least so many letters and are as clear as this. */
const touching: Bounds = { letters: 4, twoLevels: 0.88, contrast: 100, strokes: 0.3, heights: 0.36, stray: 0.16 };
/** The same for a word that is one part. */
const alone: Bounds = { ...touching, letters: 3, twoLevels: 0.9, contrast: 110 };
/** A row leans no more than this, in degrees. */
const mostLean = 15;
/** Letters fill this part of their boxes, and differ at least so much in shape; their strokes are so wide at most, in heights. */
const fill = { least: 0.27, most: 0.86 };
const leastShapes = 0.012;
const mostStroke = 0.36;
/** Letters stand closer than this, in heights; legs and posts do not. */
const mostGap = 0.75;
/** Bricks and windows fill their boxes: of what is as full, the contrast has to be that of ink. */
const full = { fill: 0.72, contrast: 60 };

/**
 * The lines and blocks of words in a picture, found without reading them: parts that keep their shape over many levels and are
 * drawn in strokes (after Neumann and Matas 2012, and Epshtein, Ofek and Wexler 2010), in rows of one height, colour and stroke.
 *
 * @param picture about a thousand pixels long: letters are found from six pixels of height on
 */
export function wordRegions(picture: Raster): WordRegion[] {
  const levels = luminancePlane(picture);
  // Clamped bytes are rounded ones.
  const letters = lettersOf(picture, new Uint8Array(new Uint8ClampedArray(levels.data).buffer));
  const lines = textLines(letters).flatMap((line) => {
    const figures = lineFigures(line, levels);
    return areWords(line, figures) ? [regionOf(line, figures)] : [];
  });
  return blocksOf(withoutWithin(lines));
}

/** Letters that touch are one part: so many letters a part stands for, by its width. */
const lettersIn = (letters: readonly Letter[]) =>
  letters.reduce((sum, { width, height }) => sum + Math.max(1, Math.round(width / (0.7 * height))), 0);

function areWords({ letters }: TextLine, figures: LineFigures): boolean {
  const isDrawn =
    Math.abs(figures.lean) <= mostLean &&
    figures.fill >= fill.least &&
    figures.fill <= fill.most &&
    (letters.length === 1 || figures.shapes >= leastShapes) &&
    figures.stroke <= mostStroke &&
    figures.gap <= mostGap &&
    (figures.fill < full.fill || figures.contrast >= full.contrast);
  if (!isDrawn) return false;
  return (
    kinds.some((kind) => meets(kind, letters.length, figures)) ||
    meets(letters.length > 1 ? touching : alone, lettersIn(letters), figures)
  );
}

const meets = (bounds: Bounds, letters: number, figures: LineFigures) =>
  letters >= bounds.letters &&
  figures.twoLevels >= bounds.twoLevels &&
  figures.contrast >= bounds.contrast &&
  figures.strokes <= bounds.strokes &&
  figures.heights <= bounds.heights &&
  figures.stray <= bounds.stray;

interface LineRegion extends WordRegion {
  /** The height of its letters. */
  height: number;
}

/** Soft edges, accents and apostrophes stand out by so much, in heights of letters. */
const rim = 0.05;

function regionOf({ left, top, right, bottom, letters, height }: TextLine, { twoLevels }: LineFigures): LineRegion {
  const out = rim * height;
  return {
    rect: { left: left - out, top: top - out, width: right - left + 2 * out, height: bottom - top + 2 * out },
    letters: lettersIn(letters),
    clearness: twoLevels,
    height,
  };
}

const overlap = (a: Rect, b: Rect) => {
  const wide = Math.min(a.left + a.width, b.left + b.width) - Math.max(a.left, b.left);
  const high = Math.min(a.top + a.height, b.top + b.height) - Math.max(a.top, b.top);
  return { wide, high, area: Math.max(0, wide) * Math.max(0, high) };
};

/** What is left out lies within another: the hollows of letters stand in a row as their letters do. */
function withoutWithin(lines: readonly LineRegion[]): LineRegion[] {
  const bySize = [...lines].sort((a, b) => b.rect.width * b.rect.height - a.rect.width * a.rect.height);
  return bySize.filter((one, at) => {
    const mine = one.rect.width * one.rect.height;
    return !bySize.slice(0, at).some((other) => overlap(one.rect, other.rect).area >= 0.6 * mine);
  });
}

/** Lines of one size that stand close beside or under each other are one block. */
function blocksOf(lines: readonly LineRegion[]): WordRegion[] {
  const blocks = [...lines];
  for (let at = 0; at < blocks.length; at += 1) {
    for (let next = at + 1; next < blocks.length; next += 1) {
      const [one, other] = [blocks[at] as LineRegion, blocks[next] as LineRegion];
      if (!belongTogether(one, other)) continue;
      blocks[at] = merged(one, other);
      blocks.splice(next, 1);
      next = at;
    }
  }
  return blocks.map(({ rect, letters, clearness }) => ({ rect, letters, clearness }));
}

function belongTogether(one: LineRegion, other: LineRegion): boolean {
  const [low, high] = [Math.min(one.height, other.height), Math.max(one.height, other.height)];
  const { wide, high: shared } = overlap(one.rect, other.rect);
  if (high > 1.6 * low) return false;
  const isUnder = wide > 0.3 * Math.min(one.rect.width, other.rect.width) && shared > -0.7 * low;
  const isBeside = shared > 0.5 * low && wide > -1.2 * low;
  return isUnder || isBeside;
}

const merged = (one: LineRegion, other: LineRegion): LineRegion => ({
  rect: union(one.rect, other.rect),
  letters: one.letters + other.letters,
  clearness: Math.max(one.clearness, other.clearness),
  height: Math.max(one.height, other.height),
});
