import { randomUUID } from 'node:crypto';
import { plainTreatment } from '@inkwell/core/finishing';
import { type Colours, type ImageFormat, keepNothing, plainWeighing } from '@inkwell/core/model';
import { planFrame, type RenderPlan } from '@inkwell/core/planning';
import { similarityOf } from '@inkwell/core/seeing';
import { sampleOriginal } from '@inkwell/core/testing';
import { madePicture, type PictureKey, pictures } from '@inkwell/demo/make.ts';
import { demoSettings } from '@inkwell/demo/project.ts';
import { PieceSearch } from '@inkwell/server/imaging/encoding/pieceSearch.ts';
import { encoderFor } from '@inkwell/server/imaging/encoding/planEncoder.ts';
import { encodeFiles } from '@inkwell/server/imaging/encoding/render.ts';
import { settleAlone } from '@inkwell/server/imaging/encoding/settling.ts';
import { judged, nature } from '@inkwell/server/imaging/measuring/judging.ts';
import { decoded } from '@inkwell/server/imaging/measuring/opening.ts';
import { fromPixels, type Pixels, toPixels } from '@inkwell/server/imaging/stages/pixels.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp from 'sharp';
import { median, type Time, timed } from './inProcess.ts';

const size = { width: 1080, height: 1350 };
const portrait = 'sunpane/portrait-post';
const lines: [ImageFormat, Colours][] = [
  ['jpeg', 'full'],
  ['webp', 'full'],
  ['avif', 'full'],
  ['png', 'palette'],
];
/** Limits are these parts of what a file weighs at the highest quality. */
const limits = [0.3, 0.45, 0.6, 0.8];
const photos: readonly PictureKey[] = ['flyers', 'panorama', 'maker', 'snapshot'];

/** A demo picture at 1080 × 1350. */
async function pixelsOf(picture: PictureKey, art: string): Promise<Pixels> {
  const made = sharp(await madePicture(picture, art), { limitInputPixels: false });
  return toPixels(
    made.resize(size.width, size.height, { fit: 'cover' }).flatten({ background: '#ffffff' }).toColourspace('srgb'),
  );
}

/** A plan that takes pixels as they are and encodes them under a limit, as well as fits or no heavier than it needs. */
function planOf(format: ImageFormat, colours: Colours, bytes: number, level: 'flick' | null): RenderPlan {
  const shipped = shippedPlaces().get(portrait)?.place;
  if (!shipped) throw new Error(`There is no ${portrait}.`);
  const place = { ...shipped, formats: [format], limit: { bytes, unit: 'kB' as const } };
  const original = sampleOriginal(size);
  const aim = level ? { kind: 'no heavier than it needs' as const, level } : { kind: 'as good as fits' as const };
  const settings = {
    ...demoSettings([portrait], original, place),
    composed: false,
    format,
    weighing: { ...plainWeighing, aim, colours },
  };
  return planFrame({ original, place, settings, treatment: plainTreatment, keeping: keepNothing, headroom: 0 });
}

/** The same of an original that no search has met before. */
const unknown = (plan: RenderPlan): RenderPlan => ({ ...plan, original: { ...plan.original, sha256: randomUUID() } });

export interface SearchCost {
  format: string;
  searches: number;
  encodings: { mean: number; most: number };
  /** Of a search against one encoding at the known answer: medians over the searches. */
  ratio: Time;
}

/** What finding the answer costs against being told it: every picture under four limits, in every format. */
export async function searchCosts(art: string): Promise<SearchCost[]> {
  const all = await Promise.all((Object.keys(pictures) as PictureKey[]).map((key) => pixelsOf(key, art)));
  const costs: SearchCost[] = [];
  for (const [format, colours] of lines) {
    const counts: number[] = [];
    const ratios: Time[] = [];
    for (const pixels of all) {
      const plan = (bytes: number) => planOf(format, colours, bytes, null);
      const encoder = encoderFor(plan(1e9), '4:2:0');
      const { ladder } = encoder;
      if (!ladder) throw new Error(`${format} has no qualities.`);
      const highest = plan(1e9).encoding.quality;
      const heaviest = (await encoder.encode(pixels, highest)).length;
      for (const part of limits) {
        const search = new PieceSearch(unknown(plan(Math.round(heaviest * part))), pixels, encoder, [], nature(pixels));
        const searching = await timed(() => settleAlone(search, ladder, highest));
        const once = await timed(() => encoder.encode(pixels, search.quality));
        counts.push(search.encodings);
        ratios.push({ wall: searching.wall / once.wall, cpu: searching.cpu / once.cpu });
      }
    }
    costs.push({
      format: format === 'png' ? 'PNG, palette' : format,
      searches: counts.length,
      encodings: { mean: counts.reduce((sum, count) => sum + count, 0) / counts.length, most: Math.max(...counts) },
      ratio: { wall: median(ratios.map(({ wall }) => wall)), cpu: median(ratios.map(({ cpu }) => cpu)) },
    });
  }
  return costs;
}

/** The first ones are run while the engine still compiles, and do not count. */
const similarityRounds = { warming: 10, counted: 15 };

/** Milliseconds that measuring the similarity of one file of 1080 × 1350 takes: arithmetic alone, median. */
export async function similarityTime(art: string): Promise<number> {
  const pixels = await pixelsOf('flyers', art);
  const other = await decoded(await fromPixels(pixels).jpeg({ quality: 80 }).toBuffer());
  const times: number[] = [];
  for (let round = -similarityRounds.warming; round < similarityRounds.counted; round += 1) {
    const began = performance.now();
    similarityOf(pixels, other);
    if (round >= 0) times.push(performance.now() - began);
  }
  return median(times);
}

export interface Lighter {
  picture: string;
  ours: number;
  theirs: number;
  similarity: number;
}

/**
 * Bytes at equal similarity: a file that is no heavier than it needs for Flick against sharp's default JPEG settings at the
 * lowest quality that is at least as similar.
 */
export async function lighterThanDefaults(art: string): Promise<Lighter[]> {
  const found: Lighter[] = [];
  for (const picture of photos) {
    const pixels = await pixelsOf(picture, art);
    const { weight } = await encodeFiles(planOf('jpeg', 'full', 1e9, 'flick'), { whole: pixels, cut: [pixels] });
    const similarity = weight.files[0]?.similarity.overall ?? 0;
    for (let quality = 50; quality <= 100; quality += 1) {
      const data = await fromPixels(pixels).jpeg({ quality }).toBuffer();
      if ((await judged(pixels, data, [])).overall < similarity) continue;
      found.push({ picture: pictures[picture].name, ours: weight.bytes, theirs: data.length, similarity });
      break;
    }
  }
  return found;
}
