import { type GridSettings, gridOf } from '../geometry/index.ts';
import type { PieceOfWhole, Place } from '../model/index.ts';
import { postingRule, uploadNumbers } from './posting.ts';

/** The pieces of a frame in the order in which they are uploaded; a single null where it is one picture. */
export function piecesInOrder(place: Place, settings: GridSettings): (PieceOfWhole | null)[] {
  const grid = gridOf(place, settings);
  if (!grid || !place.group) return [null];
  const { columns, rows } = grid;
  const rule = postingRule(place.group);
  // A listed order is one for the network's own grid.
  const fits = typeof rule === 'string' || rule.length === columns * rows;
  return uploadNumbers(columns, rows, fits ? rule : 'as read')
    .map((number, index) => ({
      index,
      number,
      of: columns * rows,
      column: (index % columns) + 1,
      row: Math.floor(index / columns) + 1,
      columns,
      rows,
    }))
    .sort((a, b) => a.number - b.number);
}
