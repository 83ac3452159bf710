import { coloursOf, inPlaneMemory, luminanceOf, type Plane, type Raster } from '../../planes/index.ts';
import { type Balance, balancedLevel, balancedSaturation } from './compensate.ts';
import { type Correction, curveOf, lookUp } from './correction.ts';
import type { TonePoints } from './tone.ts';

const { red, green, blue } = luminanceOf;
const steps = 16;

/** Levels by black and white point and midtones, in sixteenths of a level; null where nothing changes. */
function toneTable(black: number, white: number, midtones: number): Float32Array | null {
  if (black === 0 && white === 255 && midtones === 1) return null;
  return Float32Array.from({ length: 255 * steps + 1 }, (_, at) => {
    const share = Math.min(1, Math.max(0, (at / steps - black) / (white - black)));
    return 255 * share ** (1 / midtones);
  });
}
const toned = (table: Float32Array | null, level: number): number =>
  table === null ? level : (table[(Math.min(255, Math.max(0, level)) * steps + 0.5) | 0] as number);

/** What is done to a picture's levels beside its sharpening. */
export interface Colouring {
  /** How much of the sharpening is kept. */
  balance: Balance;
  /** By hand, on all of the picture. */
  correction: Correction;
  points: TonePoints;
  saturation: number;
}

/**
 * A picture with another luminance and its own colours: all three move alike, so that chroma stays; then corrected, set
 * in tone and saturated. Alpha stays as it is.
 */
export function coloured(
  plain: Raster,
  luminance: Plane,
  { balance, correction, points: { black, white, midtones }, saturation }: Colouring,
): Raster {
  const { data, width, height, channels } = plain;
  const colours = coloursOf(plain);
  const curve = curveOf(correction);
  if (colours === 1) {
    const out = new Uint8ClampedArray(data.length);
    // A grey picture has no colour cast to take out.
    const table = toneTable(black[0], Math.max(...white), midtones);
    for (let at = 0, pixel = 0; at < out.length; at += channels, pixel += 1) {
      out[at] = toned(
        table,
        lookUp(curve, balancedLevel(data[at] as number, luminance.data[pixel] as number, balance)),
      );
      if (channels === 2) out[at + 1] = data[at + 1] as number;
    }
    return { data: out, width, height, channels };
  }
  const reds = toneTable(black[0], white[0], midtones);
  const greens = toneTable(black[1], white[1], midtones);
  const blues = toneTable(black[2], white[2], midtones);
  const isCorrected = correction.midtones !== 1 || correction.saturation !== 1;
  if (!reds && !greens && !blues && saturation === 1 && !isCorrected) return recoloured(plain, luminance, balance);
  const out = new Uint8ClampedArray(data.length);
  for (let at = 0, pixel = 0; at < out.length; at += channels, pixel += 1) {
    const r = data[at] as number;
    const g = data[at + 1] as number;
    const b = data[at + 2] as number;
    const y = red * r + green * g + blue * b;
    const after = luminance.data[pixel] as number;
    const lifted = lookUp(curve, balancedLevel(y, after, balance));
    const own = correction.saturation * balancedSaturation(y, after, balance);
    let newRed = toned(reds, lifted + own * (r - y));
    let newGreen = toned(greens, lifted + own * (g - y));
    let newBlue = toned(blues, lifted + own * (b - y));
    if (saturation !== 1) {
      const newY = red * newRed + green * newGreen + blue * newBlue;
      newRed = newY + saturation * (newRed - newY);
      newGreen = newY + saturation * (newGreen - newY);
      newBlue = newY + saturation * (newBlue - newY);
    }
    out[at] = newRed;
    out[at + 1] = newGreen;
    out[at + 2] = newBlue;
    if (channels === 4) out[at + 3] = data[at + 3] as number;
  }
  return { data: out, width, height, channels };
}

/** So many pixels are handed over at once: memory that was asked for is never given back. */
const handedOver = 250_000;
/** The kernel writes so many bytes past the last pixel. */
const beyond = 32;

/** The same where nothing but the luminance is set, as it is with most pictures: four pixels at a time. */
function recoloured(plain: Raster, luminance: Plane, { lighter, darker, saturation }: Balance): Raster {
  const { data, width, height, channels } = plain;
  const out = new Uint8ClampedArray(data.length);
  for (let first = 0; first < width * height; first += handedOver) {
    const count = Math.min(handedOver, width * height - first);
    const [begin, end] = [first * channels, (first + count) * channels];
    inPlaneMemory((arena) => {
      const octets = Math.ceil((end - begin + beyond) / Float32Array.BYTES_PER_ELEMENT);
      const [from, light, to] = [arena.reserve(octets), arena.reserve(count), arena.reserve(octets)];
      arena.commit();
      arena.octets(from, end - begin).set(data.subarray(begin, end));
      arena.floats(light, count).set(luminance.data.subarray(first, first + count));
      arena.kernels.recolour(from, channels, count, light, lighter, darker, saturation, to);
      out.set(arena.octets(to, end - begin), begin);
    });
  }
  return { data: out, width, height, channels };
}
