import { finishFigures } from '@inkwell/core/finishing';
import type { Similarity } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import { colourShift, similarityOf } from '@inkwell/core/seeing';

export interface ShownTask {
  /** What was delivered, scaled well, and what is shown: of the same dimensions. */
  delivered: Raster;
  shown: Raster;
}

export interface ShownFigures {
  similarity: Similarity;
  colourShift: { mean: number; most: number };
  halo: number;
}

/** Runs in a thread of its own, as finishing does. */
export default function shownTask({ delivered, shown }: ShownTask): ShownFigures {
  return {
    similarity: similarityOf(delivered, shown, []),
    colourShift: colourShift(delivered, shown),
    halo: finishFigures(delivered, shown).halo,
  };
}
