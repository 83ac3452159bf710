import type { Raster } from '../planes/index.ts';

type Colour = readonly [red: number, green: number, blue: number];

/** A made picture in RGB: what `colour` says of every pixel. */
export function target(width: number, height: number, colour: (x: number, y: number) => Colour | number): Raster {
  const data = new Uint8ClampedArray(width * height * 3);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const value = colour(x, y);
      data.set(typeof value === 'number' ? [value, value, value] : value, (y * width + x) * 3);
    }
  }
  return { data, width, height, channels: 3 };
}

/** Rings that get finer outwards, up to half a cycle a pixel at `radius` (a zone plate). */
export const zonePlate = (side: number, radius: number): Raster =>
  target(side, side, (x, y) => {
    const [dx, dy] = [x - side / 2, y - side / 2];
    return 128 + 100 * Math.cos((Math.PI * (dx * dx + dy * dy)) / (2 * radius));
  });

/** An edge from dark to light that leans, so that it meets the pixels in every phase; 4 x 4 samples a pixel. */
export const slantedEdge = (width: number, height: number, dark: number, light: number, lean = 0.21): Raster =>
  target(width, height, (x, y) => {
    let lit = 0;
    for (let sample = 0; sample < 16; sample += 1) {
      const [sx, sy] = [x + ((sample % 4) + 0.5) / 4, y + (Math.floor(sample / 4) + 0.5) / 4];
      if (sx - width / 2 > (sy - height / 2) * lean) lit += 1;
    }
    return dark + ((light - dark) * lit) / 16;
  });

/** Values that look random and are the same every time, from -1 to 1. */
export function steadyNoise(seed = 1): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 31 - 1;
  };
}
