import { type Resampling, resampled } from '@inkwell/core/finishing';
import type { Raster } from '@inkwell/core/planes';
import { move } from 'piscina';

export interface ResampleTask {
  raster: Raster;
  resampling: Resampling;
}

/** Runs in a thread of its own, as finishing does. */
export default function resampleTask({ raster, resampling }: ResampleTask): Raster {
  const made = resampled(raster, resampling);
  // Handed over instead of copied.
  move(made.data.buffer as ArrayBuffer);
  return made;
}
