import type { Rect } from '../../geometry/index.ts';
import type { Dimensions } from '../../model/index.ts';

/** An upright part of a picture, and the pixels that it becomes. */
export interface Part {
  /** The whole picture that it is a part of. */
  original: Dimensions;
  /** In pixels of the picture, fractions allowed; it may reach past `within` by less than an output pixel. */
  source: Rect;
  /** Only pixels of this have a say: a trim keeps the rest out. Beyond it the outermost pixels go on. */
  within: Rect;
  output: Dimensions;
}
