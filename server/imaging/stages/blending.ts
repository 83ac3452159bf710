import type { Rect } from '@inkwell/core/geometry';
import type { LetterLayer } from '@inkwell/core/model';
import type { Pixels } from './pixels.ts';

/** Pixels of red, green, blue and alpha with each colour multiplied by its alpha, in place. */
export function premultiplied(pixels: Buffer): Buffer {
  for (let at = 0; at < pixels.length; at += 4) {
    const alpha = pixels[at + 3] as number;
    if (alpha === 255) continue;
    for (let channel = at; channel < at + 3; channel += 1) {
      pixels[channel] = ((pixels[channel] as number) * alpha) / 255 + 0.5;
    }
  }
  return pixels;
}

/**
 * Lays a picture with alpha over a part of another, in place (Porter and Duff 1984).
 *
 * @param over red, green, blue and alpha, as large as the part, each colour multiplied by its alpha
 * @param keepsAlpha whether what is transparent stays so, whatever lies over it
 */
export function blend({ data, width, channels }: Pixels, rect: Rect, over: Buffer, keepsAlpha: boolean): void {
  const isOpaque = channels === 3 || keepsAlpha;
  let from = 0;
  for (let row = 0; row < rect.height; row += 1) {
    let to = ((rect.top + row) * width + rect.left) * channels;
    for (let pixel = 0; pixel < rect.width; pixel += 1, from += 4, to += channels) {
      const alpha = over[from + 3] as number;
      if (alpha === 0) continue;
      const under = isOpaque ? 255 : (data[to + 3] as number);
      if (alpha === 255 || under === 0) {
        for (let channel = 0; channel < 3; channel += 1) {
          const colour = over[from + channel] as number;
          data[to + channel] = alpha === 255 ? colour : ((colour * 255) / alpha + 0.5) | 0;
        }
        if (!isOpaque) data[to + 3] = alpha;
      } else if (under === 255) {
        const rest = 255 - alpha;
        for (let channel = 0; channel < 3; channel += 1) {
          const below = (data[to + channel] as number) * rest + 128;
          // A product of two levels over 255, rounded (Blinn 1994).
          data[to + channel] = (over[from + channel] as number) + ((below + (below >> 8)) >> 8);
        }
      } else {
        // Of 255 * 255: what shows of the lower picture, and of both.
        const below = under * (255 - alpha);
        const all = alpha * 255 + below;
        for (let channel = 0; channel < 3; channel += 1) {
          const mixed = (over[from + channel] as number) * 65_025 + (data[to + channel] as number) * below;
          data[to + channel] = (mixed / all + 0.5) | 0;
        }
        data[to + 3] = (all / 255 + 0.5) | 0;
      }
    }
  }
}

/** Shares are counted in so many parts. */
const parts = 65_536;

/**
 * Lays a shade over a picture, in place: a colour whose opacity falls evenly from one point to another, across or down. What is
 * transparent stays so.
 *
 * @param scale pixels of the picture to one of the layer
 */
export function shade(
  { data, width, height, channels }: Pixels,
  { within, from, to, colour, opacity }: Extract<LetterLayer, { kind: 'shade' }>,
  scale: { x: number; y: number },
): void {
  const number = Number.parseInt(colour.slice(1), 16);
  const [red, green, blue] = [number >> 16, (number >> 8) & 255, number & 255];
  const [left, top] = [Math.max(0, Math.round(within.left * scale.x)), Math.max(0, Math.round(within.top * scale.y))];
  const right = Math.min(width, Math.round((within.left + within.width) * scale.x));
  const bottom = Math.min(height, Math.round((within.top + within.height) * scale.y));
  const isDown = from.x === to.x;
  const [first, last] = isDown ? [from.y * scale.y, to.y * scale.y] : [from.x * scale.x, to.x * scale.x];
  const shares = Int32Array.from({ length: isDown ? height : width }, (_, at) => {
    const done = (at + 0.5 - first) / (last - first);
    return Math.round(opacity * (1 - Math.min(1, Math.max(0, done))) * parts);
  });
  const half = parts / 2;
  for (let y = top; y < bottom; y += 1) {
    const ofRow = isDown ? (shares[y] as number) : -1;
    if (ofRow === 0) continue;
    let at = (y * width + left) * channels;
    for (let x = left; x < right; x += 1, at += channels) {
      const share = isDown ? ofRow : (shares[x] as number);
      const rest = parts - share;
      data[at] = ((data[at] as number) * rest + red * share + half) >> 16;
      data[at + 1] = ((data[at + 1] as number) * rest + green * share + half) >> 16;
      data[at + 2] = ((data[at + 2] as number) * rest + blue * share + half) >> 16;
    }
  }
}
