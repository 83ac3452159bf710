import { balancedBreaks, type Piece } from '../breaking/balanced.ts';
import { breakOpportunities } from '../breaking/opportunities.ts';
import type { Itemized } from '../type/runs.ts';
import { shapeRun } from './setLine.ts';

/** Where a line begins and ends in its paragraph, in UTF-16 units, without the spaces at its end. */
export interface LineEnds {
  start: number;
  end: number;
}

/** A paragraph in so many lines. */
interface Broken {
  lines: LineEnds[];
  /** About the width of the widest, in em. */
  widest: number;
}

/** One paragraph, which is what stands between two breaks by hand. */
export interface Paragraph extends Itemized {
  text: string;
  /** In 1 line, in 2, and so on, as far as it can be broken. */
  ways: Broken[];
}

/** Finds out how a paragraph can be broken. @param spacing what is added after every letter, in em @param most lines */
export function toParagraph(text: string, itemized: Itemized, spacing: number, most: number): Paragraph {
  const advances = new Float64Array(text.length + 1);
  for (const run of itemized.runs) {
    const { glyphs, spacing: own } = shapeRun(text.slice(run.start, run.end), run, spacing);
    for (const { cluster, advance } of glyphs) {
      const at = run.start + cluster;
      advances[at] = (advances[at] ?? 0) + (advance === 0 ? 0 : advance + own);
    }
  }
  const widthOf = (from: number, to: number) => advances.subarray(from, to).reduce((sum, advance) => sum + advance, 0);
  const inkedEnd = (start: number, end: number) => start + text.slice(start, end).trimEnd().length;
  const ends = breakOpportunities(text);
  const pieces = ends.map((end, at): Piece => {
    const start = ends[at - 1] ?? 0;
    const inked = inkedEnd(start, end);
    return { width: widthOf(start, inked), space: widthOf(inked, end) };
  });
  const ways = balancedBreaks(pieces, most).map((breaks): Broken => {
    const lines = breaks.map((piece, at): LineEnds => {
      const start = ends[(breaks[at - 1] ?? 0) - 1] ?? 0;
      return { start, end: inkedEnd(start, ends[piece - 1] ?? text.length) };
    });
    return { lines, widest: Math.max(...lines.map(({ start, end }) => widthOf(start, end))) };
  });
  // An empty paragraph is an empty line.
  return { ...itemized, text, ways: ways.length > 0 ? ways : [{ lines: [{ start: 0, end: 0 }], widest: 0 }] };
}

/**
 * The lines of each paragraph, in all ways: as few as there are paragraphs at first, then one more at a time, where the widest line
 * is.
 *
 * @param most lines in all
 */
export function waysToBreak(paragraphs: readonly Paragraph[], most: number): LineEnds[][][] {
  const counts = paragraphs.map(() => 1);
  const brokenAt = (at: number) => paragraphs[at]?.ways[(counts[at] ?? 1) - 1];
  const now = () => paragraphs.map((_, at) => brokenAt(at)?.lines ?? []);
  const ways = [now()];
  for (let all = counts.length; all < most; all += 1) {
    const breakable = [...paragraphs.entries()].filter(([at, { ways: own }]) => (counts[at] ?? 0) < own.length);
    const [widest] = breakable
      .map(([at]) => ({ at, width: brokenAt(at)?.widest ?? 0 }))
      .sort((a, b) => b.width - a.width);
    if (!widest) break;
    counts[widest.at] = (counts[widest.at] ?? 1) + 1;
    ways.push(now());
  }
  return ways;
}
