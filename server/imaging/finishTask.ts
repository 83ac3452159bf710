import {
  type Finished,
  finishFigures,
  finishPixels,
  type PixelTreatment,
  type ToFinish,
} from '@inkwell/core/finishing';
import type { FinishFigures } from '@inkwell/core/model';
import { move } from 'piscina';

export interface FinishTask {
  picture: ToFinish;
  treatment: PixelTreatment;
  /** Also measures what finishing has done. */
  measured: boolean;
}
export interface FinishResult extends Finished {
  figures: FinishFigures | null;
}

/** Runs in a thread of its own: finishing is arithmetic over millions of pixels, and requests must not wait for it. */
export default function finishTask({ picture, treatment, measured }: FinishTask): FinishResult {
  const finished = finishPixels(picture, treatment);
  const figures = measured ? finishFigures(picture.plain, finished.raster) : null;
  // Handed over instead of copied.
  move(finished.raster.data.buffer as ArrayBuffer);
  return { ...finished, figures };
}
