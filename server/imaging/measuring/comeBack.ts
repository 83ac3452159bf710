import { cutOf, cutThings, fromTheMiddle, leftOf, lostEdges, offsetOf } from '@inkwell/core/dryRunning';
import { intersection, piecesOf, type Rect } from '@inkwell/core/geometry';
import { contrastNeeded } from '@inkwell/core/lettering';
import type { Chroma, ComeBack, Dimensions, LostEdges, ShownAt, WordsShown } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { luminancePlane } from '@inkwell/core/seeing';
import sharp from 'sharp';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';
import { inThread } from '../threads.ts';
import { opaque, scaledTo } from './asSeen.ts';
import { jpegQuality } from './jpegQuality.ts';
import { measureLegibility } from './legibility.ts';
import { decoded } from './opening.ts';
import type { ShownFigures, ShownTask } from './shownTask.ts';

const task = new URL('./shownTask.ts', import.meta.url);

/** What a network has sent back of one file. */
export interface SentBack {
  kept: Buffer;
  shown: { shownWidth: number; data: Buffer }[];
}

export interface Uploaded {
  data: Buffer;
  /** Null where another version of the program made it: then nothing is said of its words. */
  plan: RenderPlan | null;
  /** Which piece of the plan's picture it is, in reading order. */
  piece: number;
  /** What matters in the whole picture of the plan, in its pixels. */
  marks: readonly { name: string; isMust: boolean; rect: Rect }[];
}

/** What was measured, without where its pictures are kept. */
export interface MeasuredBack extends Omit<ComeBack, 'kept' | 'shown' | 'seams' | 'gap'> {
  kept: Omit<ComeBack['kept'], 'sha256'>;
  shown: Omit<ShownAt, 'sha256' | 'screen'>[];
}

/** At most so many pixels across an axis along which nothing is cut, when it is looked for what is. */
const lookedAt = 1400;

/** What a network has made of a file, measured on the pictures that came back. */
export async function measureComeBack(uploaded: Uploaded, { kept, shown }: SentBack): Promise<MeasuredBack> {
  const [delivered, keptFacts] = await Promise.all([seen(uploaded.data), factsOf(kept)]);
  const lost = await lostOf(delivered, kept, keptFacts);
  const left = await toPixels(fromPixels(delivered).extract(leftOf(delivered, lost)));
  const measured: MeasuredBack['shown'] = [];
  for (const { shownWidth, data } of shown) {
    const [back, facts] = await Promise.all([seen(data), factsOf(data)]);
    const well = await scaledTo(left, back);
    const { similarity, colourShift, halo } = await inThread<ShownTask, ShownFigures>(task, {
      delivered: well,
      shown: back,
    });
    const { width, height, bytes, format } = facts;
    measured.push({
      ...{ shownWidth, width, height, bytes, format, colourShift, halo },
      similarity: similarity.overall,
      worst: similarity.worst,
      words: await wordsAsShown(uploaded, delivered, lost, back, shownWidth),
    });
  }
  return {
    kept: keptFacts,
    lost: fromTheMiddle(lost),
    cut: cutThings(thingsIn(uploaded, delivered), delivered, lost),
    shown: measured,
  };
}

const seen = async (data: Buffer): Promise<Pixels> => opaque(await decoded(data));

async function factsOf(data: Buffer): Promise<MeasuredBack['kept']> {
  const { width, height, format, chromaSubsampling } = await sharp(data).metadata();
  const isJpeg = format === 'jpeg';
  const chromas: readonly string[] = ['4:2:0', '4:4:4'] satisfies Chroma[];
  return {
    width,
    height,
    bytes: data.length,
    format: isJpeg ? 'jpeg' : 'webp',
    chroma: isJpeg && chromas.includes(chromaSubsampling ?? '') ? (chromaSubsampling as Chroma) : null,
    quality: isJpeg ? jpegQuality(data) : null,
  };
}

/** What is gone at each edge: how much, the shape says; where, the pictures do. */
async function lostOf(delivered: Pixels, kept: Buffer, facts: Dimensions): Promise<LostEdges> {
  const cut = cutOf(delivered, facts);
  if (!cut) return lostEdges(delivered, null, 0);
  const across = cut.axis === 'x' ? delivered.height : delivered.width;
  const scale = Math.min(1, lookedAt / across);
  const side = (length: number) => Math.max(1, Math.round(length * scale));
  const whole = { width: side(delivered.width), height: side(delivered.height) };
  const part =
    cut.axis === 'x'
      ? { width: Math.floor(whole.width * cut.left), height: whole.height }
      : { width: whole.width, height: Math.floor(whole.height * cut.left) };
  const [all, rest] = await Promise.all([scaledTo(delivered, whole), scaledTo(await seen(kept), part)]);
  const offset = offsetOf(luminancePlane(all), luminancePlane(rest), cut.axis);
  return lostEdges(delivered, cut, offset / (cut.axis === 'x' ? whole.width : whole.height));
}

/** Marks and words of a file, in its own pixels. */
function thingsIn({ plan, piece, marks }: Uploaded, file: Dimensions): { name: string; isMust: boolean; rect: Rect }[] {
  const whole = plan?.grid ? piecesOf(plan.grid)[piece] : null;
  const at = whole ?? { left: 0, top: 0, ...file };
  const words = (plan?.lettering?.items ?? []).filter(({ text }) => text !== '');
  const things = [
    ...marks.map(({ name, isMust, rect }) => ({ name, isMust, rect })),
    ...words.map(({ text, box }) => ({ name: `“${text}”`, isMust: true, rect: box })),
  ];
  return things.flatMap(({ rect, ...thing }) => {
    const seen = intersection(rect, at);
    if (seen.width === 0 || seen.height === 0) return [];
    return [{ ...thing, rect: { ...seen, left: seen.left - at.left, top: seen.top - at.top } }];
  });
}

/** Plans do not say how bold words are. */
const usualWeight = 400;

/** How well the words of a file can be read: as delivered, and in what is shown, laid back over the file so that they are where its plan says. */
async function wordsAsShown(
  { data, plan, piece }: Uploaded,
  delivered: Pixels,
  lost: LostEdges,
  back: Pixels,
  shownWidth: number,
): Promise<WordsShown[]> {
  if (!plan?.lettering) return [];
  const { left, top, width, height } = leftOf(delivered, lost);
  const enlarged = fromPixels(back)
    .resize(width, height, { fit: 'fill', kernel: 'linear' })
    .png({ compressionLevel: 1 });
  const laid = fromPixels(delivered).composite([{ input: await enlarged.toBuffer(), left, top }]);
  const measured = async (file: Buffer) => {
    const files: Buffer[] = [];
    files[piece] = file;
    return measureLegibility(plan, files, [shownWidth]);
  };
  const [before, after] = [await measured(data), await measured(await laid.png({ compressionLevel: 1 }).toBuffer())];
  return after.flatMap(({ itemId, contrast }): WordsShown[] => {
    const item = plan.lettering?.items.find((one) => one.itemId === itemId);
    const own = before.find((one) => one.itemId === itemId);
    if (!item || !own) return [];
    const least = contrastNeeded((item.em * shownWidth) / delivered.width, usualWeight);
    return [{ text: item.text, delivered: own.contrast, shown: contrast, least }];
  });
}
