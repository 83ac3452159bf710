import sharp, { type OverlayOptions, type Sharp } from 'sharp';
import { cloudy, veil } from './texture.ts';

/** Wraps drawing instructions into an SVG document of the given pixels. */
export function svg(width: number, height: number, body: string): Buffer {
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${body}</svg>`,
  );
}

export function drawn(width: number, height: number, body: string): OverlayOptions {
  return { input: svg(width, height, body) };
}

/** A picture from layers, bottom first; each is flattened before the next, which keeps memory low. */
export async function layered(width: number, height: number, ground: string, layers: OverlayOptions[]): Promise<Sharp> {
  const base = sharp({ create: { width, height, channels: 3, background: ground }, limitInputPixels: false });
  const { data, info } = await base
    .composite(layers.map((layer) => ({ limitInputPixels: false, ...layer })))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return sharp(data, { raw: { width: info.width, height: info.height, channels: 3 }, limitInputPixels: false });
}

export const gradient = (id: string, stops: [number, string, number?][], across = false) =>
  `<linearGradient id="${id}" x1="0" y1="0" x2="${across ? 1 : 0}" y2="${across ? 0 : 1}">${stops
    .map(([at, colour, opacity = 1]) => `<stop offset="${at}" stop-color="${colour}" stop-opacity="${opacity}"/>`)
    .join('')}</linearGradient>`;

/** Drawn-out clouds for the upper part of a picture. */
export async function clouds(
  seed: number,
  width: number,
  height: number,
  colour: [number, number, number],
  amount: number,
): Promise<OverlayOptions> {
  const w = Math.round(width / 8);
  const h = Math.round(height / 8);
  const texture = await veil(
    seed,
    colour,
    {
      width: w,
      height: h,
      value: (x, y, noise) => {
        const depth = y / h;
        const stretch = 0.0026 / (0.35 + depth * 0.3);
        const body = cloudy(noise, x * stretch, y * stretch * 2.3, 6) + 0.18;
        return amount * body * 1.9 * (1 - depth * 0.75);
      },
    },
    { width, height },
  );
  return { ...texture, left: 0, top: 0 };
}

/** Wind ripples and patches of sand from `top` down to the bottom edge. */
export async function sand(
  seed: number,
  width: number,
  top: number,
  height: number,
  ripple: number,
): Promise<OverlayOptions> {
  const shrink = 3;
  const w = Math.round(width / shrink);
  const h = Math.round(height / shrink);
  const texture = await veil(
    seed,
    [84, 58, 34],
    {
      width: w,
      height: h,
      value: (x, y, noise) => {
        const depth = y / h;
        const scale = (ripple * (0.35 + depth * 1.3)) / shrink;
        const bend = noise(x / (scale * 9), y / (scale * 5)) * 2.2 + noise(x / (scale * 2.5), y / (scale * 2)) * 0.5;
        const lines = Math.sin((y / scale) * 2.4 + bend * 2.2 + (x / scale) * 0.22) * 0.5 + 0.5;
        const patches = cloudy(noise, x / (scale * 22), y / (scale * 12), 4) * 0.5 + 0.5;
        const speck = noise(x * 0.9, y * 0.9) * 0.12;
        return Math.min(1, depth * 6) * (lines ** 1.6 * 0.3 * patches + patches * 0.16 + speck * 0.6);
      },
    },
    { width, height },
  );
  return { ...texture, left: 0, top };
}
