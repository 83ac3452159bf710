import { area, intersection, type Rect, sharedPart } from '../geometry/index.ts';
import type { Dimensions } from '../model/index.ts';

/** Something that a detector reports in one look at a picture, or at a part of it. */
export interface Detection {
  /** What it is taken for. */
  name: string;
  /** 0..1 */
  score: number;
  rect: Rect;
}

/** Two reports of one thing share this much; of things that are taken for something else, that much. */
const sameName = 0.4;
const otherName = 0.7;
/** What lies in something of the same name for so much of itself is a part of it. */
const within = 0.8;

/** Whether a report from a tile is cut off by it: what reaches over an edge that is not the picture's is whole in another look. */
export function isCutOff(rect: Rect, tile: Rect, picture: Dimensions): boolean {
  const near = 0.015 * tile.width;
  return (
    (tile.left > 0 && rect.left < tile.left + near) ||
    (tile.top > 0 && rect.top < tile.top + near) ||
    (tile.left + tile.width < picture.width && rect.left + rect.width > tile.left + tile.width - near) ||
    (tile.top + tile.height < picture.height && rect.top + rect.height > tile.top + tile.height - near)
  );
}

/** Of reports of one thing the one that is the surest, the surest first (non-maximum suppression). */
export function merged<Reported extends Detection>(detections: readonly Reported[]): Reported[] {
  const kept: Reported[] = [];
  for (const one of [...detections].sort((a, b) => b.score - a.score)) {
    const isKnown = kept.some((other) => {
      const shared = sharedPart(one.rect, other.rect);
      if (one.name !== other.name) return shared >= otherName;
      return shared >= sameName || area(intersection(one.rect, other.rect)) >= within * area(one.rect);
    });
    if (!isKnown) kept.push(one);
  }
  return kept;
}
