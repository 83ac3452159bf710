import { converter, differenceEuclidean, formatHex } from 'culori';

/** A colour of a picture, sRGB 0..255 each, and how much of the picture has it (any unit). */
export interface PaletteColour {
  red: number;
  green: number;
  blue: number;
  count: number;
}

const toOklab = converter('oklab');
/** Lightness counts half: shades of one colour stand out less than other colours. */
const distance = differenceEuclidean('oklab', [0.25, 1, 1, 0]);
/** A colour's share counts with this power: a small bright sail should stand beside a large dune. */
const sharePower = 0.15;

/**
 * The colours that stand for a picture: first the most frequent, then always the one that is furthest from those chosen
 * (in Oklab, Ottosson 2020), rarer ones counting less. As `#rrggbb`, all different; fewer than `count` where there are
 * no more.
 */
export function coloursStandingOut(palette: readonly PaletteColour[], count: number): string[] {
  const all = palette.map(({ red, green, blue, count: share }) => {
    const colour = { mode: 'rgb' as const, r: red / 255, g: green / 255, b: blue / 255 };
    return { hex: formatHex(colour), oklab: toOklab(colour), weight: share ** sharePower };
  });
  const chosen: typeof all = [];
  while (chosen.length < count) {
    const worth = (one: (typeof all)[number]) =>
      one.weight * Math.min(1, ...chosen.map((other) => distance(one.oklab, other.oklab)));
    const best = all.reduce<(typeof all)[number] | null>(
      (top, one) => (top && worth(top) >= worth(one) ? top : one),
      null,
    );
    if (!best || (chosen.length > 0 && worth(best) === 0)) break;
    chosen.push(best);
  }
  return chosen.map((one) => one.hex);
}
