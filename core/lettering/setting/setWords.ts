import type { LetterStyle } from '../../model/index.ts';
import type { ChosenFile, FontBook } from '../type/fontBook.ts';
import { movedOutline, type Outline } from '../type/outline.ts';
import { itemize } from '../type/runs.ts';
import { type LineEnds, type Paragraph, toParagraph, waysToBreak } from './breakLines.ts';
import { type SetLine, setLine } from './setLine.ts';

export type Alignment = 'start' | 'middle' | 'end';

/** Words set in lines. Lengths in em; the origin is the upper left corner of their ink. */
export interface SetWords {
  /** As it was given, in any case. */
  text: string;
  width: number;
  height: number;
  lines: number;
  /** Of the smallest font among them. */
  xHeight: number;
  /** Whether the first of them is read from the right. */
  rightToLeft: boolean;
  /** From the top to the baseline of each line. */
  baselines: number[];
  outline(alignment: Alignment): Outline;
}

/** All ways in which words can be set, and what fonts lack for that. */
export interface Settings {
  /** From few lines to many. None where nothing can be set. */
  ways: SetWords[];
  fallbacks: string[];
  missing: string[];
  toLoad: ChosenFile[];
}

/** More lines than this are a text, not a title. */
const mostLines = 12;
/** What stays free at least between the ink of two lines, in em. */
const leastBetween = 0.06;

/** The words as a style writes them. */
const inCase = (text: string, style: Pick<LetterStyle, 'case'>) =>
  style.case === 'capitals' ? text.toUpperCase() : text;

function setAnew(text: string, style: LetterStyle, book: FontBook): Settings {
  const paragraphs = inCase(text.trim(), style)
    .split(/\r\n|[\n\r\u2028\u2029]/u)
    .map((one) => toParagraph(one, itemize(one, style, book), style.letterSpacing, mostLines));
  const all = <Value>(of: (paragraph: Paragraph) => readonly Value[]) => [...new Set(paragraphs.flatMap(of))];
  const found = {
    fallbacks: all(({ fallbacks }) => fallbacks),
    missing: all(({ missing }) => missing),
    toLoad: all(({ toLoad }) => toLoad),
  };
  const isSet = found.toLoad.length === 0 && paragraphs.some(({ runs }) => runs.length > 0);
  const ways = isSet ? waysToBreak(paragraphs, mostLines) : [];
  return { ...found, ways: ways.flatMap((way) => setInLines(text, paragraphs, way, style) ?? []) };
}

/** So many words in so many styles are remembered: a project has few, and every frame asks for them. */
const mostKnown = 400;
const known = new WeakMap<FontBook, Map<string, Settings>>();

/** Sets words in a style, in every number of lines that they can be broken into. */
export function setWords(text: string, style: LetterStyle, book: FontBook): Settings {
  const there = known.get(book) ?? new Map<string, Settings>();
  known.set(book, there);
  const { family, weight, width, letterSpacing, lineHeight, case: how } = style;
  const key = JSON.stringify([text, family, weight, width, letterSpacing, lineHeight, how]);
  const found = there.get(key) ?? setAnew(text, style, book);
  // What waits for a font is set again when that is there.
  if (found.toLoad.length > 0) return found;
  if (there.size >= mostKnown) there.clear();
  there.set(key, found);
  return found;
}

interface Placed extends SetLine {
  baseline: number;
  rightToLeft: boolean;
}

function setInLines(
  written: string,
  paragraphs: readonly Paragraph[],
  way: readonly (readonly LineEnds[])[],
  style: LetterStyle,
): SetWords | null {
  const lines: Placed[] = [];
  let baseline = 0;
  let bottom = Number.NEGATIVE_INFINITY;
  for (const [at, paragraph] of paragraphs.entries()) {
    for (const { start, end } of way[at] ?? []) {
      const { text, runs, rightToLeft } = withHyphen(paragraph, start, end);
      const line = setLine(text, runs, start, text.length, style.letterSpacing);
      if (lines.length > 0) baseline += style.lineHeight;
      // Scripts with tall marks need more room than most lines have.
      if (line.ink) baseline = Math.max(baseline, bottom + leastBetween - line.ink.top);
      if (line.ink) bottom = baseline + line.ink.bottom;
      lines.push({ ...line, baseline, rightToLeft });
    }
  }
  const inked = lines.flatMap((line) => (line.ink ? { ...line, ink: line.ink } : []));
  const [first, last] = [inked[0], inked.at(-1)];
  if (!first || !last) return null;
  const top = Math.min(...inked.map((line) => line.baseline + line.ink.top));
  const width = Math.max(...inked.map(({ ink }) => ink.right - ink.left));
  return {
    text: written,
    width,
    height: Math.max(...inked.map((line) => line.baseline + line.ink.bottom)) - top,
    lines: lines.length,
    rightToLeft: first.rightToLeft,
    xHeight: Math.min(...inked.flatMap(({ glyphs }) => glyphs.map(({ typeface }) => typeface.xHeight))),
    baselines: lines.map((line) => line.baseline - top),
    // Ink is aligned, not advances: the room beside a letter would make an edge of large letters uneven.
    outline: (alignment) =>
      inked.flatMap(({ glyphs, ink, baseline: y, rightToLeft }) => {
        const share = alignment === 'middle' ? 0.5 : (alignment === 'start') !== rightToLeft ? 0 : 1;
        const left = (width - (ink.right - ink.left)) * share - ink.left;
        return glyphs.flatMap(({ typeface, glyph, x }) =>
          movedOutline(typeface.outline(glyph.id), left + x + glyph.right, y - top + glyph.down),
        );
      }),
  };
}

/** Up to the end of a line; where that is a soft hyphen, it is drawn. */
function withHyphen(paragraph: Paragraph, start: number, end: number) {
  const text = paragraph.text.slice(0, end);
  if (end <= start || !text.endsWith('\u00ad')) return { ...paragraph, text };
  return { ...paragraph, text: `${text.slice(0, -1)}-` };
}
