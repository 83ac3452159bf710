import { finishingRadius, finishPixels } from '@inkwell/core/finishing';
import type { Rect } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import type { RenderPlan } from '@inkwell/core/planning';
import { differencePixels, type Histogram, histogramOf } from '@inkwell/core/seeing';
import { expose, transfer } from 'comlink';
import { LRUCache } from 'lru-cache';

/** What is finished in the browser while a hand moves a slider. */
export interface PartToFinish {
  /** URLs of the plain and the enlarged picture, without the crop query. */
  plainUrl: string;
  enlargedUrl: string;
  /** URL of a picture whose histogram stands for that of the whole plain picture. */
  countedUrl: string;
  /** The dimensions of the whole plain picture. */
  picture: Dimensions;
  finish: NonNullable<RenderPlan['finish']>;
  /** The part that is looked at, in pixels of the file. */
  rect: Rect;
}

/** What was asked for under a key lately, made once: while it is made, and as long as it is kept. */
function lately<Value extends object>(most: number, make: (key: string) => Promise<Value>) {
  const kept = new LRUCache<string, Promise<Value>>({ max: most });
  return (key: string): Promise<Value> => {
    const known = kept.get(key);
    if (known) return known;
    const made = make(key);
    kept.set(key, made);
    made.catch(() => kept.delete(key));
    return made;
  };
}

/** Pixels by their URL: sliders ask for the same ones again and again. */
const rasterAt = lately(4, fetchRaster);
/** Histograms by their picture's URL: the pictures themselves need not be kept for them. */
const counted = lately(50, async (url) => histogramOf(await fetchRaster(url)));

async function fetchRaster(url: string): Promise<Raster> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`The pixels could not be loaded (${response.status}).`);
  // Numbers as they are in the file: not converted for the screen, and not multiplied by alpha.
  const bitmap = await createImageBitmap(await response.blob(), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'none',
  });
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser cannot draw in a worker.');
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return withoutAlpha({ data: context.getImageData(0, 0, width, height).data, width, height, channels: 4 });
}

/** The same in RGB where nothing is transparent: a channel less to go through. */
function withoutAlpha(raster: Raster): Raster {
  const { data, width, height } = raster;
  for (let at = 3; at < data.length; at += 4) if (data[at] !== 255) return raster;
  const colours = new Uint8ClampedArray(width * height * 3);
  for (let from = 0, to = 0; from < data.length; from += 4, to += 3) {
    colours[to] = data[from] as number;
    colours[to + 1] = data[from + 1] as number;
    colours[to + 2] = data[from + 2] as number;
  }
  return { data: colours, width, height, channels: 3 };
}

/** As a canvas takes it. */
function withAlpha({ data, width, height, channels }: Raster): Uint8ClampedArray<ArrayBuffer> {
  const pixels = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let from = 0, to = 0; to < pixels.length; from += channels, to += 4) {
    for (let channel = 0; channel < channels; channel += 1) pixels[to + channel] = data[from + channel] as number;
  }
  return pixels;
}

const partQuery = ({ left, top, width, height }: Rect) => `&left=${left}&top=${top}&width=${width}&height=${height}`;

const finisher = {
  /** A part of a picture, finished by the same arithmetic as the server's. RGBA, row by row. */
  async finish({
    plainUrl,
    enlargedUrl,
    countedUrl,
    picture,
    finish,
    rect,
  }: PartToFinish): Promise<Uint8ClampedArray<ArrayBuffer>> {
    const { scale, ...treatment } = finish;
    const needsHistogram = treatment.tone.kind === 'automatic' || treatment.tone.kind === 'paper';
    const plain = await rasterAt(plainUrl + partQuery(rect));
    const isEnlarged = finish.oversize > 1;
    const whole = {
      width: Math.round(picture.width * finish.oversize),
      height: Math.round(picture.height * finish.oversize),
    };
    const ratio = { x: whole.width / picture.width, y: whole.height / picture.height };
    let enlarged = null;
    if (isEnlarged) {
      const margin = finishingRadius(treatment, ratio, scale);
      const left = Math.max(0, Math.floor(rect.left * ratio.x) - margin);
      const top = Math.max(0, Math.floor(rect.top * ratio.y) - margin);
      const right = Math.min(whole.width, Math.ceil((rect.left + rect.width) * ratio.x) + margin);
      const bottom = Math.min(whole.height, Math.ceil((rect.top + rect.height) * ratio.y) + margin);
      const part = { left, top, width: right - left, height: bottom - top };
      enlarged = { raster: await rasterAt(enlargedUrl + partQuery(part)), left, top };
    }
    const { raster } = finishPixels(
      { plain, enlarged, ratio, at: rect, scale, ...(needsHistogram ? { histogram: await counted(countedUrl) } : {}) },
      treatment,
    );
    const data = withAlpha(raster);
    return transfer(data, [data.buffer]);
  },

  /** The difference of two pictures, amplified, as a canvas takes it. */
  async difference(
    beforeUrl: string,
    afterUrl: string,
    gain: number,
  ): Promise<{ pixels: Uint8ClampedArray<ArrayBuffer>; width: number; height: number }> {
    const [before, after] = await Promise.all([rasterAt(beforeUrl), rasterAt(afterUrl)]);
    const pixels = differencePixels(before, after, gain);
    return transfer({ pixels, width: before.width, height: before.height }, [pixels.buffer]);
  },

  /** How many pixels of a picture have each level. */
  async histogram(url: string): Promise<Histogram> {
    return counted(url);
  },
};
export type Finisher = typeof finisher;

expose(finisher);
