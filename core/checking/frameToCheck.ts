import type { ContentAreaSettings } from '../framing/index.ts';
import type { Picture } from '../geometry/index.ts';
import type {
  DetailKept,
  FinishFigures,
  FrameChange,
  FrameSettings,
  Legibility,
  MarkToCompose,
  Original,
  Place,
  Treatment,
  Weight,
} from '../model/index.ts';
import type { LetteredFrame } from '../planning/index.ts';

/** All that findings about one frame follow from. */
export interface FrameToCheck {
  original: Picture & Pick<Original, 'hasAlpha'> & { marks: readonly MarkToCompose[] };
  place: Place;
  /** How far the original leans clockwise, in degrees, as far as that is proposed; null where nothing is. */
  tilt?: number | null;
  settings: FrameSettings;
  treatment: Treatment;
  /** Null while it has not been measured. */
  weight: Weight | null;
  /** What is left of its marks where it is shown small; null while it has not been measured. */
  detail?: readonly DetailKept[] | null;
  /** What finishing has done to it; null while it has not been measured, and where nothing is done. */
  figures?: FinishFigures | null;
  /** That its words ask its window for, in squares of its shorter side; none where it is left out. */
  wordsRoom?: number;
  /** What its words came to; null where it has none, and while fonts are loading. */
  lettered?: LetteredFrame | null;
  /** How well its words can be read; null while it has not been measured. */
  legibility?: readonly Legibility[] | null;
}

/** A frame's settings, perhaps changed, with the border of its finish: what geometry needs. */
export function withBorder(
  { settings, treatment }: Pick<FrameToCheck, 'settings' | 'treatment'>,
  change: FrameChange = {},
): FrameSettings & ContentAreaSettings {
  return { ...settings, ...change, border: treatment.border };
}
