import {
  besideClosing,
  enlargedPlan,
  planContentArea,
  type RenderPlan,
  type SourceMapping,
  showingTheSame,
  sourceMappingOf,
  turnUpright,
  wholePlan,
} from '@inkwell/core/planning';
import type { Sharp } from 'sharp';
import { copyKey, type PlanCopies, type WorkingCopy } from '../copies/workingCopy.ts';
import { blurred, coloured, echoPlan } from './backing.ts';
import { bordered } from './bordering.ts';
import { type FinishWatch, finished, type Unfinished } from './finishing.ts';
import { type Emblem, lettered } from './lettering.ts';
import { fromPixels, type Pixels, toPixels } from './pixels.ts';
import { sampledPart } from './sampled.ts';
import { shaped } from './shaping.ts';

/** What pixels are drawn from; without emblems where the plan has none. */
export type DrawnFrom = WorkingCopy & Partial<PlanCopies>;

/** Carries out a plan up to, not including, its encoding. */
export async function renderPixels(plan: RenderPlan, copy: DrawnFrom, watch?: FinishWatch): Promise<Pixels> {
  const { strip, closing } = besideClosing(flattensLast(plan) ? { ...plan, flatten: null } : plan);
  const picture = await picturePixels(strip, copy, watch);
  const whole = closing ? await sideBySide(picture, await picturePixels(closing, copy)) : picture;
  const framed = plan.border ? await bordered(whole, plan) : whole;
  if (!plan.lettering) return framed;
  const done = await lettered(framed, plan, (picture) => emblemPixels(picture, copy));
  return flattensLast(plan) ? flattened(done, plan) : done;
}

/** What lies over a picture that is cut out as a shape stays within it: what is round the shape gets its colour afterwards. */
const flattensLast = ({ lettering, shape }: RenderPlan): boolean => lettering !== null && shape?.cutOut === true;

async function flattened(pixels: Pixels, { flatten }: RenderPlan): Promise<Pixels> {
  if (!flatten || pixels.channels % 2 === 1) return pixels;
  return toPixels(fromPixels(pixels).flatten({ background: flatten }));
}

/** An emblem at the dimensions at which it is laid over a picture. */
async function emblemPixels({ picture, width, height }: Emblem, { emblems }: DrawnFrom): Promise<Pixels> {
  const copy = emblems?.get(copyKey(picture));
  if (!copy) throw new Error('The emblem of a plan was not opened with it.');
  const whole = wholePlan(picture);
  return renderPixels(showingTheSame(whole, { ...whole, output: { width, height } }), copy);
}

/** A plan's picture before it is finished, and the same enlarged for sharpening; null where it is not enlarged. */
async function unfinishedPixels(plan: RenderPlan, copy: WorkingCopy): Promise<Unfinished> {
  const enlarged = enlargedPlan(plan);
  const [plain, large] = await Promise.all([laidPixels(plan, copy), enlarged ? laidPixels(enlarged, copy) : null]);
  return { plain, enlarged: large };
}

async function sideBySide(left: Pixels, right: Pixels): Promise<Pixels> {
  const withAlpha = (pixels: Pixels) => toPixels(fromPixels(pixels).toColourspace('srgb').ensureAlpha());
  const alike = left.channels === right.channels;
  const parts = alike ? [left, right] : [await withAlpha(left), await withAlpha(right)];
  const { channels } = parts[0] ?? left;
  const width = left.width + right.width;
  const data = Buffer.alloc(width * left.height * channels);
  let at = 0;
  for (const part of parts) {
    const row = part.width * channels;
    for (let y = 0; y < left.height; y += 1) {
      part.data.copy(data, y * width * channels + at, y * row, (y + 1) * row);
    }
    at += row;
  }
  return { data, width, height: left.height, channels };
}

/** The picture as its window shows it, in the dimensions of the plan's content area. */
export async function laidPixels(plan: RenderPlan, copy: WorkingCopy): Promise<Pixels> {
  const laying = sourceMappingOf(plan);
  const part = await upright(await sampledPart(laying.part, copy, plan.finish?.kernel), copy);
  const field = await withMargins(part, laying, plan.backing?.kind === 'mirrored edges');
  return turned(field, laying, plan);
}

async function picturePixels(plan: RenderPlan, copy: WorkingCopy, watch?: FinishWatch): Promise<Pixels> {
  const laid = plan.finish
    ? await finished(await unfinishedPixels(plan, copy), plan.finish, watch)
    : await laidPixels(plan, copy);
  return flattened(await shaped(await onBacking(laid, plan, copy), plan), plan);
}

