import type { ImageFormat, PictureNature } from '@inkwell/core/model';
import type { QualityFloor, Straying } from '@inkwell/core/weighing';

/** How far an encoder strays on photographs: in points, and in levels for every level that calm areas may move. */
const onPhotos: Record<ImageFormat, { points: number; share: number }> = {
  jpeg: { points: 0.05, share: 0.1 },
  webp: { points: 0.15, share: 1.3 },
  avif: { points: 0.4, share: 0.7 },
  png: { points: 0.1, share: 0.8 },
};
/** What a demand leaves to calm areas without any encoder straying there, in levels. */
const steadyLevels = 1.5;
/** Round drawn lines an encoder rings now more, now less: the same for all formats, in levels. */
const onDrawings = 1.9;

/**
 * How far an encoder strays from "more quality, more similarity", so that a search knows when no lower quality can be good
 * enough. Measured by trying every quality on seventeen pictures of all kinds in all formats, at all levels.
 */
export function strayingOf(format: ImageFormat, { kind }: PictureNature, demand: QualityFloor): Straying {
  const { points, share } = onPhotos[format];
  const levels = kind === 'photo' ? share * Math.max(0.1, demand.flatAreaError - steadyLevels) : onDrawings;
  return { points, levels };
}
