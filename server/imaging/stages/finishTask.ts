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

/** The picture before its tone was set; nothing where none is. */
function untoned(picture: ToFinish, treatment: PixelTreatment) {
  if (treatment.tone.kind === 'as it is' && treatment.saturation === 1) return undefined;
  return finishPixels(picture, { ...treatment, tone: { kind: 'as it is' }, saturation: 1 }).raster;
}

/** Runs in a thread of its own: finishing is arithmetic over millions of pixels, and requests must not wait for it. */
export default function finishTask({ picture, treatment, measured }: FinishTask): FinishResult {
  const finished = finishPixels(picture, treatment);
  const figures = measured ? finishFigures(picture.plain, finished.raster, untoned(picture, treatment)) : null;
  // Handed over instead of copied.
  move(finished.raster.data.buffer as ArrayBuffer);
  return { ...finished, figures };
}
