import type { Dimensions, FrameSettings, Place } from '../model/index.ts';
import type { Picture } from './dimensions.ts';
import { frameDimensions, type GridSettings, gridOf } from './grid.ts';

/** What says how large the files of a frame are. */
export type UploadSettings = GridSettings & Pick<FrameSettings, 'dimensions' | 'uploadWidth'>;

/** Pixels of a frame's file to one of its place. Pieces of one picture always have the dimensions of their place. */
export const uploadShare = (place: Place, settings: Pick<UploadSettings, 'grid' | 'uploadWidth'>): number =>
  settings.uploadWidth === null || settings.grid !== null ? 1 : settings.uploadWidth / place.width;

/** The same ratio at other dimensions, in whole pixels; at least one each way. */
export const scaledBy = ({ width, height }: Dimensions, share: number): Dimensions => ({
  width: Math.max(1, Math.round(width * share)),
  height: Math.max(1, Math.round(height * share)),
});

/** The pixels of one file of a frame. */
export function fileDimensions(place: Place, picture: Picture, settings: UploadSettings): Dimensions {
  const piece = gridOf(place, settings)?.piece;
  return piece ?? scaledBy(frameDimensions(place, picture, settings), uploadShare(place, settings));
}
