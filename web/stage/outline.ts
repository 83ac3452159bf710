import type { Grid } from '@inkwell/core/geometry';
import type { Dimensions, Window } from '@inkwell/core/model';

/** Where a frame lies on its original. */
export interface Outline {
  id: string;
  window: Window;
  output: Dimensions;
  /** Where it is cut into several pieces. */
  grid?: Grid | null;
}
