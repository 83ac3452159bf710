import type { Picture } from '../geometry/index.ts';
import type { DetailKept, FrameSettings, Original, Place, Weight } from '../model/index.ts';

/** All that findings about one frame follow from. */
export interface FrameToCheck {
  original: Picture & Pick<Original, 'hasAlpha' | 'marks'>;
  place: Place;
  settings: FrameSettings;
  /** Null while it has not been measured. */
  weight: Weight | null;
  /** What is left of its marks where it is shown small; null while it has not been measured. */
  detail?: readonly DetailKept[] | null;
}
