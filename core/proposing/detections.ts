import { area, intersection, type Rect, sharedPart } from '../geometry/index.ts';

/** Something that a detector reports in one look at a picture. */
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
