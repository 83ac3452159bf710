import type { Outline } from './outline.ts';

/** A glyph of a shaped run, in the order in which it is drawn, from left to right. Lengths in em, y downwards. */
export interface Glyph {
  id: number;
  /** Where in the text its characters begin, in UTF-16 units. */
  cluster: number;
  advance: number;
  /** How far it is drawn from where it stands. */
  right: number;
  down: number;
}

/** The ink of a glyph, from where it stands on its baseline, in em, y downwards. */
export interface Ink {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** How a run is shaped. */
export interface Shaping {
  rightToLeft: boolean;
  /** Without ligatures, which spaced letters would tear. */
  spaced: boolean;
}

/** One font at one weight and width. */
export interface Typeface {
  /** Height of a lower-case x and of a capital over the baseline, in em. */
  readonly xHeight: number;
  readonly capHeight: number;
  has(codePoint: number): boolean;
  /** Shapes `text`, which is of one script and one direction. */
  shape(text: string, shaping: Shaping): Glyph[];
  outline(glyph: number): Outline;
  /** Null for a glyph without ink, such as a space. */
  ink(glyph: number): Ink | null;
}
