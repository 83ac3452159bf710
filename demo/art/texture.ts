import sharp, { type OverlayOptions } from 'sharp';
import { createNoise2D } from 'simplex-noise';
import { seeded } from './random.ts';

export interface Field {
  width: number;
  height: number;
  /** Value at a point, any number; `noise` is one octave of simplex noise, -1..1. */
  value: (x: number, y: number, noise: (x: number, y: number) => number) => number;
}

/** Sum of octaves, each twice as fine and half as strong; -1..1. */
export function cloudy(noise: (x: number, y: number) => number, x: number, y: number, octaves: number): number {
  let sum = 0;
  let strength = 0.5;
  for (let octave = 0; octave < octaves; octave += 1) {
    const scale = 2 ** octave;
    sum += strength * noise(x * scale + octave * 17.3, y * scale - octave * 9.1);
    strength /= 2;
  }
  return sum;
}

/** A field as an image of one colour whose opacity (0..1) is the field's value. */
export async function veil(
  seed: number,
  colour: [number, number, number],
  field: Field,
  to: { width: number; height: number },
): Promise<Pick<OverlayOptions, 'input' | 'raw'>> {
  const noise = createNoise2D(seeded(seed));
  const data = Buffer.alloc(field.width * field.height * 4);
  for (let y = 0, at = 0; y < field.height; y += 1) {
    for (let x = 0; x < field.width; x += 1, at += 4) {
      data[at] = colour[0];
      data[at + 1] = colour[1];
      data[at + 2] = colour[2];
      data[at + 3] = 255 * Math.min(1, Math.max(0, field.value(x, y, noise)));
    }
  }
  const input = await sharp(data, { raw: { width: field.width, height: field.height, channels: 4 } })
    .resize(to.width, to.height, { fit: 'fill', kernel: 'cubic' })
    .raw()
    .toBuffer();
  return { input, raw: { ...to, channels: 4 } };
}

/** The grain of a sensor: fine noise around middle grey, to be laid over a whole picture. `strength` in levels of 255. */
export async function grain(seed: number, strength: number, softness = 0.5): Promise<OverlayOptions> {
  const random = seeded(seed);
  const side = 640;
  const data = Buffer.alloc(side * side * 3);
  for (let at = 0; at < data.length; at += 3) {
    // The sum of three even draws is close to a bell curve.
    const light = (random() + random() + random() - 1.5) * strength * 2;
    const warm = (random() - 0.5) * strength * 0.8;
    data[at] = 128 + light + warm;
    data[at + 1] = 128 + light;
    data[at + 2] = 128 + light - warm;
  }
  const input = await sharp(data, { raw: { width: side, height: side, channels: 3 } })
    .blur(softness)
    .png({ compressionLevel: 1 })
    .toBuffer();
  return { input, tile: true, blend: 'hard-light' };
}

/** A plain weave of threads, `thread` pixels wide, to be laid over cloth. */
export async function weave(thread: number, strength: number): Promise<OverlayOptions> {
  const side = thread * 64;
  const data = Buffer.alloc(side * side * 3);
  const random = seeded(77);
  const uneven = Array.from({ length: 128 }, () => 1 + (random() - 0.5) * 0.6);
  for (let y = 0, at = 0; y < side; y += 1) {
    for (let x = 0; x < side; x += 1, at += 3) {
      const column = Math.floor(x / thread);
      const row = Math.floor(y / thread);
      const over = (column + row) % 2 === 0;
      const across = Math.sin((Math.PI * ((over ? x : y) % thread)) / thread) * (uneven[over ? column : 64 + row] ?? 1);
      data.fill(128 + strength * (across - 0.6), at, at + 3);
    }
  }
  const input = await sharp(data, { raw: { width: side, height: side, channels: 3 } })
    .png({ compressionLevel: 1 })
    .toBuffer();
  return { input, tile: true, blend: 'soft-light' };
}
