import { type Bounds, boundsOf, nudge, turnBy, zoomAbout } from '@inkwell/core/geometry';
import type { Dimensions, FrameChange, FrameSettings, Window } from '@inkwell/core/model';
import { panelRange } from '@inkwell/core/splitting';
import { useEffect, useRef } from 'react';
import { type BenchFrame, contentAreaFor, resetChange, windowFor } from './frames/benchFrame.ts';
import { movingWindow, useBenchStore } from './state/useBench.ts';

const keys: [string, string][] = [
  ['← → ↑ ↓', 'move the frame by one of its pixels'],
  ['Shift ← → ↑ ↓', 'by ten'],
  ['+ and −', 'tighten and loosen'],
  ['0', 'reset to the largest window in the middle, upright and without a backing'],
  ['N', 'one panel more; with Shift one fewer'],
  ['C', 'compose the frame again from the marks'],
  ['Alt while dragging', 'no snapping to thirds, middles, marks and edges'],
  ['[ and ]', 'turn by a quarter, left and right'],
  ['< and >', 'straighten by a tenth of a degree'],
  ['M', 'mirror'],
  [', and .', 'the frame before and after'],
  ['Enter', 'the frame as a close-up; Esc goes back, or puts a tool down'],
  ['F', 'the frame plain and finished; P held shows it plain'],
  ['W', 'the weight of the frame’s file; P held shows it uncompressed'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['?', 'this list'],
];

export function KeyList() {
  return (
    <table className="small" aria-label="Keys">
      <tbody>
        {keys.map(([key, does]) => (
          <tr key={key}>
            <th scope="row" style={{ textAlign: 'left', paddingRight: 18, fontWeight: 600 }}>
              {key}
            </th>
            <td>{does}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const directions: Record<string, { x: number; y: number }> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};
/** One panel more or fewer, or one row of a quilt, as far as the place goes. */
function morePanels({ at }: BenchFrame, { grid, closing }: FrameSettings, by: number): FrameChange {
  const { group } = at.place;
  if (!grid) return {};
  const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
  const range = panelRange(at.place, closing !== null);
  if (range) return { grid: { columns: within(grid.columns + by, range.least, range.most), rows: 1 } };
  return group?.kind === 'quilt'
    ? { grid: { columns: grid.columns, rows: within(grid.rows + by, group.minRows, group.maxRows) } }
    : {};
}

const tighter = 0.97;
/** After the last key the picture rests, and the movement becomes one step of undo. */

/** Where letters and arrows belong to what is being typed or chosen, not to the bench. */
const takesKeys = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest(
    'input, textarea, select, [role="slider"], [role="combobox"], [role="listbox"], [role="radiogroup"]',
  ) !== null;

/** Enter belongs to a button or link that has the focus, unless that is a frame on the wall. */
const opensCloseUp = (target: EventTarget | null) =>
  !(target instanceof HTMLElement) || target.closest('button, a') === null || target.closest('[data-frame]') !== null;

/** The keys of the bench, wherever the focus is. */
export function useBenchKeys(props: {
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  onChoose: (id: string) => void;
  /** The frame to be seen large; null goes back to the wall. */
  onCloseUp: (frameId: string | null) => void;
  /** A frame's finish to be judged. */
  onFinish: (frameId: string) => void;
  /** What a frame's file weighs. */
  onWeight: (frameId: string) => void;
  onList: () => void;
}) {
  const store = useBenchStore();
  const latest = useRef(props);
  latest.current = props;
  useEffect(() => {
    type Change = (window: Window, bounds: Bounds, contentArea: Dimensions) => Window;
    const moveChosen = (change: Change) => {
      const { chosen } = latest.current;
      const { settings } = store.getState();
      const set = chosen && settings.frames[chosen.frame.id];
      if (!chosen || !set) return;
      const now = movingWindow(store.getState(), chosen.frame.id) ?? windowFor(chosen, set);
      store.move(chosen.frame.id, change(now, boundsOf(chosen.original, set.backing), contentAreaFor(chosen, set)));
      store.commitMoveSoon();
    };
    const zoom = (factor: number) =>
      moveChosen((window, bounds, contentArea) =>
        zoomAbout(window, factor, { x: window.centreX, y: window.centreY }, bounds, contentArea),
      );
    /** Turning and mirroring leave a composed frame composed. */
    const pose = (change: Change) => {
      store.commitMove();
      const { chosen } = latest.current;
      const set = chosen && store.getState().settings.frames[chosen.frame.id];
      if (!chosen || !set) return;
      const now = windowFor(chosen, set);
      const window = change(now, boundsOf(chosen.original, set.backing), contentAreaFor(chosen, set));
      store.set('frames', chosen.frame.id, { window });
    };
    const turn = (by: number) => pose((window, bounds, contentArea) => turnBy(window, by, bounds, contentArea));
    const setChosen = (change: (one: BenchFrame, settings: FrameSettings) => FrameChange) => {
      const { chosen } = latest.current;
      const set = chosen && store.getState().settings.frames[chosen.frame.id];
      if (chosen && set) store.set('frames', chosen.frame.id, change(chosen, set));
    };
    const openCloseUp = (target: EventTarget | null) => {
      const pressed = target instanceof HTMLElement ? target.closest<HTMLElement>('[data-frame]')?.dataset.frame : null;
      const { chosen, onCloseUp } = latest.current;
      const shown = pressed ?? chosen?.frame.id;
      if (shown) onCloseUp(shown);
    };
    const chooseNext = (by: number) => {
      const { frames, chosen, onChoose } = latest.current;
      const at = frames.findIndex((one) => one.frame.id === chosen?.frame.id);
      const next = frames[(at + by + frames.length) % frames.length];
      if (next) onChoose(next.frame.id);
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || takesKeys(event.target)) return;
      const direction = directions[event.key];
      if (event.ctrlKey || event.metaKey) {
        if (event.key.toLowerCase() !== 'z') return;
        if (event.shiftKey) store.redo();
        else store.undo();
      } else if (event.altKey) return;
      else if (direction) {
        const by = event.shiftKey ? 10 : 1;
        moveChosen((window, bounds, contentArea) =>
          nudge(window, { x: direction.x * by, y: direction.y * by }, bounds, contentArea),
        );
      } else if (event.key === '+' || event.key === '=') zoom(tighter);
      else if (event.key === '-') zoom(1 / tighter);
      else if (event.key === '0') setChosen(resetChange);
      else if (event.key === '[') turn(-90);
      else if (event.key === ']') turn(90);
      else if (event.key === '<') turn(-0.1);
      else if (event.key === '>') turn(0.1);
      else if (event.key === 'm') pose((window) => ({ ...window, mirror: !window.mirror }));
      else if (event.key === 'n' || event.key === 'N')
        setChosen((one, settings) => morePanels(one, settings, event.shiftKey ? -1 : 1));
      else if (event.key === 'c') setChosen(() => ({ composed: true }));
      else if (event.key === 'Enter' && opensCloseUp(event.target)) openCloseUp(event.target);
      else if (event.key === 'f' && latest.current.chosen) latest.current.onFinish(latest.current.chosen.frame.id);
      else if (event.key === 'w' && latest.current.chosen) latest.current.onWeight(latest.current.chosen.frame.id);
      else if (event.key === 'Escape') latest.current.onCloseUp(null);
      else if (event.key === ',') chooseNext(-1);
      else if (event.key === '.') chooseNext(1);
      else if (event.key === '?') latest.current.onList();
      else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      store.commitMove();
    };
  }, [store]);
}
