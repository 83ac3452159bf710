import type { Rect } from '../../geometry/index.ts';
import type { Similarity, Spot } from '../../model/index.ts';
import {
  coloursOf,
  comparedRadius,
  fillSsimMap,
  inPlaneMemory,
  type Plane,
  type PlaneMemory,
  type Raster,
  rowsOf,
  ssimLineLength,
} from '../../planes/index.ts';
import { lookForBlockError } from './blockError.ts';
import { flatAreaErrors } from './flatAreaError.ts';
import { mapMeans, type SsimMap } from './ssimMap.ts';

/**
 * How much contrast and structure count at each scale, the finest first, every next one half as fine (Wang, Simoncelli
 * and Bovik, "Multi-scale structural similarity for image quality assessment", 2003).
 */
const scaleWeights = [0.0448, 0.2856, 0.3001, 0.2363, 0.1333];
/** Rows that are looked at, at each scale: surroundings are eleven rows high, so that every pixel has its say. */
const scaleSteps = [8, 4, 2, 1, 1];
const chromaStep = 8;
/** What luminance and the two colour differences count (Wang, Lu and Bovik 2004, for pictures in Y, Cb and Cr). */
const channelWeights = { luminance: 0.8, each: 0.1 };

/** The surroundings of a pixel: a Gaussian of 1.5 pixels over eleven pixels each way (Wang et al. 2004). */
const surroundings = halfOf(1.5);
function halfOf(deviation: number): Float32Array {
  const half = Float32Array.from({ length: comparedRadius + 1 }, (_, at) => Math.exp(-((at / deviation) ** 2) / 2));
  const sum = half.reduce((total, weight, at) => total + (at === 0 ? weight : 2 * weight), 0);
  return half.map((weight) => weight / sum);
}

/** More pixels than this are measured in bands: memory that was asked for is never given back. */
const bandPixels = 6_000_000;
/** The side of a spot in pixels, of files of all dimensions: about as large as a face in a group, or a short word. */
const spotSide = 64;

const round = (value: number) => Math.round(Math.max(0, Math.min(100, value)) * 100) / 100;

/**
 * How alike a picture and what became of it are, 0..100: the multi-scale structural similarity of their luminance (Wang,
 * Simoncelli and Bovik 2003) and the structural similarity of their two colour differences (Wang et al. 2004), weighted
 * 8 : 1 : 1. Transparent pictures are compared as they look on middle grey.
 *
 * @param regions in pixels; each is measured on its own as well
 * @throws RangeError where the two are not of the same dimensions
 */
export function similarityOf(picture: Raster, other: Raster, regions: readonly Rect[] = []): Similarity {
  if (picture.width !== other.width || picture.height !== other.height) {
    throw new RangeError(
      `Only pictures of the same dimensions can be compared; these are ${picture.width} × ${picture.height} and ` +
        `${other.width} × ${other.height}.`,
    );
  }
  const rows = Math.max(64, Math.floor(bandPixels / picture.width));
  const seen = regions.map(() => ({ sum: 0, area: 0 }));
  let [sum, area, flatAreaError, blockError] = [0, 0, 0, 0];
  const worstOfBands: Spot[] = [];
  for (let top = 0; top < picture.height; top += rows) {
    const height = Math.min(rows, picture.height - top);
    const band: Rect = { left: 0, top: 0, width: picture.width, height };
    inPlaneMemory((arena) => {
      const made = compare(arena, rowsOf(picture, top, top + height), rowsOf(other, top, top + height));
      sum += made.score(band) * height;
      area += height;
      blockError = Math.max(blockError, made.blockError);
      for (const spot of spotsIn(band)) flatAreaError = Math.max(flatAreaError, made.flatAreaError(spot));
      const spot = worstSpot(made.score, band);
      worstOfBands.push({ ...spot, top: spot.top + top });
      for (const [index, region] of regions.entries()) {
        const within = inside({ ...region, top: region.top - top }, band);
        const one = seen[index];
        if (!within || !one) continue;
        one.sum += made.score(within) * within.width * within.height;
        one.area += within.width * within.height;
      }
    });
  }
  return {
    overall: round(sum / area),
    flatAreaError: Math.round(flatAreaError * 100) / 100,
    blockError: Math.round(blockError * 100) / 100,
    worst: lowest(worstOfBands),
    // What lies outside of the picture has lost nothing.
    regions: seen.map((one) => (one.area > 0 ? round(one.sum / one.area) : 100)),
  };
}

/** The similarity of any rectangle, 0..100. */
type Score = (rect: Rect) => number;

