import { coveringRect } from '@inkwell/core/geometry';
import { type Analysis, analyserVersion, type Dimensions, type PictureSource } from '@inkwell/core/model';
import { scalePlan, wholePlan } from '@inkwell/core/planning';
import { bodyBox } from '@inkwell/core/seeing';
import sharp from 'sharp';
import type { WorkingCopies, WorkingCopy } from '../copies/workingCopy.ts';
import { bodyOf } from '../measuring/bodyOf.ts';
import { fromPixels, type Pixels, toPixels } from '../stages/pixels.ts';
import { renderPixels } from '../stages/renderPixels.ts';
import { inThread } from '../threads.ts';
import type { Analysed, AnalyseTask } from './analyseTask.ts';
import { looksAt } from './looks.ts';
import { proposalsOf } from './proposalsOf.ts';

/** The longer side of the picture in which words are looked for, in pixels. */
export const wordsSide = 1024;
/**
 * The longer sides of the pictures in which other things are looked for: tilt, kind and body; what stands out; and for detectors,
 * which take smaller pictures of their own from it, where a panorama has at least a shorter side and at most a longer one. The
 * thresholds of tilt and kind were measured at theirs.
 */
const sides = { medium: 896, salient: 320, detail: 1024, leastShort: 640, mostLong: 3200 };
/** A picture that takes longer has got the detectors stuck. */
const patienceMs = 90_000;
/** Less than this, in degrees, nobody sees. */
const leastTilt = 0.3;
const analyseTask = new URL('./analyseTask.ts', import.meta.url);

/** A picture could not be looked at; the cause says why. */
export class LookFailed extends Error {
  constructor(cause: unknown) {
    super('The detectors could not be loaded, or stopped at this picture.', { cause });
  }
}

/**
 * Looks at an original in every way there is: for faces and things, words, what stands out, its tilt, its body and its kind.
 *
 * @throws LookFailed where the detectors cannot be loaded, or stop at this picture
 */
export async function analyse(original: PictureSource, copies: WorkingCopies): Promise<Analysis> {
  const detail = await seenAt(original, detailShare(original), await copies.get(original));
  const { proposals, hasBody, ...analysis } = await lookAtPixels(detail);
  return {
    ...analysis,
    proposals: proposals.map((one) => ({ ...one, ...coveringRect(one, detail, original) })),
    body: hasBody ? await bodyOf(original, copies) : null,
  };
}

/** What is seen in pixels, in their coordinates, and whether they are artwork on a margin. @param detail red, green and blue */
export async function lookAtPixels(detail: Pixels): Promise<Omit<Analysis, 'body'> & { hasBody: boolean }> {
  const picture = await reduced(detail, wordsSide);
  const medium = await reduced(picture, sides.medium);
  const small = await reduced(medium, sides.salient);
  const looks = await looksAt(detail);
  const task: AnalyseTask = {
    picture,
    medium,
    small,
    looks: looks.map(({ objects, faces }) => ({ objects: objects.pixels, faces: faces.pixels })),
  };
  const analysed = await inItsThread(task);
  const { kind, tilt, ground } = analysed;
  return {
    version: analyserVersion,
    proposals: proposalsOf(analysed, looks, detail, { words: picture, salient: small }),
    tilt: tilt !== null && kind !== 'flat artwork' && Math.abs(tilt) >= leastTilt ? Math.round(tilt * 100) / 100 : null,
    picture: kind,
    ground,
    hasBody: bodyBox(medium) !== null,
  };
}

async function inItsThread(task: AnalyseTask): Promise<Analysed> {
  try {
    return await inThread(analyseTask, task, 'looking', AbortSignal.timeout(patienceMs));
  } catch (cause) {
    throw new LookFailed(cause);
  }
}

function detailShare({ width, height }: Dimensions): number {
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  return Math.min(1, Math.max(sides.detail / long, Math.min(sides.leastShort / short, sides.mostLong / long)));
}

/** An original at a share of its dimensions, in red, green and blue; transparent parts are white. */
async function seenAt(original: PictureSource, share: number, copy: WorkingCopy): Promise<Pixels> {
  const pixels = await renderPixels(scalePlan(wholePlan(original), share), copy);
  return toPixels(fromPixels(pixels).flatten({ background: '#fff' }).toColourspace('srgb'));
}

const reduced = (pixels: Pixels, side: number): Promise<Pixels> =>
  toPixels(
    fromPixels(pixels).resize(side, side, { fit: 'inside', withoutEnlargement: true, kernel: sharp.kernel.cubic }),
  );
