import { intersection, openRects, type Rect } from '../geometry/index.ts';
import type { Area, Dimensions, KeepMark, Mark, Place } from '../model/index.ts';
import type { ContentArea } from './contentArea.ts';
import {
  besideSides,
  type FacingSide,
  type FramePose,
  facing,
  rectangleSides,
  roundedSides,
  roundSides,
  type Side,
  withinSides,
} from './halfSpaces.ts';
import type { HalfSpace } from './linearProgram.ts';

/** The radius with which places of rounded shape round their corners, in output pixels. */
export const roundedRadius = ({ width, height }: Dimensions) => Math.round(Math.min(width, height) * 0.04);

/** What is asked of a window: all of `all`, and at least one of each list in `oneOf`. */
export interface Constraint {
  all: HalfSpace[];
  oneOf: HalfSpace[][];
}

/** How much of a frame a mark may be asked to lie in, from the most to the least that is good for it. */
export type Zone = 'always shown' | 'open' | 'frame';

const wholeFrame = ({ width, height }: Dimensions): Rect => ({ left: 0, top: 0, width, height });

/** What of the frame is shown by its shape: its sides, and the corners that a mask takes. */
export function shapeSides({ shape, dimensions, inset }: ContentArea): Side[] {
  if (shape === 'circle') return roundSides(dimensions, inset);
  const { width, height } = dimensions;
  const seen = { left: inset.x, top: inset.y, width: width - 2 * inset.x, height: height - 2 * inset.y };
  const sides = rectangleSides(seen, dimensions);
  if (shape === 'rectangle') return sides;
  const radius = Math.max(0, roundedRadius(dimensions) - inset.x);
  return [...sides, ...roundedSides(dimensions, radius, inset)];
}

/** The covered areas that lie on the frame at all, cut to it. */
export function coveredRects(place: Pick<Place, 'covered'>, output: Dimensions): (Rect & Pick<Area, 'reason'>)[] {
  return place.covered
    .map((area) => ({ ...intersection(area, wholeFrame(output)), reason: area.reason }))
    .filter((rect) => rect.width > 0 && rect.height > 0);
}

/** The sides of a frame that demands are made of, worked out once for all marks. */
export interface ConstraintSides {
  zones: Record<Zone, FacingSide[]>;
  /** The four sides of each covered area. */
  covered: FacingSide[][];
  /** The four sides of the whole frame, seen from outside. */
  outside: FacingSide[];
}

export function constraintSidesOf(contentArea: ContentArea, framePose: FramePose): ConstraintSides {
  const { output } = framePose;
  const shape = facing(shapeSides(contentArea), framePose);
  const shown = contentArea.shownPart ? facing(rectangleSides(contentArea.shownPart, output), framePose) : [];
  const beside = (area: Rect) => facing(besideSides(area, output), framePose);
  return {
    zones: { 'always shown': [...shape, ...shown], open: shape, frame: shape },
    covered: coveredRects(contentArea, output).map(beside),
    outside: beside(wholeFrame(output)),
  };
}

/** What keeping a mark within a zone of the frame asks of the window. */
export function keepConstraint(mark: KeepMark, zone: Zone, { zones, covered }: ConstraintSides): Constraint {
  return {
    all: withinSides(mark, zones[zone]),
    oneOf: zone === 'frame' ? [] : covered.map((sides) => withinSides(mark, sides)),
  };
}

/** What keeping a mark out of the frame asks of the window. */
export function avoidConstraint(mark: Mark, { outside }: ConstraintSides): Constraint {
  return { all: [], oneOf: [withinSides(mark, outside)] };
}

/**
 * The largest rectangle of the frame that nothing covers and that is always shown: where a composition is made.
 * Of a few covered areas its sides lie on theirs or on the frame's.
 */
export function openRect({ covered: areas, shownPart, dimensions }: ContentArea): Rect {
  const frame = shownPart ? intersection(shownPart, wholeFrame(dimensions)) : wholeFrame(dimensions);
  const open = openRects(frame, coveredRects({ covered: areas }, dimensions));
  return open.reduce((best, one) => (one.width * one.height > best.width * best.height ? one : best), open[0] ?? frame);
}