/**
 * The structural similarity of two planes at one scale (Wang, Bovik, Sheikh and Simoncelli 2004), the mean over all
 * pixels: 1 where they are the same.
 */
export function structuralSimilarity(a: Plane, b: Plane): number {
  return inPlaneMemory((arena) => {
    const planes = [arena.reservePlane(a), arena.reservePlane(b)] as const;
    const looking = look(arena, planes, a, 1, 1);
    arena.commit();
    arena.put(planes[0], a);
    arena.put(planes[1], b);
    return looking('both').mean({ left: 0, top: 0, width: a.width, height: a.height });
  });
}

/** Compares two pictures; what comes back is good as long as the memory is. */
function compare(
  arena: PlaneMemory,
  picture: Raster,
  other: Raster,
): { score: Score; flatAreaError: Score; blockError: number } {
  const coloured = coloursOf(picture) === 3 || coloursOf(other) === 3;
  const [a, b] = [onGrey(picture, coloured), onGrey(other, coloured)];
  const size = { width: a.width, height: a.height };
  const pixels = arena.reserve(Math.ceil(a.data.length / Float32Array.BYTES_PER_ELEMENT));
  // The smaller scales lie one after the other where the planes of the colour differences lie afterwards.
  const scales = scaleSizes(size);
  const planes = scales.map((scale) => [arena.reservePlane(scale), arena.reservePlane(scale)] as const);
  const blue = coloured ? ([arena.reservePlane(size), arena.reservePlane(size)] as const) : null;
  const red = coloured ? ([arena.reservePlane(size), arena.reservePlane(size)] as const) : null;
  const looks = planes.map((pair, level) =>
    look(arena, pair, scales[level] ?? size, 2 ** level, scaleSteps[level] ?? 1),
  );
  const lightErrors = flatAreaErrors(arena, planes[0] as readonly [number, number], size);
  const damage = lookForBlockError(arena, planes[0] as readonly [number, number], size);
  // Fine grain in colour is not seen, broad patches are: movement of colour is looked at where it is half as fine.
  const halfSize = { width: Math.max(1, size.width >> 1), height: Math.max(1, size.height >> 1) };
  const colours = [blue, red].flatMap((pair) => {
    if (!pair) return [];
    const halves = [arena.reservePlane(halfSize), arena.reservePlane(halfSize)] as const;
    return [{ pair, halves, moved: flatAreaErrors(arena, halves, halfSize) }];
  });
  const chromaLooks = blue && red ? [blue, red].map((pair) => look(arena, pair, size, 1, chromaStep)) : [];
  arena.commit();
  for (const [index, raster] of [a, b].entries()) {
    arena.octets(pixels, raster.data.length).set(raster.data);
    const at = index as 0 | 1;
    const first = planes[0]?.[at] as number;
    const from = [pixels, raster.channels, size.width, size.height] as const;
    if (blue && red) arena.kernels.lightAndColours(...from, first, blue[at], red[at]);
    else arena.kernels.luminance(...from, first);
    for (const [level, scale] of scales.entries()) {
      const next = planes[level + 1]?.[at];
      if (next !== undefined) arena.kernels.halve(planes[level]?.[at] as number, scale.width, scale.height, next);
    }
  }
  const lightMoved = lightErrors();
  const blockError = damage();
  const colourMoved = colours.map(({ pair, halves, moved }) => {
    for (const at of [0, 1] as const) arena.kernels.halve(pair[at], size.width, size.height, halves[at]);
    return moved();
  });
  const flatAreaError = (rect: Rect) => {
    const half = { left: rect.left / 2, top: rect.top / 2, width: rect.width / 2, height: rect.height / 2 };
    return Math.max(lightMoved(rect), ...colourMoved.map((moved) => moved(half)));
  };
  const last = looks.length - 1;
  const maps = looks.map((looking, level) => looking(level === last ? 'both' : 'structure'));
  const chroma = chromaLooks.map((looking) => looking('both'));
  const weights = scaleWeights.slice(0, maps.length);
  const whole = weights.reduce((total, weight) => total + weight, 0);
  const score = (rect: Rect) => {
    const luminance = maps.reduce(
      (product, map, level) => product * Math.max(0, map.mean(rect)) ** ((weights[level] ?? 0) / whole),
      1,
    );
    if (chroma.length === 0) return 100 * luminance;
    const colour = chroma.reduce((sum, map) => sum + Math.max(0, map.mean(rect)), 0);
    return 100 * (channelWeights.luminance * luminance + channelWeights.each * colour);
  };
  return { score, flatAreaError, blockError };
}

