import type { VerdictWord } from '@inkwell/core/model';
import { type RefObject, useEffect, useLayoutEffect, useRef } from 'react';
import { isTyping } from '../../parts/isTyping.ts';
import { type Cell, cellAt, cellBeside, type Overview, rowEnd } from './overview.ts';

const keyVerdicts: Record<string, VerdictWord> = { f: 'fine', l: 'look again', x: 'leave out' };
const arrows: Record<string, Cell> = {
  ArrowLeft: { row: 0, column: -1 },
  ArrowRight: { row: 0, column: 1 },
  ArrowUp: { row: -1, column: 0 },
  ArrowDown: { row: 1, column: 0 },
};
/** So many rows are a page. */
const pageRows = 6;

/** What keys do on this screen. */
interface Hands {
  judge: (word: VerdictWord) => void;
  choose: (cell: Cell) => void;
  open: (cell: Cell) => void;
  undo: () => void;
  redo: () => void;
}

/**
 * The keys of the screen: letters and undo wherever the focus is, keys that move where it is on the frames.
 *
 * @param grid what holds the frames
 */
export function useOverviewKeys(
  overview: Overview,
  chosen: Cell | null,
  grid: RefObject<HTMLElement | null>,
  hands: Hands,
): void {
  const press = useRef<(event: KeyboardEvent) => void>(() => undefined);
  // A key is about what is shown: what is only being drawn may be thrown away, or meet something that is not there yet.
  useLayoutEffect(() => {
    press.current = (event) => {
      if (isTyping(event.target)) return;
      const isOnGrid = event.target instanceof Node && grid.current?.contains(event.target);
      if (pressed(event, hands) || (isOnGrid && chosen && moved(event, overview, chosen, hands)))
        event.preventDefault();
    };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => press.current(event);
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

/** What holds everywhere. @returns whether the key means anything */
function pressed(event: KeyboardEvent, { judge, undo, redo }: Hands): boolean {
  const key = event.key.toLowerCase();
  if (event.ctrlKey || event.metaKey) {
    if (key === 'z' && !event.shiftKey) undo();
    else if (key === 'z' || key === 'y') redo();
    return key === 'z' || key === 'y';
  }
  const verdict = keyVerdicts[key];
  if (verdict) judge(verdict);
  return verdict !== undefined;
}

/** What moves from frame to frame, or opens one. @returns whether the key means anything */
function moved(event: KeyboardEvent, overview: Overview, chosen: Cell, { choose, open }: Hands): boolean {
  if (event.key === 'Enter') {
    open(chosen);
    return true;
  }
  const to = cellFor(overview, chosen, event);
  if (to) choose(to);
  return to !== null;
}

/** Where a key goes from a cell; null for keys that go nowhere. */
function cellFor(overview: Overview, from: Cell, { key, ctrlKey, metaKey }: KeyboardEvent): Cell | null {
  const last = overview.rows.length - 1;
  if (key === 'Home') return rowEnd(overview, ctrlKey ? 0 : from.row, 'first');
  if (key === 'End') return rowEnd(overview, ctrlKey ? last : from.row, 'last');
  // What else goes with Ctrl is the browser's.
  if (ctrlKey || metaKey) return null;
  const arrow = arrows[key];
  if (arrow) return cellBeside(overview, from, arrow);
  if (key !== 'PageDown' && key !== 'PageUp') return null;
  const row = Math.min(last, Math.max(0, from.row + (key === 'PageDown' ? pageRows : -pageRows)));
  const to = { row, column: from.column };
  return cellAt(overview, to) ? to : rowEnd(overview, row, 'first');
}
