import { type Bounds, boundsOf, nudge, turnBy, zoomAbout } from '@inkwell/core/geometry';
import type { Dimensions, FrameChange, FrameSettings, Window } from '@inkwell/core/model';
import { panelRange } from '@inkwell/core/splitting';
import { useEffect, useRef } from 'react';
import { type BenchFrame, contentAreaFor, resetChange, windowFor } from './frames/benchFrame.ts';
import { movingWindow, useBenchStore } from './state/useBench.ts';

/** What the keys of the bench can do with it. */
interface Hands {
  nudge(x: number, y: number): void;
  zoom(factor: number): void;
  turn(by: number): void;
  mirror(): void;
  change(change: (one: BenchFrame, settings: FrameSettings) => FrameChange): void;
  chooseNext(by: number): void;
  closeUp(target: EventTarget | null): void;
  back(): void;
  finish(): void;
  weight(): void;
  lettering(): void;
  undo(): void;
  redo(): void;
  list(): void;
}

/** Some keys, how the list calls them, and what they do. What has no keys is only listed. */
interface Binding {
  label: string;
  does: string;
  keys: Record<string, (hands: Hands, event: KeyboardEvent) => void>;
}

const tighter = 0.97;
const step = ({ shiftKey }: KeyboardEvent) => (shiftKey ? 10 : 1);
const panels: Binding['keys'][string] = ({ change }, { shiftKey }) =>
  change((one, settings) => morePanels(one, settings, shiftKey ? -1 : 1));

/** With "Ctrl " before it: the key together with Ctrl, or the key of that meaning. */
const bindings: Binding[] = [
  {
    label: '← → ↑ ↓',
    does: 'move the frame by one of its pixels',
    keys: {
      ArrowLeft: (hands, event) => hands.nudge(-step(event), 0),
      ArrowRight: (hands, event) => hands.nudge(step(event), 0),
      ArrowUp: (hands, event) => hands.nudge(0, -step(event)),
      ArrowDown: (hands, event) => hands.nudge(0, step(event)),
    },
  },
  { label: 'Shift ← → ↑ ↓', does: 'by ten', keys: {} },
  {
    label: '+ and −',
    does: 'tighten and loosen',
    keys: {
      '+': (hands) => hands.zoom(tighter),
      '=': (hands) => hands.zoom(tighter),
      '-': (hands) => hands.zoom(1 / tighter),
    },
  },
  {
    label: '0',
    does: 'reset to the largest window in the middle, upright and without a backing',
    keys: { '0': (hands) => hands.change(resetChange) },
  },
  { label: 'N', does: 'one panel more; with Shift one fewer', keys: { n: panels, N: panels } },
  {
    label: 'C',
    does: 'compose the frame again from the marks',
    keys: { c: (hands) => hands.change(() => ({ composed: true })) },
  },
  { label: 'Alt while dragging', does: 'no snapping to thirds, middles, marks and edges', keys: {} },
  {
    label: '[ and ]',
    does: 'turn by a quarter, left and right',
    keys: { '[': (hands) => hands.turn(-90), ']': (hands) => hands.turn(90) },
  },
  {
    label: '< and >',
    does: 'straighten by a tenth of a degree',
    keys: { '<': (hands) => hands.turn(-0.1), '>': (hands) => hands.turn(0.1) },
  },
  { label: 'M', does: 'mirror', keys: { m: (hands) => hands.mirror() } },
  {
    label: ', and .',
    does: 'the frame before and after',
    keys: { ',': (hands) => hands.chooseNext(-1), '.': (hands) => hands.chooseNext(1) },
  },
  {
    label: 'Enter',
    does: 'the frame as a close-up; Esc goes back, or puts a tool down',
    keys: { Enter: (hands, { target }) => hands.closeUp(target), Escape: (hands) => hands.back() },
  },
  {
    label: 'F',
    does: 'the frame plain and finished; P held shows it plain',
    keys: { f: (hands) => hands.finish() },
  },
  {
    label: 'W',
    does: 'the weight of the frame’s file; P held shows it uncompressed',
    keys: { w: (hands) => hands.weight() },
  },
  {
    label: 'T',
    does: 'words and emblems over the pictures; Esc goes back',
    keys: { t: (hands) => hands.lettering() },
  },
  { label: 'Ctrl Z', does: 'undo', keys: { 'Ctrl z': (hands) => hands.undo() } },
  { label: 'Ctrl Shift Z', does: 'redo', keys: { 'Ctrl Z': (hands) => hands.redo() } },
  { label: '?', does: 'this list', keys: { '?': (hands) => hands.list() } },
];

/** What a press does; undefined where it is not the bench's. */
function actionOf(event: KeyboardEvent) {
  const { key, altKey, ctrlKey, metaKey, shiftKey, target } = event;
  const isCommand = ctrlKey || metaKey;
  if (altKey || (key === 'Enter' && !opensCloseUp(target))) return undefined;
  // With Shift or Caps Lock a letter comes as a capital: for commands only Shift decides.
  const name = isCommand ? `Ctrl ${shiftKey ? key.toUpperCase() : key.toLowerCase()}` : key;
  return bindings.map(({ keys }) => keys[name]).find((action) => action !== undefined);
}

export function KeyList() {
  return (
    <table className="small" aria-label="Keys">
      <tbody>
        {bindings.map(({ label, does }) => (
          <tr key={label}>
            <th scope="row" style={{ textAlign: 'left', paddingRight: 18, fontWeight: 600 }}>
              {label}
            </th>
            <td>{does}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

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
  /** What is laid over the pictures. */
  onLettering: () => void;
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
    const hands: Hands = {
      nudge: (x, y) => moveChosen((window, bounds, contentArea) => nudge(window, { x, y }, bounds, contentArea)),
      zoom: (factor) =>
        moveChosen((window, bounds, contentArea) =>
          zoomAbout(window, factor, { x: window.centreX, y: window.centreY }, bounds, contentArea),
        ),
      turn: (by) => pose((window, bounds, contentArea) => turnBy(window, by, bounds, contentArea)),
      mirror: () => pose((window) => ({ ...window, mirror: !window.mirror })),
      change(change) {
        const { chosen } = latest.current;
        const set = chosen && store.getState().settings.frames[chosen.frame.id];
        if (chosen && set) store.set('frames', chosen.frame.id, change(chosen, set));
      },
      chooseNext(by) {
        const { frames, chosen, onChoose } = latest.current;
        const at = frames.findIndex((one) => one.frame.id === chosen?.frame.id);
        const next = frames[(at + by + frames.length) % frames.length];
        if (next) onChoose(next.frame.id);
      },
      closeUp(target) {
        const pressed =
          target instanceof HTMLElement ? target.closest<HTMLElement>('[data-frame]')?.dataset.frame : null;
        const { chosen, onCloseUp } = latest.current;
        const shown = pressed ?? chosen?.frame.id;
        if (shown) onCloseUp(shown);
      },
      back: () => latest.current.onCloseUp(null),
      finish: () => latest.current.chosen && latest.current.onFinish(latest.current.chosen.frame.id),
      weight: () => latest.current.chosen && latest.current.onWeight(latest.current.chosen.frame.id),
      lettering: () => latest.current.onLettering(),
      undo: () => store.undo(),
      redo: () => store.redo(),
      list: () => latest.current.onList(),
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || takesKeys(event.target)) return;
      const action = actionOf(event);
      if (!action) return;
      action(hands, event);
      event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      store.commitMove();
    };
  }, [store]);
}
