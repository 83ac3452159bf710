/** One step of an outline: where to, with control points first. Lengths in em, y downwards. */
export interface OutlineStep {
  type: 'M' | 'L' | 'Q' | 'C' | 'Z';
  /** x and y of each point, in turn. */
  values: readonly number[];
}

/** A closed shape, filled by the nonzero rule. */
export type Outline = readonly OutlineStep[];

/** Hundredths of a pixel: finer steps cannot be seen, and make plans longer. */
const rounded = (value: number) => Math.round(value * 100) / 100;

/**
 * An outline as SVG path data, at a place in a picture.
 *
 * @param em pixels to one em
 * @param left, top where the outline's origin lies, in pixels
 */
export function pathData(outline: Outline, em: number, left: number, top: number): string {
  let path = '';
  for (const { type, values } of outline) {
    path += type;
    for (let at = 0; at < values.length; at += 2) {
      if (at > 0) path += ' ';
      path += `${rounded((values[at] as number) * em + left)} ${rounded((values[at + 1] as number) * em + top)}`;
    }
  }
  return path;
}

/** An outline moved, in em. */
export const movedOutline = (outline: Outline, right: number, down: number): Outline =>
  outline.map(({ type, values }) => ({ type, values: values.map((value, at) => value + (at % 2 ? down : right)) }));
