import type { Dimensions, Window } from '@inkwell/core/model';

/** Where a frame lies on its original. */
export interface Outline {
  id: string;
  window: Window;
  output: Dimensions;
}
