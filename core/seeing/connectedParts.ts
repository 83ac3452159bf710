import type { Rect } from '../geometry/index.ts';

/** Pixels that touch, sideways or up and down. */
export interface ConnectedPart {
  rect: Rect;
  pixels: number[];
}

/** The connected parts of a picture. @param isIn says whether a pixel counts, by its number in reading order */
export function connectedParts(width: number, height: number, isIn: (at: number) => boolean): ConnectedPart[] {
  const seen = new Uint8Array(width * height);
  const parts: ConnectedPart[] = [];
  for (let start = 0; start < seen.length; start += 1) {
    if (seen[start] === 1 || !isIn(start)) continue;
    seen[start] = 1;
    const pixels = [start];
    let [left, top, right, bottom] = [width, height, 0, 0];
    for (let next = 0; next < pixels.length; next += 1) {
      const at = pixels[next] as number;
      const [x, y] = [at % width, Math.floor(at / width)];
      [left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
      const take = (beside: number) => {
        if (seen[beside] === 1 || !isIn(beside)) return;
        seen[beside] = 1;
        pixels.push(beside);
      };
      if (x > 0) take(at - 1);
      if (x < width - 1) take(at + 1);
      if (y > 0) take(at - width);
      if (y < height - 1) take(at + width);
    }
    parts.push({ rect: { left, top, width: right - left + 1, height: bottom - top + 1 }, pixels });
  }
  return parts;
}
