import { largestWindow, nudge, zoomAbout } from '@inkwell/core/geometry';
import type { Window } from '@inkwell/core/model';
import { useEffect, useRef } from 'react';
import type { BenchFrame } from './benchFrame.ts';
import { step } from './benchState.ts';
import { useBenchStore } from './useBench.ts';

const keys: [string, string][] = [
  ['← → ↑ ↓', 'move the frame by one of its pixels'],
  ['Shift ← → ↑ ↓', 'by ten'],
  ['+ and −', 'tighten and loosen'],
  ['0', 'reset to the largest centred window'],
  [', and .', 'the frame before and after'],
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
const tighter = 0.97;
/** After the last key the picture rests, and the movement becomes one step of undo. */
const restMs = 160;

/** Where letters and arrows belong to what is being typed or chosen, not to the bench. */
const takesKeys = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest(
    'input, textarea, select, [role="slider"], [role="combobox"], [role="listbox"], [role="radiogroup"]',
  ) !== null;

/** The keys of the bench, wherever the focus is. */
export function useBenchKeys(props: {
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  onChoose: (id: string) => void;
  onList: () => void;
}) {
  const store = useBenchStore();
  const latest = useRef(props);
  latest.current = props;
  useEffect(() => {
    let rest: ReturnType<typeof setTimeout> | undefined;
    const moveChosen = (change: (window: Window, one: BenchFrame) => Window) => {
      const { chosen } = latest.current;
      const { moving, settings, move } = store.getState();
      const now = chosen && (moving?.frameId === chosen.frame.id ? moving.window : settings[chosen.frame.id]?.window);
      if (!chosen || !now) return;
      move(chosen.frame.id, change(now, chosen));
      clearTimeout(rest);
      rest = setTimeout(() => store.getState().rest(), restMs);
    };
    const zoom = (factor: number) =>
      moveChosen((window, one) =>
        zoomAbout(window, factor, { x: window.centreX, y: window.centreY }, one.original, one.output),
      );
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
        step(store, event.shiftKey ? 'redo' : 'undo');
      } else if (event.altKey) return;
      else if (direction) {
        const by = event.shiftKey ? 10 : 1;
        moveChosen((window, one) =>
          nudge(window, { x: direction.x * by, y: direction.y * by }, one.original, one.output),
        );
      } else if (event.key === '+' || event.key === '=') zoom(tighter);
      else if (event.key === '-') zoom(1 / tighter);
      else if (event.key === '0') moveChosen((_, one) => largestWindow(one.original, one.output));
      else if (event.key === ',') chooseNext(-1);
      else if (event.key === '.') chooseNext(1);
      else if (event.key === '?') latest.current.onList();
      else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      clearTimeout(rest);
      store.getState().rest();
    };
  }, [store]);
}
