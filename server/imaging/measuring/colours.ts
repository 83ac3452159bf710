import type { Original } from '@inkwell/core/model';
import { scalePlan, wholePlan } from '@inkwell/core/planning';
import { coloursStandingOut, type PaletteColour } from '@inkwell/core/seeing';
import sharp from 'sharp';
import type { WorkingCopies } from '../copies/workingCopy.ts';
import { fromPixels, toPixels } from '../stages/pixels.ts';
import { renderPixels } from '../stages/renderPixels.ts';

/** The longer side at which colours are counted, in pixels. */
const lookedAt = 240;
/** So many colours a picture is reduced to before those that stand out are chosen. */
const paletteSize = 48;

/** Up to five colours that stand for an original, `#rrggbb`, the most frequent first. */
export async function proposeColours(original: Original, copies: WorkingCopies): Promise<string[]> {
  const share = Math.min(1, lookedAt / Math.max(original.width, original.height));
  const seen = await renderPixels(scalePlan(wholePlan(original), share), await copies.get(original));
  const reduced = await fromPixels(seen).png({ palette: true, colours: paletteSize, dither: 0, effort: 7 }).toBuffer();
  const { data } = await toPixels(sharp(reduced).toColourspace('srgb').ensureAlpha());
  const counted = new Map<number, PaletteColour>();
  for (let at = 0; at < data.length; at += 4) {
    // What is mostly transparent has no colour that anybody sees.
    if ((data[at + 3] ?? 0) < 128) continue;
    const key = data.readUIntBE(at, 3);
    const known = counted.get(key);
    if (known) known.count += 1;
    else counted.set(key, { red: key >> 16, green: (key >> 8) & 255, blue: key & 255, count: 1 });
  }
  return coloursStandingOut([...counted.values()], 5);
}

/** The colour of one pixel of an original, `#rrggbb`; null where it is transparent. */
export async function colourAt(
  original: Original,
  at: { x: number; y: number },
  copies: WorkingCopies,
): Promise<string | null> {
  const whole = wholePlan(original);
  const window = { ...whole.window, centreX: at.x + 0.5, centreY: at.y + 0.5, span: 1 };
  const pixel = await renderPixels({ ...whole, window, output: { width: 1, height: 1 } }, await copies.get(original));
  const { data } = await toPixels(fromPixels(pixel).toColourspace('srgb').ensureAlpha());
  return (data[3] ?? 255) < 128 ? null : `#${data.subarray(0, 3).toString('hex')}`;
}
