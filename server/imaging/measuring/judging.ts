import type { Rect } from '@inkwell/core/geometry';
import type { PictureNature, Similarity } from '@inkwell/core/model';
import { type Pixels, shared } from '../stages/pixels.ts';
import { inThread } from '../threads.ts';
import type { JudgeTask } from './judgeTask.ts';
import { decoded } from './opening.ts';

const task = new URL('./judgeTask.ts', import.meta.url);

/** How alike a file and the uncompressed picture are, measured on the file's own bytes. */
export const judged = async (picture: Pixels, data: Buffer, regions: readonly Rect[]): Promise<Similarity> =>
  alike(picture, shared(await decoded(data)), regions);

/** How alike two pictures of the same dimensions are. */
export const alike = (picture: Pixels, other: Pixels, regions: readonly Rect[]): Promise<Similarity> =>
  inThread<JudgeTask, Similarity>(task, { kind: 'similarity', picture: toMeasure(picture), other, regions });

/** Remembered while the pixels are. */
const copies = new WeakMap<Pixels, Pixels>();

/**
 * A picture where threads look at it without copying it each time. Encoders take a fifth longer to read pixels from there, so
 * that they keep those that they have.
 */
function toMeasure(picture: Pixels): Pixels {
  const copy = copies.get(picture) ?? shared(picture);
  copies.set(picture, copy);
  return copy;
}

/** Remembered while the pixels are: one picture is encoded in many ways. */
const natures = new WeakMap<Pixels, Promise<PictureNature>>();

/** What a picture is, by its pixels. */
export function nature(picture: Pixels): Promise<PictureNature> {
  const known = natures.get(picture);
  if (known) return known;
  const seen = inThread<JudgeTask, PictureNature>(task, { kind: 'nature', picture: toMeasure(picture) });
  natures.set(picture, seen);
  seen.catch(() => natures.delete(picture));
  return seen;
}
