import type * as HarfBuzz from 'harfbuzzjs';
import type { Outline, OutlineStep } from './outline.ts';
import type { Glyph, Ink, Shaping, Typeface } from './typeface.ts';

/** The shaping library, which every side loads in its own way. */
export type Shaper = typeof HarfBuzz;

/** A variable font's position on its axes; a fixed font has none. */
export interface Axes {
  weight: number;
  width: number;
}

/** What a font without a letter x or H is taken to have, in em. */
const usual = { xHeight: 0.5, capHeight: 0.7 };

/**
 * Opens a font file for setting.
 *
 * @throws where the bytes are no font
 */
export function openTypeface(shaper: Shaper, bytes: Uint8Array, { weight, width }: Axes): Typeface {
  const face = new shaper.Face(new shaper.Blob(bytes));
  if (face.upem <= 0 || face.collectUnicodes().length === 0) throw new Error('The file holds no font.');
  const font = new shaper.Font(face);
  font.setVariations([new shaper.Variation('wght', weight), new shaper.Variation('wdth', width)]);
  const em = face.upem;
  const buffer = new shaper.Buffer();
  const outlines = new Map<number, Outline>();
  const inks = new Map<number, Ink | null>();

  const heightOf = (letter: string, otherwise: number): number => {
    const glyph = font.glyph(letter.codePointAt(0) as number);
    return (glyph && -(inkOf(glyph)?.top ?? -otherwise)) || otherwise;
  };
  const inkOf = (glyph: number): Ink | null => {
    const extents = font.glyphExtents(glyph);
    if (!extents || extents.width === 0) return null;
    const { xBearing, yBearing, width: across, height: down } = extents;
    return {
      left: xBearing / em,
      top: -yBearing / em,
      right: (xBearing + across) / em,
      bottom: -(yBearing + down) / em,
    };
  };
  return {
    xHeight: heightOf('x', usual.xHeight),
    capHeight: heightOf('H', usual.capHeight),
    has: (codePoint) => (font.glyph(codePoint) ?? 0) !== 0,
    shape: (text, shaping) => shapedBy(shaper, font, buffer, em, text, shaping),
    outline: (glyph) => remembered(outlines, glyph, () => font.glyphToJson(glyph).map((step) => stepOf(step, em))),
    ink: (glyph) => remembered(inks, glyph, () => inkOf(glyph)),
  };
}

function remembered<Value>(known: Map<number, Value>, glyph: number, find: () => Value): Value {
  const there = known.get(glyph);
  if (there !== undefined) return there;
  const found = find();
  known.set(glyph, found);
  return found;
}

/** The library's y grows upwards. */
const stepOf = ({ type, values }: HarfBuzz.SvgPathCommand, em: number): OutlineStep => ({
  type: type as OutlineStep['type'],
  values: values.map((value, at) => (at % 2 ? -value : value) / em),
});

function shapedBy(
  shaper: Shaper,
  font: HarfBuzz.Font,
  buffer: HarfBuzz.Buffer,
  em: number,
  text: string,
  { rightToLeft, spaced }: Shaping,
): Glyph[] {
  buffer.reset();
  buffer.addText(text);
  buffer.setDirection(rightToLeft ? shaper.Direction.RTL : shaper.Direction.LTR);
  buffer.guessSegmentProperties();
  const off = spaced ? ['liga', 'clig', 'calt'].map((tag) => new shaper.Feature(tag, 0)) : [];
  shaper.shape(font, buffer, off);
  return buffer.getGlyphInfosAndPositions().map(({ codepoint, cluster, xAdvance = 0, xOffset = 0, yOffset = 0 }) => ({
    id: codepoint,
    cluster,
    advance: xAdvance / em,
    right: xOffset / em,
    down: -yOffset / em,
  }));
}