/** The picture's dimensions at each scale; as many scales as still have room for a pixel's surroundings. */
function scaleSizes({ width, height }: { width: number; height: number }) {
  const sizes = [{ width, height }];
  while (sizes.length < scaleWeights.length) {
    const next = {
      width: Math.max(1, Math.floor(width / 2 ** sizes.length)),
      height: Math.max(1, Math.floor(height / 2 ** sizes.length)),
    };
    if (Math.min(next.width, next.height) < 2 * comparedRadius + 1) break;
    sizes.push(next);
  }
  return sizes;
}

/** Reserves the memory that comparing two planes takes; what comes back compares them once they are filled. */
function look(
  arena: PlaneMemory,
  [a, b]: readonly [number, number],
  { width, height }: { width: number; height: number },
  scale: number,
  step: number,
) {
  const first = Math.min(height - 1, step >> 1);
  const rows = Math.ceil((height - first) / step);
  const half = arena.reserve(surroundings.length);
  const line = arena.reserve(ssimLineLength(width));
  // Every second pixel of a row is looked at.
  const columns = (width + 1) >> 1;
  const alike = arena.reservePlane({ width: columns, height: rows });
  const map = mapMeans(arena, columns, rows, { scale, across: 2, first, step });
  return (kind: 'structure' | 'both'): SsimMap => {
    arena.floats(half, surroundings.length).set(surroundings);
    const sampled = { first, step, count: rows };
    fillSsimMap(arena, [{ at: a, width, height }, b], { half, rows: sampled, line, kind, to: alike });
    return map(alike);
  };
}

/**
 * Reserves the memory that finding the spot takes at which two pairs of planes are least alike; what comes back finds it
 * once they are filled: the mean of both at that spot, 0..100.
 */
export function worstSimilarity(
  arena: PlaneMemory,
  size: { width: number; height: number },
  pairs: readonly (readonly [number, number])[],
): () => number {
  const looks = pairs.map((pair) => look(arena, pair, size, 1, chromaStep));
  return () => {
    const maps = looks.map((looking) => looking('both'));
    const score = (rect: Rect) => (100 * maps.reduce((sum, map) => sum + map.mean(rect), 0)) / maps.length;
    return worstSpot(score, { left: 0, top: 0, ...size }).similarity;
  };
}

function worstSpot(score: Score, whole: Rect): Spot {
  const { similarity, ...spot } = lowest(spotsIn(whole).map((one) => ({ ...one, similarity: score(one) })));
  return { ...spot, similarity: round(similarity) };
}

/** The spot where most is lost; of a picture without any, its first pixel. */
const lowest = (spots: readonly Spot[]): Spot =>
  spots.reduce((worst, spot) => (spot.similarity < worst.similarity ? spot : worst), spots[0] ?? noSpot);

const noSpot: Spot = { left: 0, top: 0, width: 1, height: 1, similarity: 100 };

/** Spots that cover a picture, each overlapping the next by half. */
function spotsIn({ width, height }: Rect): Rect[] {
  const spot = { width: Math.min(spotSide, width), height: Math.min(spotSide, height) };
  return starts(height, spot.height).flatMap((top) =>
    starts(width, spot.width).map((left) => ({ left, top, ...spot })),
  );
}

/** Where spots begin that cover a length: every half of one, the last at the end. */
function starts(length: number, spot: number): number[] {
  const step = Math.max(1, spot >> 1);
  const found: number[] = [];
  for (let at = 0; at + spot < length; at += step) found.push(at);
  return [...found, length - spot];
}

function inside(region: Rect, within: Rect): Rect | null {
  const left = Math.max(region.left, within.left);
  const top = Math.max(region.top, within.top);
  const right = Math.min(region.left + region.width, within.left + within.width);
  const bottom = Math.min(region.top + region.height, within.top + within.height);
  return right > left && bottom > top ? { left, top, width: right - left, height: bottom - top } : null;
}

/** A picture as it looks on middle grey, in one channel or three. */
function onGrey(raster: Raster, coloured: boolean): Raster {
  const { data, width, height, channels } = raster;
  const wanted = coloured ? 3 : 1;
  if (channels === wanted) return raster;
  const colours = coloursOf(raster);
  const hasAlpha = channels % 2 === 0;
  const laid = new Uint8Array(width * height * wanted);
  for (let pixel = 0; pixel < width * height; pixel += 1) {
    const at = pixel * channels;
    const cover = hasAlpha ? (data[at + channels - 1] as number) / 255 : 1;
    for (let channel = 0; channel < wanted; channel += 1) {
      const value = data[at + (colours === 3 ? channel : 0)] as number;
      laid[pixel * wanted + channel] = Math.round(value * cover + 128 * (1 - cover));
    }
  }
  return { data: laid, width, height, channels: wanted };
}
