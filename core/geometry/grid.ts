import type { Dimensions, FrameSettings, Place } from '../model/index.ts';
import { type Picture, placeDimensions } from './dimensions.ts';
import type { Rect } from './rect.ts';

/** How one picture is cut into equal pieces. All lengths are whole pixels of the files. */
export interface Grid {
  columns: number;
  rows: number;
  /** One piece. */
  piece: Dimensions;
  /** What is left out between two pieces, because the network shows a gap there; 0 where the pieces touch. */
  bridge: number;
}

/** The gap that a network shows between two tiles, in pixels of a tile. */
export function gapPixels(place: Pick<Place, 'group' | 'width'>): number {
  const { group } = place;
  return group && group.kind !== 'panels' ? Math.round(group.gap * place.width) : 0;
}

/** What says how a frame is cut. */
export type GridSettings = Pick<FrameSettings, 'grid' | 'bridged' | 'closing'>;

/** How a frame is cut into pieces, a closing panel among them; null where it is one picture. */
export function gridOf(place: Place, settings: GridSettings): Grid | null {
  const spread = spreadOf(place, settings);
  return spread && hasClosing(place, settings) ? { ...spread, columns: spread.columns + 1 } : spread;
}

/** The pieces that the frame's window is spread over: all of them but a closing panel. */
export function spreadOf(place: Place, { grid, bridged }: GridSettings): Grid | null {
  if (!grid || !place.group || typeof place.height !== 'number') return null;
  const piece = { width: place.width, height: place.height };
  return { columns: grid.columns, rows: grid.rows, piece, bridge: bridged ? gapPixels(place) : 0 };
}

/** Whether a frame ends with a panel that shows the whole picture: only strips can. */
export const hasClosing = ({ group }: Pick<Place, 'group'>, { grid, closing }: GridSettings): boolean =>
  closing !== null && grid !== null && group?.kind === 'panels';

/** The pixels of a whole frame, before it is cut into pieces. */
export function frameDimensions(
  place: Place,
  picture: Picture,
  settings: GridSettings & Pick<FrameSettings, 'dimensions'>,
): Dimensions {
  const grid = gridOf(place, settings);
  return grid ? wholeDimensions(grid) : placeDimensions(place, picture, settings.dimensions);
}

/** The whole picture that is cut: rendered once, never piece by piece. */
export function wholeDimensions({ columns, rows, piece, bridge }: Grid): Dimensions {
  return {
    width: columns * piece.width + (columns - 1) * bridge,
    height: rows * piece.height + (rows - 1) * bridge,
  };
}

/** Where each piece lies in the whole, in reading order: row by row, from the left. */
export function piecesOf({ columns, rows, piece, bridge }: Grid): Rect[] {
  return Array.from({ length: columns * rows }, (_, index) => ({
    left: (index % columns) * (piece.width + bridge),
    top: Math.floor(index / columns) * (piece.height + bridge),
    ...piece,
  }));
}

/** The share of the whole that a bridge leaves out, 0..1. */
export function bridgedShare(grid: Grid): number {
  const { width, height } = wholeDimensions(grid);
  const shown = grid.columns * grid.rows * grid.piece.width * grid.piece.height;
  return 1 - shown / (width * height);
}

/** A band between two pieces: where it begins along its axis, and how wide it is. */
export interface Seam {
  axis: 'x' | 'y';
  start: number;
  width: number;
}

/** The seams of a grid, in pixels of the whole. */
export function seamsOf({ columns, rows, piece, bridge }: Grid): Seam[] {
  const along = (axis: Seam['axis'], count: number, length: number) =>
    Array.from({ length: count - 1 }, (_, index) => ({
      axis,
      start: (index + 1) * length + index * bridge,
      width: bridge,
    }));
  return [...along('x', columns, piece.width), ...along('y', rows, piece.height)];
}
