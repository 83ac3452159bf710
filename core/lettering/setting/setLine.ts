import { type Run, visualOrder } from '../type/runs.ts';
import type { Glyph, Ink, Typeface } from '../type/typeface.ts';

/** A glyph where it stands on its line, in em from the line's beginning. */
interface SetGlyph {
  typeface: Typeface;
  glyph: Glyph;
  x: number;
}

/** A line in the order in which it is seen, from left to right. */
export interface SetLine {
  glyphs: SetGlyph[];
  /** Of the whole line, from the beginning of its baseline; null for a line without ink. */
  ink: Ink | null;
}

/** Letters that are joined to each other cannot be spaced. */
const joined = /\p{Script=Arabic}|\p{Script=Devanagari}/u;

/** Shapes one run; letters of joined scripts keep together whatever the spacing. */
export function shapeRun(
  text: string,
  { level, typeface }: Run,
  spacing: number,
): { glyphs: Glyph[]; spacing: number } {
  const own = joined.test(text) ? 0 : spacing;
  return { glyphs: typeface.shape(text, { rightToLeft: (level & 1) === 1, spaced: own !== 0 }), spacing: own };
}

/**
 * Sets the part of a text from `start` to `end` on one line.
 *
 * @param spacing what is added after every letter, in em
 */
export function setLine(text: string, runs: readonly Run[], start: number, end: number, spacing: number): SetLine {
  const parts = runs
    .map((run) => ({ ...run, start: Math.max(start, run.start), end: Math.min(end, run.end) }))
    .filter((run) => run.start < run.end);
  const glyphs: SetGlyph[] = [];
  let x = 0;
  for (const run of visualOrder(parts)) {
    const shaped = shapeRun(text.slice(run.start, run.end), run, spacing);
    for (const glyph of shaped.glyphs) {
      glyphs.push({ typeface: run.typeface, glyph, x });
      // A mark stands over the letter before it.
      x += glyph.advance === 0 ? 0 : glyph.advance + shaped.spacing;
    }
  }
  return { glyphs, ink: inkOf(glyphs) };
}

function inkOf(glyphs: readonly SetGlyph[]): Ink | null {
  const inks = glyphs.flatMap(({ typeface, glyph, x }) => {
    const ink = typeface.ink(glyph.id);
    const [right, down] = [x + glyph.right, glyph.down];
    return ink
      ? { left: ink.left + right, top: ink.top + down, right: ink.right + right, bottom: ink.bottom + down }
      : [];
  });
  if (inks.length === 0) return null;
  return {
    left: Math.min(...inks.map(({ left }) => left)),
    top: Math.min(...inks.map(({ top }) => top)),
    right: Math.max(...inks.map(({ right }) => right)),
    bottom: Math.max(...inks.map(({ bottom }) => bottom)),
  };
}
