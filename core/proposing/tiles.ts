import type { Rect } from '../geometry/index.ts';
import type { Dimensions } from '../model/index.ts';

/** A picture this much longer than wide is looked at in squares of its shorter side; one that is nearly square in smaller ones. */
const elongated = 1.2;
/** Of a picture that is nearly square, a tile has this part of the shorter side. */
const tilePart = 0.65;
/** Tiles overlap by at least this part of their side, so that what lies on an edge is whole in one of them. */
const overlap = 0.3;
/** More tiles than this take too long: those of a panorama lie further apart, or are larger. */
const mostTiles = 5;

/**
 * The square parts of a picture that a detector looks at beside the whole of it: it sees a picture of a few hundred pixels, in
 * which small subjects of a large picture are lost.
 */
export function tilesOf({ width, height }: Dimensions): Rect[] {
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  if (long < elongated * short) {
    const side = Math.round(tilePart * short);
    return [0, height - side].flatMap((top) =>
      [0, width - side].map((left) => ({ left, top, width: side, height: side })),
    );
  }
  const side = short;
  const wanted = Math.max(2, Math.ceil((long - side) / (side * (1 - overlap))) + 1);
  const count = Math.min(mostTiles, wanted);
  return Array.from({ length: count }, (_, at) => {
    const from = Math.round(((long - side) * at) / (count - 1));
    return width >= height
      ? { left: from, top: 0, width: side, height: side }
      : { left: 0, top: from, width: side, height: side };
  });
}
