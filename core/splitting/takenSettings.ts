import { dimensionsProblem, frameDimensions, type GridSettings, type Picture } from '../geometry/index.ts';
import { type FrameSettings, frameBounds, type Place, saidOf } from '../model/index.ts';
import { panelRange } from './closing.ts';

/** What of a frame's settings its place has a say in. */
export type PlacedSettings = GridSettings & Pick<FrameSettings, 'dimensions'>;

/**
 * Why a place does not take a frame that is set like this, in words, with what it takes instead; null where it does. The API, the
 * bench and deliveries all ask this.
 */
export function notTaken(place: Place, original: Picture, settings: PlacedSettings): string | null {
  return wishProblem(place, settings) ?? gridProblem(place, settings) ?? pixelProblem(place, original, settings);
}

/** What is set counts, also at a place that has settled on it. */
function wishProblem(place: Place, { dimensions }: PlacedSettings): string | null {
  return dimensions && dimensionsProblem(saidOf(place), dimensions);
}

/** The same of how a picture is cut, whatever the picture. */
export function gridProblem(place: Place, { grid, closing }: Pick<PlacedSettings, 'grid' | 'closing'>): string | null {
  const { group, name } = place;
  if (!grid) return group ? `${name} takes several pieces: say into how many the picture is cut.` : null;
  const asked = `${grid.columns} × ${grid.rows} were asked for`;
  if (!group) return grid.columns === 1 && grid.rows === 1 ? null : `${name} takes one picture; ${asked}.`;
  if (group.kind === 'panels') {
    const { least, most } = panelRange(place, closing !== null) ?? { least: group.min, most: group.max };
    const fits = grid.rows === 1 && grid.columns >= least && grid.columns <= most;
    const beside = closing ? ', and one more that closes it' : '';
    return fits ? null : `${name} takes from ${least} to ${most} panels side by side${beside}; ${asked}.`;
  }
  if (group.kind === 'block') {
    const fits = grid.columns === group.columns && grid.rows === group.rows;
    return fits ? null : `${name} takes ${group.columns} × ${group.rows} tiles; ${asked}.`;
  }
  const fits = grid.columns === group.columns && grid.rows >= group.minRows && grid.rows <= group.maxRows;
  return fits
    ? null
    : `${name} takes from ${group.minRows} to ${group.maxRows} rows of ${group.columns} tiles; ${asked}.`;
}

function pixelProblem(place: Place, original: Picture, settings: PlacedSettings): string | null {
  const { width, height } = frameDimensions(place, original, settings);
  const millions = (pixels: number) => Math.round(pixels / 1e6).toLocaleString('en');
  if (width * height <= frameBounds.pixels) return null;
  return `This frame has ${millions(width * height)} megapixels in all; at most ${millions(frameBounds.pixels)} can be made.`;
}
