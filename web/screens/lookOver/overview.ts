import { countingVerdict, type Frame, type Original, type PlaceOfNetwork, type VerdictWord } from '@inkwell/core/model';
import type { ProjectFrame } from '../projectFrames.ts';

/** One frame of the sheet: a picture at a place, with what was said of it. */
export interface SheetFrame {
  one: ProjectFrame;
  /** Of the frame as it is set now; null where nobody has looked at it, or it has changed since. */
  verdict: VerdictWord | null;
  /** Whether something was said of it before it changed. */
  isOutdated: boolean;
  /** Of its findings; null where it has none. */
  worst: 'blocker' | 'caution' | null;
}

/** All frames of a project: a row for every picture, a column for every place. */
export interface FrameSheet {
  rows: { original: Original; cells: (SheetFrame | null)[] }[];
  columns: PlaceOfNetwork[];
}

/** A cell of the sheet, from 0. */
export interface Cell {
  row: number;
  column: number;
}

/**
 * @param originals in the order of the project
 * @param places in the order of the spec book
 * @param verdictOf what is set of a frame now
 */
export function frameSheet(
  frames: readonly ProjectFrame[],
  originals: readonly Original[],
  places: ReadonlyMap<string, PlaceOfNetwork>,
  verdictOf: (frame: Frame) => Frame['verdict'],
): FrameSheet {
  const used = new Set(frames.map(({ frame }) => frame.placeId));
  const columnIds = [...places.keys()].filter((id) => used.has(id));
  const columnOf = new Map(columnIds.map((id, at) => [id, at]));
  const cellsOf = new Map<string, (SheetFrame | null)[]>();
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

export const cellAt = ({ rows }: FrameSheet, { row, column }: Cell): SheetFrame | null =>
  rows[row]?.cells[column] ?? null;

/** Where a frame stands; null where it is not in the sheet. */
export function cellOf({ rows }: FrameSheet, frameId: string | null): Cell | null {
  for (const [row, { cells }] of rows.entries()) {
    const column = cells.findIndex((cell) => cell?.one.frame.id === frameId);
    if (column >= 0) return { row, column };
  }
  return null;
}

/** The next cell with a frame some way from another; the same where there is none that way. */
export function cellBeside(sheet: FrameSheet, from: Cell, by: Cell): Cell {
  const { rows, columns } = sheet;
  let to = from;
  for (;;) {
    to = { row: to.row + by.row, column: to.column + by.column };
    if (!rows[to.row] || to.column < 0 || to.column >= columns.length) return from;
    if (cellAt(sheet, to)) return to;
  }
}

/** The first or last frame of a row. */
export function rowEnd(sheet: FrameSheet, row: number, end: 'first' | 'last'): Cell | null {
  const cells = sheet.rows[row]?.cells ?? [];
  const column = end === 'first' ? cells.findIndex(Boolean) : cells.findLastIndex(Boolean);
  return column < 0 ? null : { row, column };
}

/** The next frame that is wanted after a cell, row by row and round again; null where there is none but that of the cell. */
export function nextWanted(sheet: FrameSheet, from: Cell, isWanted: (frame: SheetFrame) => boolean): Cell | null {
  const width = sheet.columns.length;
  const count = width * sheet.rows.length;
  const start = from.row * width + from.column;
  for (let step = 1; step < count; step += 1) {
    const at = (start + step) % count;
    const cell = { row: Math.floor(at / width), column: at % width };
    const frame = cellAt(sheet, cell);
    if (frame && isWanted(frame)) return cell;
  }
  return null;
}

/** Which frames are gone through. */
export const shownFrames = ['all', 'to look over', 'look again', 'left out', 'with findings'] as const;
export type ShownFrames = (typeof shownFrames)[number];

export const isShown: Record<ShownFrames, (frame: SheetFrame) => boolean> = {
  all: () => true,
  'to look over': ({ verdict }) => verdict === null,
  'look again': ({ verdict }) => verdict === 'look again',
  'left out': ({ verdict }) => verdict === 'leave out',
  'with findings': ({ worst }) => worst !== null,
};
