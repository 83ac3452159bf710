import type { Rect } from '@inkwell/core/geometry';
import { planContentArea, type RenderPlan } from '@inkwell/core/planning';
import { fromPixels, type Pixels, toPixels } from './pixels.ts';

/** Draws a plan's border: round a picture that fills the plan's content area, or over one that fills the whole file. */
export async function bordered(picture: Pixels, plan: RenderPlan): Promise<Pixels> {
  const { border, output } = plan;
  if (!border) return picture;
  const coloured = await toPixels(fromPixels(picture).toColourspace('srgb'));
  const { margins } = planContentArea(plan);
  const isSmaller = coloured.width < output.width || coloured.height < output.height;
  const whole = isSmaller
    ? await toPixels(fromPixels(coloured).extend({ ...margins, background: border.colour }))
    : { ...coloured, data: Buffer.from(coloured.data) };
  const { left, top, right, bottom } = border.edges;
  const width = Math.max(1, Math.round(border.width));
  for (const piece of border.around) {
    const rect = wholePixels(piece);
    const band = (on: boolean, values: Partial<Rect>) => {
      if (on) fill(whole, { ...rect, ...values }, border.colour);
    };
    band(left, { width });
    band(top, { height: width });
    band(right, { left: rect.left + rect.width - width, width });
    band(bottom, { top: rect.top + rect.height - width, height: width });
  }
  return whole;
}

function wholePixels({ left, top, width, height }: Rect): Rect {
  const [x, y] = [Math.round(left), Math.round(top)];
  return { left: x, top: y, width: Math.round(left + width) - x, height: Math.round(top + height) - y };
}

/** Fills a rectangle, as far as it lies in the picture, with a colour `#rrggbb`. */
function fill({ data, width, height, channels }: Pixels, rect: Rect, colour: string): void {
  const [left, top] = [Math.max(0, rect.left), Math.max(0, rect.top)];
  const [right, bottom] = [Math.min(width, rect.left + rect.width), Math.min(height, rect.top + rect.height)];
  const pixel = Buffer.from(`${colour.slice(1)}ff`, 'hex').subarray(0, channels);
  for (let y = top; y < bottom; y += 1) data.fill(pixel, (y * width + left) * channels, (y * width + right) * channels);
}
