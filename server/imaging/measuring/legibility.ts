import { intersection, piecesOf, type Rect } from '@inkwell/core/geometry';
import { inkLuminance, legibilityOf } from '@inkwell/core/lettering';
import type { Legibility, LetteredItem, LetterLayer } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { painted } from '../stages/outlines.ts';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';
import { decoded } from './opening.ts';

/** So much round an item is looked at, in its em. */
const round = 0.6;

/**
 * How well the words of a plan can be read at every width at which its files are shown, measured on the files' own bytes. Of an item
 * that stands on several pieces the worst counts.
 *
 * @param files of the plan, in reading order
 */
export async function measureLegibility(
  { lettering, grid, output }: Pick<RenderPlan, 'lettering' | 'grid' | 'output'>,
  files: readonly Buffer[],
  shownWidths: readonly number[],
): Promise<Legibility[]> {
  const found = new Map<string, Legibility>();
  const pieces = grid ? piecesOf(grid) : [{ left: 0, top: 0, ...output }];
  for (const [at, piece] of pieces.entries()) {
    const words = lettersOn(piece, lettering);
    const file = files[at];
    if (!file || words.length === 0) continue;
    const picture = await toPixels(fromPixels(await decoded(file)).flatten({ background: 'white' }));
    for (const letters of words) {
      for (const one of await legibilitiesOf(letters, picture, piece, shownWidths)) {
        const key = `${one.itemId} ${one.shownWidth}`;
        const before = found.get(key);
        if (!before || one.contrast < before.contrast) found.set(key, one);
      }
    }
  }
  return [...found.values()];
}

type Letters = {
  item: LetteredItem;
  layer: Extract<LetterLayer, { kind: 'outline' }>;
  scale: NonNullable<RenderPlan['lettering']>['scale'];
};

/** The words that a piece shows something of. */
const lettersOn = (piece: Rect, lettering: RenderPlan['lettering']): Letters[] =>
  (lettering?.items ?? []).flatMap((item) => {
    const layer = item.letters === null ? undefined : lettering?.layers[item.letters];
    const { width, height } = intersection(item.box, piece);
    return lettering && layer?.kind === 'outline' && width > 1 && height > 1
      ? [{ item, layer, scale: lettering.scale }]
      : [];
  });

async function legibilitiesOf(
  { item: { itemId, box, em }, layer, scale: drawnAt }: Letters,
  picture: Pixels,
  piece: Rect,
  shownWidths: readonly number[],
): Promise<Legibility[]> {
  const by = round * em;
  const around = { left: box.left - by, top: box.top - by, width: box.width + 2 * by, height: box.height + 2 * by };
  const seen = intersection(around, piece);
  const rect = {
    left: Math.floor(seen.left - piece.left),
    top: Math.floor(seen.top - piece.top),
    width: Math.max(1, Math.floor(seen.width)),
    height: Math.max(1, Math.floor(seen.height)),
  };
  const part = await toPixels(fromPixels(picture).extract(rect));
  const cover = coverOf(layer, drawnAt, { ...rect, left: rect.left + piece.left, top: rect.top + piece.top });
  const ink = inkLuminance(part, cover);
  if (ink === null) return [];
  const measured: Legibility[] = [];
  for (const shownWidth of shownWidths) {
    const scale = Math.min(1, shownWidth / piece.width);
    const [shown, small] = await Promise.all([scaled(part, scale), scaled(cover, scale)]);
    const found = legibilityOf(shown, small, ink, em * scale);
    if (found) measured.push({ itemId, shownWidth, contrast: rounded(found.contrast), busy: rounded(found.busy) });
  }
  return measured;
}

const rounded = (value: number) => Math.round(value * 1000) / 1000;

/** A triangle as wide as the step: no ringing, which would set letters off from their ground. */
const scaled = (pixels: Pixels, scale: number): Promise<Pixels> => {
  const [width, height] = [pixels.width, pixels.height].map((side) => Math.max(1, Math.round(side * scale)));
  const small = fromPixels(pixels).resize(width, height, { fit: 'fill', kernel: 'linear' });
  return toPixels(pixels.channels === 1 ? small.toColourspace('b-w') : small);
};

/** How much of each pixel of a rectangle of the file letters cover, painted as they are over the picture. */
function coverOf({ path }: Letters['layer'], scale: Letters['scale'], rect: Rect): Pixels {
  const letters = { kind: 'outline', path, colour: '#000000', opacity: 1, stroke: 0, blur: 0 } as const;
  const rgba = painted([letters], rect, scale);
  const data = Buffer.alloc(rect.width * rect.height);
  for (let at = 0; at < data.length; at += 1) data[at] = rgba[4 * at + 3] as number;
  return { data, width: rect.width, height: rect.height, channels: 1 };
}
