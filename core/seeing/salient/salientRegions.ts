import type { Rect } from '../../geometry/index.ts';
import type { Raster } from '../../planes/index.ts';
import { connectedParts } from '../connectedParts.ts';
import { saliencyOf } from './saliency.ts';
import { differenceFromSurround } from './surround.ts';

/** A part of a picture that stands out from what surrounds it. */
export interface SalientRegion {
  rect: Rect;
  /** By how many levels it differs from what leads to the picture's edge. */
  contrast: number;
  /** How much of all that stands out lies in it, 0..1. */
  share: number;
}

/** What stands out by less than this many levels does not: paper, sand and sky vary as much. */
const leastContrast = 48;
/** Of the greatest contrast, this much belongs to what stands out. */
const partOfMost = 0.5;
/** A region takes at least this share of the picture, its rectangle at most that, and it fills as much of its rectangle. */
const areas = { least: 0.004, most: 0.5, ofRect: 0.42 };
/** The middle of a pattern differs from what surrounds it by less than 0.1, subjects of photographs by more than 0.3. */
const leastDifference = 0.2;
/** The first region says something where this much of what stands out lies in it; a second is named from this share on. */
const shares = { first: 0.5, second: 0.3 };

/** One or two regions that stand out, the strongest first; none where nothing does, or everything. */
export function salientRegions(raster: Raster): SalientRegion[] {
  const { data, width, height } = saliencyOf(raster);
  const most = data.reduce((highest, value) => Math.max(highest, value), 0);
  if (most < leastContrast) return [];
  const regions = connectedParts(width, height, (at) => (data[at] as number) >= partOfMost * most).map((part) => {
    return {
      rect: part.rect,
      count: part.pixels.length,
      mass: part.pixels.reduce((sum, at) => sum + (data[at] as number), 0),
    };
  });
  const isPart = (rect: Rect) => rect.width * rect.height <= areas.most * width * height;
  const all = regions.reduce((sum, { mass }) => sum + mass, 0);
  const standing = regions
    .filter(({ count, rect }) => {
      const share = count / (width * height);
      const isShaped = share >= areas.least && isPart(rect) && count >= areas.ofRect * rect.width * rect.height;
      return isShaped && differenceFromSurround(raster, rect) >= leastDifference;
    })
    .map(({ rect, mass, count }) => ({ rect, contrast: mass / count, share: mass / all }))
    .sort((a, b) => b.share - a.share);
  const [first, second] = standing;
  if (!first) return [];
  if (second && second.share >= shares.second) return first.share + second.share >= 0.75 ? [first, second] : [];
  return first.share >= shares.first ? [first] : [];
}