async function upright(pixels: Pixels, { orientation }: WorkingCopy): Promise<Pixels> {
  if (orientation === 1) return pixels;
  const { flop, degrees } = turnUpright(orientation);
  // sharp mirrors before it turns.
  return toPixels(fromPixels(pixels).flop(flop).rotate(degrees));
}

/** Puts the margins round a part: the picture mirrored at its edges, or nothing (transparent). */
async function withMargins(part: Pixels, { margins, tilting }: SourceMapping, mirrored: boolean): Promise<Pixels> {
  if (Object.values(margins).every((margin) => margin === 0)) return part;
  if (mirrored) return toPixels(fromPixels(part).extend({ ...margins, extendWith: 'mirror' }));
  if (!tilting) {
    return toPixels(
      fromPixels(part)
        .ensureAlpha()
        .extend({ ...margins, background: clear }),
    );
  }
  // The colour goes on under the transparent margin, or the tilted edge would be mixed with black.
  const colour = await toPixels(
    fromPixels(part)
      .removeAlpha()
      .extend({ ...margins, extendWith: 'copy' }),
  );
  const alpha = await toPixels(
    fromPixels(part)
      .ensureAlpha()
      .extractChannel('alpha')
      .extend({ ...margins, background: clear })
      .toColourspace('b-w'),
  );
  return joined(colour, alpha);
}

const clear = { r: 0, g: 0, b: 0, alpha: 0 };

const joined = (colour: Pixels, { data, width, height }: Pixels): Promise<Pixels> =>
  toPixels(fromPixels(colour).joinChannel(data, { raw: { width, height, channels: 1 } }));

async function turned(field: Pixels, { quarter, tilting, mirror }: SourceMapping, plan: RenderPlan): Promise<Pixels> {
  const output = planContentArea(plan).pixels;
  const mirrored = (picture: Sharp) => toPixels(picture.flop(mirror));
  if (!tilting) {
    const degrees = (quarter + 360) % 360;
    if (degrees === 0) return mirror ? mirrored(fromPixels(field)) : field;
    const upright = await toPixels(fromPixels(field).rotate(degrees));
    return mirror ? mirrored(fromPixels(upright)) : upright;
  }
  const { rim, matrix, shift, cutAt, cut } = tilting;
  const rimmed = await toPixels(
    fromPixels(field).extend({ left: rim, top: rim, right: rim, bottom: rim, extendWith: 'copy' }),
  );
  const tilted = await toPixels(
    fromPixels(rimmed).affine(matrix, { odx: shift.x, ody: shift.y, interpolator: 'bicubic', background: clear }),
  );
  // The cut may reach a pixel past the tilted field by rounding.
  const missing = {
    left: Math.max(0, -cutAt.x),
    top: Math.max(0, -cutAt.y),
    right: Math.max(0, cutAt.x + cut.width - tilted.width),
    bottom: Math.max(0, cutAt.y + cut.height - tilted.height),
  };
  const wide = Object.values(missing).some((pixels) => pixels > 0)
    ? await toPixels(fromPixels(tilted).extend({ ...missing, extendWith: 'copy' }))
    : tilted;
  const frame = await toPixels(
    fromPixels(wide).extract({ left: cutAt.x + missing.left, top: cutAt.y + missing.top, ...cut }),
  );
  const fitted = fromPixels(frame).resize(output.width, output.height, { fit: 'fill', kernel: 'lanczos3' });
  // Turning adds transparency for what lies outside of the field; a field without any fills the frame.
  return mirrored(field.channels % 2 === 1 ? fitted.removeAlpha() : fitted);
}

/** Lays what has transparent margins on its backing. */
async function onBacking(laid: Pixels, plan: RenderPlan, copy: WorkingCopy): Promise<Pixels> {
  const { backing } = plan;
  const output = planContentArea(plan).pixels;
  if (!backing || backing.kind === 'mirrored edges' || backing.kind === 'transparent') return laid;
  if (laid.channels % 2 === 1) return laid;
  const ground =
    backing.kind === 'colour'
      ? await coloured(backing.colour, output)
      : await blurred(await picturePixels(echoPlan(plan), copy), output);
  const { data, width, height, channels } = laid;
  return toPixels(
    fromPixels(ground)
      .composite([{ input: data, raw: { width, height, channels } }])
      .removeAlpha(),
  );
}
