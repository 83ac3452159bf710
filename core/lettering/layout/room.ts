import { intersection, openRects, type Rect, type Seam } from '../../geometry/index.ts';
import type { Dimensions, Place } from '../../model/index.ts';

/** What there is of a frame, or of one of its pieces, for items to stand on. In pixels of the file. */
export interface Room {
  /** Within the margins. */
  bounds: Rect;
  /** What no item may cover: what the network covers, what is cut off, keep marks, what was placed before. */
  closed: Rect[];
  /** What they should not cover: what was seen and nobody has confirmed. */
  spared: Rect[];
  /** What no letter may meet, where items lie over several pieces. */
  seams: readonly Seam[];
}

/** Margins, as a share of the shorter side. */
const marginShare = 0.045;
const marginOf = ({ width, height }: Dimensions) => Math.min(width, height) * marginShare;

/** A frame or a piece without its margins. */
export function withinMargins({ left, top, width, height }: Rect, margin = marginOf({ width, height })): Rect {
  return {
    left: left + margin,
    top: top + margin,
    width: Math.max(1, width - 2 * margin),
    height: Math.max(1, height - 2 * margin),
  };
}

/** A quarter of an ellipse is cut into so many steps of equal angles. */
const steps = 10;

/** What a mask takes of each corner of `box`, as rectangles that hold all that lies outside of its rounding. */
function cornersOf(box: Rect, radius: { x: number; y: number }): Rect[] {
  const heightAt = (step: number) => 1 - Math.cos((step / steps) * (Math.PI / 2));
  return Array.from({ length: steps }, (_, step) => {
    // A step is as wide as what is cut off at its outer end, where that is widest.
    const width = radius.x * (1 - Math.sin((step / steps) * (Math.PI / 2)));
    const [from, to] = [radius.y * heightAt(step), radius.y * heightAt(step + 1)];
    const [left, right] = [box.left, box.left + box.width - width];
    const [top, bottom] = [box.top + from, box.top + box.height - to];
    const size = { width, height: to - from };
    return [left, right].flatMap((x) => [top, bottom].map((y) => ({ left: x, top: y, ...size })));
  }).flat();
}

/**
 * The room of a frame or a piece.
 *
 * @param box the part of the file that is looked at
 */
export function roomIn(
  box: Rect,
  place: Pick<Place, 'shape' | 'shownPart'>,
  roundedRadius: number,
  closed: readonly Rect[],
  spared: readonly Rect[],
  seams: readonly Seam[] = [],
): Room {
  const margin = marginOf(box);
  const bounds = withinMargins(place.shownPart ? intersection(box, place.shownPart) : box, margin);
  const inset = withinMargins(box);
  const radius = Math.max(0, roundedRadius - margin);
  const corners =
    place.shape === 'circle'
      ? cornersOf(inset, { x: inset.width / 2, y: inset.height / 2 })
      : place.shape === 'rounded' && radius > 0
        ? cornersOf(inset, { x: radius, y: radius })
        : [];
  const meets = (rect: Rect) => {
    const { width, height } = intersection(rect, bounds);
    return width > 0 && height > 0;
  };
  return { bounds, closed: [...closed, ...corners].filter(meets), spared: spared.filter(meets), seams };
}

/** The rectangles in which items can stand. @param sparing whether what was only seen is kept free as well */
export const openIn = ({ bounds, closed, spared }: Room, sparing: boolean, least: Dimensions): Rect[] =>
  openRects(bounds, sparing ? [...closed, ...spared] : closed, least);
