import type { Rect } from '../geometry/index.ts';
import type { Treatment } from '../model/index.ts';
import { type Plane, type Raster, rowsOf } from '../planes/index.ts';
import { type Histogram, histogramOf, luminancePlane } from '../seeing/index.ts';
import { coloured } from './colouring/colouring.ts';
import { type Balance, noBalance, solveBalance } from './colouring/compensate.ts';
import { type Correction, noCorrection } from './colouring/correction.ts';
import { type TonePoints, tonePoints } from './colouring/tone.ts';
import { type Ratio, scaledInLight, scalingRadius } from './scaling/scale.ts';
import { haloRadius, withinHalo } from './sharpening/halo.ts';
import { sharpened, sharpeningRadius, sharpens } from './sharpening/sharpen.ts';

/** A treatment without its border, which is drawn once the picture lies in its frame. */
export type PixelTreatment = Omit<Treatment, 'border'>;

/** A part of a picture, and where its first pixel lies in the whole. */
export interface PartOfPicture {
  raster: Raster;
  left: number;
  top: number;
}

/** A picture, or a part of one, that is to be finished. */
export interface ToFinish {
  /** As plain scaling makes it, in the dimensions that are wanted. */
  plain: Raster;
  /** The same enlarged, with some pixels more round it where it is a part; null where nothing is gained by enlarging. */
  enlarged: PartOfPicture | null;
  /** Enlarged pixels to one that is wanted, each way. */
  ratio: Ratio;
  /** Where `plain` lies in the whole picture, in the pixels that are wanted. */
  at: { left: number; top: number };
  /** Pixels that are wanted to one of the file: 1, or less in a proof. */
  scale: number;
  /** Of the whole plain picture where `plain` is a part of it. */
  histogram?: Histogram;
}

export interface Finished {
  raster: Raster;
  /** What it took to bring brightness and colourfulness back. */
  balance: Balance;
  points: TonePoints;
}

/** So many rows are worked on at once: enough that their surroundings hardly count, few enough for a processor's cache. */
const bandRows = 96;

/**
 * Finishes a picture: sharpens the luminance of the enlarged picture and scales it down in linear light, holds halos
 * within their limit, puts mean luminance and mean chroma back to those of the plain picture, then sets tone and
 * saturation. Colour comes from the plain picture throughout. A flat area stays as it is to the bit until tone is set.
 */
export function finishPixels(picture: ToFinish, treatment: PixelTreatment): Finished {
  const { plain, scale } = picture;
  const before = luminancePlane(plain);
  const isSharpened = sharpens(treatment, scale * enlargementOf(picture));
  const luminance = isSharpened ? detailed(picture, before, treatment) : before;
  const { tone, compensate, saturation } = treatment;
  const balance = isSharpened && compensate.kind === 'measured' ? solveBalance(plain, luminance) : noBalance;
  const correction: Correction = compensate.kind === 'by hand' ? compensate : noCorrection;
  const needsHistogram = tone.kind === 'automatic' || tone.kind === 'paper';
  const points = tonePoints(tone, needsHistogram ? (picture.histogram ?? histogramOf(plain)) : noHistogram);
  return { raster: coloured(plain, luminance, { balance, correction, points, saturation }), balance, points };
}

const noHistogram: Histogram = { luminance: [], red: [], green: [], blue: [], pixels: 0 };
const enlargementOf = ({ enlarged, ratio }: ToFinish) => (enlarged ? Math.min(ratio.x, ratio.y) : 1);

/** How many enlarged pixels round a part have a say in it. */
export const finishingRadius = (treatment: PixelTreatment, ratio: Ratio, scale: number): number =>
  scalingRadius(treatment.kernel, ratio) + sharpeningRadius(treatment, scale * Math.min(ratio.x, ratio.y));

/** The luminance of the picture with its sharpened detail, halos limited. */
function detailed(picture: ToFinish, before: Plane, treatment: PixelTreatment): Plane {
  const { enlarged, ratio, scale, at } = picture;
  const { width, height } = before;
  const luminance: Plane = { data: new Float32Array(width * height), width, height };
  const radius = Math.max(treatment.sharpen.radius, treatment.blend > 0 ? treatment.second.radius : 0);
  const surroundings = haloRadius(radius * scale);
  for (let top = 0; top < height; top += bandRows) {
    const rect = { left: at.left, top: at.top + top, width, height: Math.min(bandRows, height - top) };
    const made = enlarged
      ? enlargedBand(enlarged, ratio, scale, treatment, rect)
      : sharpenedBand(before, scale, treatment, top, rect.height);
    luminance.data.set(heldBand(made, before, top, treatment.halo, surroundings).data, top * width);
  }
  return luminance;
}

/** Rows of the picture, their halos limited by what lies round them in the plain picture. */
function heldBand(made: Plane, before: Plane, top: number, halo: number, surroundings: number): Plane {
  const { width, height } = made;
  const first = Math.max(0, top - surroundings);
  const around = rowsOfPlane(before, first, Math.min(before.height, top + height + surroundings));
  const data = around.data.slice();
  data.set(made.data, (top - first) * width);
  const held = withinHalo({ ...around, data }, around, halo, surroundings);
  return rowsOfPlane(held, top - first, top - first + height);
}

/** Rows of the picture, sharpened while it was enlarged. */
function enlargedBand(
  { raster, left, top }: PartOfPicture,
  ratio: Ratio,
  scale: number,
  treatment: PixelTreatment,
  rect: Rect,
): Plane {
  const margin = finishingRadius(treatment, ratio, scale);
  const from = Math.max(0, Math.floor(rect.top * ratio.y) - top - margin);
  const to = Math.min(raster.height, Math.ceil((rect.top + rect.height) * ratio.y) - top + margin);
  const part = rowsOf(raster, from, to);
  const plane = sharpened(luminancePlane(part), treatment, scale * Math.min(ratio.x, ratio.y));
  return scaledInLight({ plane, alpha: alphaOf(part), left, top: top + from }, ratio, treatment.kernel, rect);
}

/** Rows of the picture, sharpened at its final dimensions. */
function sharpenedBand(before: Plane, scale: number, treatment: PixelTreatment, top: number, rows: number): Plane {
  const margin = sharpeningRadius(treatment, scale);
  const { height } = before;
  const [first, last] = [Math.max(0, top - margin), Math.min(height, top + rows + margin)];
  const made = sharpened(rowsOfPlane(before, first, last), treatment, scale);
  return rowsOfPlane(made, top - first, top - first + rows);
}

/** The alpha of every pixel; null where a raster has none. */
function alphaOf({ data, width, height, channels }: Raster): Uint8Array | null {
  if (channels % 2 === 1) return null;
  const alpha = new Uint8Array(width * height);
  for (let from = channels - 1, to = 0; to < alpha.length; from += channels, to += 1) alpha[to] = data[from] as number;
  return alpha;
}

const rowsOfPlane = ({ data, width }: Plane, from: number, to: number): Plane => ({
  data: data.subarray(from * width, to * width),
  width,
  height: to - from,
});
