import { type Frame, type Mark, plainSettings } from '@inkwell/core/model';
import { sampleOriginal } from '@inkwell/core/testing';
import { Bench } from './bench.ts';
import type { Kind, RowOf } from './kinds.ts';
import { type Drawer, Shelf } from './shelf.ts';

export const ids = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'] as const;
export const frame = (index: 0 | 1, span: number, version = 1): Frame => ({
  id: ids[index],
  projectId: '00000000-0000-4000-8000-0000000000aa',
  originalId: '00000000-0000-4000-8000-0000000000bb',
  placeId: 'sunpane/story',
  ...plainSettings,
  window: { centreX: 500, centreY: 500, span, turn: 0, mirror: false },
  composed: false,
  format: 'jpeg',
  version,
});
export const at = (span: number) => ({ window: { centreX: 500, centreY: 500, span, turn: 0, mirror: false } });
/** The rows that wait to be sent, and on which version. */
export const waiting = (bench: Bench, kind: Kind = 'frames') => {
  const { phases, saved, settings } = bench.getState();
  return Object.entries(phases[kind]).flatMap(([id, { is }]) =>
    is === 'waiting' ? [{ row: saved[kind][id], settings: settings[kind][id] }] : [],
  );
};
/** It is sent as it is set now, and the server answers with `row`. */
export const saves = <K extends Kind>(
  bench: Bench,
  kind: K,
  row: RowOf<K>,
  meanwhile: () => void = () => undefined,
) => {
  bench.happen(kind, row.id, (machine, state) => machine.sent(state));
  meanwhile();
  bench.happen(kind, row.id, (machine, state) => machine.answered(state, row));
};
/** It is sent, and the server has it otherwise. */
export const conflicts = <K extends Kind>(bench: Bench, kind: K, theirs: RowOf<K>) => {
  bench.happen(kind, theirs.id, (machine, state) => machine.sent(state));
  bench.happen(kind, theirs.id, (machine, state) => machine.contradicted(state, theirs));
};
export const others = { projects: [], finishes: [] };

export const originalId = sampleOriginal().id;
export const picture = (marks: Mark[] = [], version = 1) => sampleOriginal({ marks, version });
export const mark = (left: number): Mark => ({
  id: '00000000-0000-4000-8000-0000000000cc',
  name: 'Bin',
  role: 'avoid',
  shape: 'rectangle',
  left,
  top: 10,
  width: 20,
  height: 30,
});

export function drawer(): Drawer {
  const kept = new Map<string, string>();
  return {
    get length() {
      return kept.size;
    },
    key: (index) => [...kept.keys()][index] ?? null,
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => void kept.set(key, value),
    removeItem: (key) => void kept.delete(key),
  };
}
export const nothingKept = { unsaved: { frames: {}, originals: {}, projects: {}, finishes: {} }, past: [], future: [] };
export const bulk = (characters: number) => ({
  ...nothingKept.unsaved,
  frames: { a: { text: 'x'.repeat(characters) } },
});
export const opened = (on: Drawer, page = 'one') => new Bench(new Shelf('p', () => on, page));

export function bench(on: Drawer = drawer()) {
  const store = opened(on);
  store.adopt({ ...others, frames: [frame(0, 100), frame(1, 200)], originals: [picture()] });
  return store;
}
export const span = (store: ReturnType<typeof bench>, index: 0 | 1) =>
  store.getState().settings.frames[ids[index]]?.window.span;
