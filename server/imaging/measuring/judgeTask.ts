import type { Rect } from '@inkwell/core/geometry';
import type { PictureNature, Similarity } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import { natureOf, similarityOf } from '@inkwell/core/seeing';

export type JudgeTask =
  | { kind: 'similarity'; picture: Raster; other: Raster; regions: readonly Rect[] }
  | { kind: 'nature'; picture: Raster };

/** Runs in a thread of its own, as finishing does. */
export default function judgeTask(task: JudgeTask): Similarity | PictureNature {
  return task.kind === 'nature' ? natureOf(task.picture) : similarityOf(task.picture, task.other, task.regions);
}
