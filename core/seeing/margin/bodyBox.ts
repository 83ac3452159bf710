import { type Rect, union } from '../../geometry/index.ts';
import type { Raster } from '../../planes/index.ts';
import { connectedParts } from '../connectedParts.ts';
import { contentTest, marginOf } from './margin.ts';

/** How far a channel may differ from the margin's colour and still belong to the margin, in levels of 255. */
const tolerance = 12;
/** Artwork has a margin where this much of the picture's rim is one colour, or transparent. */
const leastMargin = 0.95;
/** A part stands apart where it is this far from the body, in shares of the picture's longer side. */
const apart = 0.02;
/** A part that stands apart belongs to the body where it takes this share of the body's area. */
const leastArea = 0.02;

/**
 * The body of artwork that lies on an empty margin: its largest part, and what lies near it or is large as well. Stray bits that
 * stand apart are left out, and a shadow that fades into the margin. Null where there is no margin, or nothing on it.
 */
export function bodyBox(pixels: Raster): Rect | null {
  const { width, height } = pixels;
  const margin = marginOf(pixels, tolerance);
  if (margin.share < leastMargin) return null;
  const parts = connectedParts(width, height, contentTest(pixels, margin, tolerance, false));
  parts.sort((a, b) => b.pixels.length - a.pixels.length);
  const [largest, ...others] = parts;
  if (!largest) return null;
  const far = apart * Math.max(width, height);
  let body = largest.rect;
  let rest = others;
  // What has joined the body may bring near what was apart from it.
  for (let joined = true; joined; ) {
    const near = rest.filter(({ rect, pixels: area }) => {
      return isNear(rect, body, far) || area.length >= leastArea * largest.pixels.length;
    });
    joined = near.length > 0;
    rest = rest.filter((part) => !near.includes(part));
    for (const { rect } of near) body = union(body, rect);
  }
  return body;
}

const isNear = (one: Rect, other: Rect, far: number) =>
  one.left - far <= other.left + other.width &&
  other.left - far <= one.left + one.width &&
  one.top - far <= other.top + other.height &&
  other.top - far <= one.top + one.height;
