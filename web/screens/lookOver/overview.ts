import { countingVerdict, type Frame, type Original, type PlaceOfNetwork, type VerdictWord } from '@inkwell/core/model';
import type { ProjectFrame } from '../projectFrames.ts';

/** One frame of the overview: a picture at a place, with what was said of it. */
export interface OverviewFrame {
  one: ProjectFrame;
  /** Of the frame as it is set now; null where nobody has looked at it, or it has changed since. */
  verdict: VerdictWord | null;
  /** Whether something was said of it before it changed. */
  isOutdated: boolean;
  /** Of its findings; null where it has none. */
  worst: 'blocker' | 'caution' | null;
}

/** All frames of a project: a row for every picture, a column for every place. */
export interface Overview {
  rows: { original: Original; cells: (OverviewFrame | null)[] }[];
  columns: PlaceOfNetwork[];
}

/** A cell of the overview, from 0. */
export interface Cell {
  row: number;
  column: number;
}

/**
 * @param originals in the order of the project
 * @param places in the order of the spec book
 * @param verdictOf what is set of a frame now
 */
export function overviewOf(
  frames: readonly ProjectFrame[],
  originals: readonly Original[],
  places: ReadonlyMap<string, PlaceOfNetwork>,
  verdictOf: (frame: Frame) => Frame['verdict'],
): Overview {
  const used = new Set(frames.map(({ frame }) => frame.placeId));
  const columnIds = [...places.keys()].filter((id) => used.has(id));
  const columnOf = new Map(columnIds.map((id, at) => [id, at]));
  const cellsOf = new Map<string, (OverviewFrame | null)[]>();
  for (const one of frames) {
    const { originalId, placeId } = one.frame;
    const cells = cellsOf.get(originalId) ?? columnIds.map(() => null);
    const verdict = verdictOf(one.frame);
    const counting = countingVerdict({ verdict }, one.planHash);
    const worst = one.findings.some(({ level }) => level === 'blocker') ? 'blocker' : 'caution';
    cells[columnOf.get(placeId) ?? 0] = {
      one,
      verdict: counting,
      isOutdated: verdict !== null && counting === null,
      worst: one.findings.length > 0 ? worst : null,
    };
    cellsOf.set(originalId, cells);
  }
  return {
    rows: originals.flatMap((original) => {
      const cells = cellsOf.get(original.id);
      return cells ? [{ original, cells }] : [];
    }),
    columns: columnIds.flatMap((id) => places.get(id) ?? []),
  };
}

export const cellAt = ({ rows }: Overview, { row, column }: Cell): OverviewFrame | null =>
  rows[row]?.cells[column] ?? null;

/** Where a frame stands; null where it is not in the overview. */
export function cellOf({ rows }: Overview, frameId: string | null): Cell | null {
  for (const [row, { cells }] of rows.entries()) {
    const column = cells.findIndex((cell) => cell?.one.frame.id === frameId);
    if (column >= 0) return { row, column };
  }
  return null;
}

/** The next cell with a frame some way from another; the same where there is none that way. */
export function cellBeside(overview: Overview, from: Cell, by: Cell): Cell {
  const { rows, columns } = overview;
  let to = from;
  for (;;) {
    to = { row: to.row + by.row, column: to.column + by.column };
    if (!rows[to.row] || to.column < 0 || to.column >= columns.length) return from;
    if (cellAt(overview, to)) return to;
  }
}

/** The first or last frame of a row. */
export function rowEnd(overview: Overview, row: number, end: 'first' | 'last'): Cell | null {
  const cells = overview.rows[row]?.cells ?? [];
  const column = end === 'first' ? cells.findIndex(Boolean) : cells.findLastIndex(Boolean);
  return column < 0 ? null : { row, column };
}

/** The next frame that is wanted after a cell, row by row and round again; null where there is none but that of the cell. */
export function nextWanted(overview: Overview, from: Cell, isWanted: (frame: OverviewFrame) => boolean): Cell | null {
  const width = overview.columns.length;
  const count = width * overview.rows.length;
  const start = from.row * width + from.column;
  for (let step = 1; step < count; step += 1) {
    const at = (start + step) % count;
    const cell = { row: Math.floor(at / width), column: at % width };
    const frame = cellAt(overview, cell);
    if (frame && isWanted(frame)) return cell;
  }
  return null;
}

/** Which frames are gone through. */
export const shownFrames = ['all', 'to look over', 'look again', 'left out', 'with findings'] as const;
export type ShownFrames = (typeof shownFrames)[number];

export const isShown: Record<ShownFrames, (frame: OverviewFrame) => boolean> = {
  all: () => true,
  'to look over': ({ verdict }) => verdict === null,
  'look again': ({ verdict }) => verdict === 'look again',
  'left out': ({ verdict }) => verdict === 'leave out',
  'with findings': ({ worst }) => worst !== null,
};
