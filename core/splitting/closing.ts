import { type GridSettings, hasClosing, type Picture, pictureBox } from '../geometry/index.ts';
import type { Place } from '../model/index.ts';

/** A last panel that is filled less than this is mostly leftover. */
const mostlyLeftover = 0.5;
/** Less than this beyond whole panels is lost without anybody missing it. */
const noticed = 0.02;

/** How many panels may carry the strip of a place, at least and at most, where one more may close it. */
export function panelRange({ group }: Pick<Place, 'group'>, closes: boolean): { least: number; most: number } | null {
  if (group?.kind !== 'panels') return null;
  return { least: group.min, most: closes ? Math.max(group.min, group.max - 1) : group.max };
}

export interface ClosingOffer {
  /** How many panels the picture fills at its full height, a fraction. */
  filled: number;
  /** The panels of the strip that is offered; one more closes it. */
  panels: number;
}

/**
 * Where the last panel of a strip would be mostly leftover: the strip without it, to be closed by a panel that shows the
 * whole picture. Null where the picture fills its panels well, where the strip is of quite another length, or where it
 * is closed already.
 */
export function closingOffer(original: Picture, place: Place, settings: GridSettings): ClosingOffer | null {
  const { grid } = settings;
  const range = panelRange(place, true);
  if (!grid || !range || typeof place.height !== 'number' || hasClosing(place, settings)) return null;
  const { width, height } = pictureBox(original);
  const filled = (width / height) * (place.height / place.width);
  const panels = Math.floor(filled);
  const leftover = filled - panels;
  if (leftover < noticed || leftover >= mostlyLeftover) return null;
  const isNear = grid.columns === panels || grid.columns === panels + 1;
  return isNear && panels >= range.least && panels <= range.most ? { filled, panels } : null;
}
