import type { Rect } from '@inkwell/core/geometry';
import type { PictureNature, Similarity } from '@inkwell/core/model';
import sharp from 'sharp';
import type { JudgeTask } from './judgeTask.ts';
import { type Pixels, toPixels } from './pixels.ts';
import { inThread } from './threads.ts';

const task = new URL('./judgeTask.ts', import.meta.url);

/** What the bytes of a file look like once a program has opened them. */
export const decoded = (data: Buffer): Promise<Pixels> =>
  toPixels(sharp(data, { limitInputPixels: false, failOn: 'warning' }).toColourspace('srgb'));

/** How alike a file and the uncompressed picture are, measured on the file's own bytes. */
export async function judged(picture: Pixels, data: Buffer, regions: readonly Rect[]): Promise<Similarity> {
  const other = await decoded(data);
  return inThread<JudgeTask, Similarity>(task, { kind: 'similarity', picture, other, regions });
}

/** What a picture is, by its pixels. */
export const nature = (picture: Pixels): Promise<PictureNature> =>
  inThread<JudgeTask, PictureNature>(task, { kind: 'nature', picture });
