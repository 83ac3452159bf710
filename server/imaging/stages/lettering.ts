import { intersection, type Rect, union } from '@inkwell/core/geometry';
import type { LetterLayer } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { blend, premultiplied, shade } from './blending.ts';
import { type OutlineLayer, painted } from './outlines.ts';
import { fromPixels, type Pixels, toPixels } from './pixels.ts';

/** An emblem, and at how many pixels it is wanted. */
export interface Emblem {
  picture: Extract<LetterLayer, { kind: 'picture' }>['picture'];
  width: number;
  height: number;
}

type Scale = NonNullable<RenderPlan['lettering']>['scale'];

/**
 * Lays a plan's lettering over its picture, each layer only where it is: most of a picture has none.
 *
 * @param draw makes the pixels of an emblem
 */
export async function lettered(
  picture: Pixels,
  { lettering, shape }: Pick<RenderPlan, 'lettering' | 'shape'>,
  draw: (emblem: Emblem) => Promise<Pixels>,
): Promise<Pixels> {
  if (!lettering) return picture;
  const { scale, layers } = lettering;
  const coloured = picture.channels > 2 ? picture : await toPixels(fromPixels(picture).toColourspace('srgb'));
  const whole = { ...coloured, data: Buffer.from(coloured.data) };
  // What is cut out as a shape stays empty round it.
  const keepsAlpha = shape?.cutOut === true;
  for (const group of grouped(layers, scale)) {
    if ('outlines' in group) {
      const rect = onPicture(group.rect, whole);
      if (rect) blend(whole, rect, painted(group.outlines, rect, scale), keepsAlpha);
    } else if (group.kind === 'shade') {
      shade(whole, group, scale);
    } else {
      const { left, top, width, height } = group.within;
      const size = {
        width: Math.max(1, Math.round(width * scale.x)),
        height: Math.max(1, Math.round(height * scale.y)),
      };
      const at = { left: Math.round(left * scale.x), top: Math.round(top * scale.y), ...size };
      const rect = onPicture(at, whole);
      if (!rect) continue;
      const emblem = fromPixels(await draw({ picture: group.picture, ...size }))
        .extract({ ...rect, left: rect.left - at.left, top: rect.top - at.top })
        .toColourspace('srgb')
        .ensureAlpha();
      blend(whole, rect, premultiplied((await toPixels(emblem)).data), keepsAlpha);
    }
  }
  return whole;
}

/** Outlines that are painted together: they follow each other, and lie close enough that hardly more is painted than they need. */
interface Group {
  outlines: OutlineLayer[];
  rect: Rect;
}

/** So many times what outlines take by themselves may be painted for them together. */
const muchMore = 1.4;
const areaOf = ({ width, height }: Rect) => width * height;

function grouped(layers: readonly LetterLayer[], scale: Scale): (Group | Exclude<LetterLayer, OutlineLayer>)[] {
  const groups: ReturnType<typeof grouped> = [];
  for (const layer of layers) {
    const last = groups.at(-1);
    if (layer.kind !== 'outline') {
      groups.push(layer);
      continue;
    }
    const rect = reachOf(layer, scale);
    const together = last && 'outlines' in last ? union(last.rect, rect) : null;
    if (last && 'outlines' in last && together && areaOf(together) <= muchMore * (areaOf(last.rect) + areaOf(rect))) {
      last.outlines.push(layer);
      last.rect = together;
    } else groups.push({ outlines: [layer], rect });
  }
  return groups;
}

/** Pixels of the picture that an outline can reach, by its points, its line and its blur. */
function reachOf({ path, stroke, blur }: OutlineLayer, { x, y }: Scale): Rect {
  let [left, top, right, bottom] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, -1, -1];
  let isAcross = true;
  for (const [number] of path.matchAll(/-?[\d.]+/g)) {
    const value = Number(number);
    if (isAcross) [left, right] = [Math.min(left, value), Math.max(right, value)];
    else [top, bottom] = [Math.min(top, value), Math.max(bottom, value)];
    isAcross = !isAcross;
  }
  const round = stroke / 2 + 3 * blur;
  return {
    left: (left - round) * x - 1,
    top: (top - round) * y - 1,
    width: (right - left + 2 * round) * x + 2,
    height: (bottom - top + 2 * round) * y + 2,
  };
}

/** The whole pixels of a picture that a rectangle takes; null where it lies beside it. */
function onPicture(rect: Rect, { width, height }: Pixels): Rect | null {
  const seen = intersection(rect, { left: 0, top: 0, width, height });
  if (seen.width === 0 || seen.height === 0) return null;
  const [left, top] = [Math.floor(seen.left), Math.floor(seen.top)];
  return {
    left,
    top,
    width: Math.min(width, Math.ceil(seen.left + seen.width)) - left,
    height: Math.min(height, Math.ceil(seen.top + seen.height)) - top,
  };
}
