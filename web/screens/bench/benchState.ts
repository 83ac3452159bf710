import type {
  Finish,
  FinishSettings,
  Frame,
  FrameSettings,
  Mark,
  Original,
  OriginalSettings,
  Project,
  ProjectSettings,
  Region,
  Window,
} from '@inkwell/core/model';
import equal from 'fast-deep-equal';
import { temporal } from 'zundo';
import { createStore } from 'zustand';
import {
  adoptRows,
  type ById,
  changedSettings,
  conflictSettled,
  type Ledger,
  rowArrived,
  rowPutBack,
  unsavedRows,
} from './ledger.ts';
import { keptRows, readKept, type Shelf } from './shelf.ts';

/** What is edited on a bench: its frames, what is set on their originals and for the project, and finishes. */
export interface Kinds {
  frames: { row: Frame; settings: FrameSettings };
  originals: { row: Original; settings: OriginalSettings };
  projects: { row: Pick<Project, 'id' | 'version' | 'finishId' | 'keeping'>; settings: ProjectSettings };
  finishes: { row: Finish; settings: FinishSettings };
}
export type Kind = keyof Kinds;
export const kinds = ['finishes', 'projects', 'originals', 'frames'] as const satisfies readonly Kind[];

/** Something for every kind. */
type ForAll<What extends { [K in Kind]: unknown }> = { [K in Kind]: What[K] };
type Rows = ForAll<{ [K in Kind]: ById<Kinds[K]['row']> }>;
type Settings = ForAll<{ [K in Kind]: ById<Kinds[K]['settings']> }>;
/** What the server has of everything that is edited. */
type Known = { [K in Kind]: readonly Kinds[K]['row'][] };

const none = { frames: {}, originals: {}, projects: {}, finishes: {} };

/** A window or a mark on its way. */
export type Moving =
  | { kind: 'window'; frameId: string; window: Window }
  | { kind: 'mark'; originalId: string; markId: string; region: Region };

/** The marks of an original with the one that is moved where it is now. */
export function withMoved(marks: readonly Mark[], moving: Moving | null): Mark[] {
  return marks.map((mark) =>
    moving?.kind === 'mark' && mark.id === moving.markId ? { ...mark, ...moving.region } : mark,
  );
}

/** What the bench of one project knows, ahead of what the server has. */
export interface Bench {
  /** How everything is set now: the part that undo and redo go over. */
  settings: Settings;
  /** Everything as the server has it. What is set otherwise is still to be saved. */
  saved: Rows;
  /** What was changed elsewhere while it was changed here, as it is there. */
  conflicts: Rows;
  /** What a hand or the arrow keys move: seen, but neither saved nor a step of undo until it rests. */
  moving: Moving | null;
  connection: 'fine' | 'saving' | 'offline';
  /** The rows of which a save is under way. */
  sending: ReadonlySet<string>;

  /** Takes over what the server has, except where this bench has changes of its own. */
  adopt(known: Known): void;
  move(frameId: string, window: Window): void;
  moveMark(originalId: string, markId: string, region: Region): void;
  /** Ends a movement: what was moved becomes a step of undo and is saved. */
  rest(): void;
  set<K extends Kind>(kind: K, id: string, change: Partial<Kinds[K]['settings']>): void;
  /** Sets many frames as one step of undo. */
  setFrames(changes: ReadonlyMap<string, Partial<FrameSettings>>): void;
  /** A save has arrived. `sent` is what was saved; what changed meanwhile stays to be saved. */
  arrived<K extends Kind>(kind: K, row: Kinds[K]['row'], sent: Kinds[K]['settings']): void;
  conflict<K extends Kind>(kind: K, row: Kinds[K]['row']): void;
  /** What was sent cannot be saved as it is: it goes back to what is saved. */
  putBack<K extends Kind>(kind: K, id: string): void;
  keepMine(kind: Kind, id: string): void;
  takeTheirs<K extends Kind>(kind: K, id: string): void;
  connect(connection: Bench['connection']): void;
  /** Says that a save of a row is under way, or that it has ended. */
  send(id: string, isUnderWay: boolean): void;
}

const stepsKept = 60;

export const settingsOf: { [K in Kind]: (row: Kinds[K]['row']) => Kinds[K]['settings'] } = {
  frames: ({ id: _, projectId: __, originalId: ___, placeId: ____, version: _____, ...settings }) => settings,
  originals: ({ marks, trim, finishId, blend, words }) => ({ marks, trim, finishId, blend, words }),
  projects: ({ finishId, keeping }) => ({ finishId, keeping }),
  finishes: ({ name, description, treatment }) => ({ name, description, treatment }),
};

type LedgerOf<K extends Kind> = Ledger<Kinds[K]['row'], Kinds[K]['settings']>;

const ledgerOf = <K extends Kind>({ settings, saved, conflicts }: Bench, kind: K): LedgerOf<K> => ({
  settings: settings[kind],
  saved: saved[kind],
  conflicts: conflicts[kind],
});

export function createBench(projectId: string, shelf: Shelf) {
  const key = `inkwell.bench.${projectId}`;
  const kept = readKept(shelf.getItem(key));

  const store = createStore<Bench>()(
    temporal(
      (set, get) => {
        /** Changes settings without making a step of undo. */
        const settle = (change: Partial<Bench>) => {
          const history = store.temporal.getState();
          history.pause();
          set(change);
          history.resume();
        };
        const withLedger = <K extends Kind>(kind: K, ledger: LedgerOf<K>): Partial<Bench> => {
          const { settings, saved, conflicts } = get();
          return {
            settings: { ...settings, [kind]: ledger.settings },
            saved: { ...saved, [kind]: ledger.saved },
            conflicts: { ...conflicts, [kind]: ledger.conflicts },
          };
        };
        return {
          settings: none,
          saved: none,
          conflicts: none,
          moving: null,
          connection: 'fine',
          sending: new Set(),

          adopt(known) {
            const adopted = <K extends Kind>(kind: K): LedgerOf<K> =>
              adoptRows(ledgerOf(get(), kind), known[kind], kept.unsaved[kind], get().sending, settingsOf[kind]);
            for (const kind of kinds) settle(withLedger(kind, adopted(kind)));
          },
          move(frameId, window) {
            set({ moving: { kind: 'window', frameId, window } });
          },
          moveMark(originalId, markId, region) {
            set({ moving: { kind: 'mark', originalId, markId, region } });
          },
          rest() {
            const { moving } = get();
            if (!moving) return;
            settle({ moving: null });
            if (moving.kind === 'window') {
              get().set('frames', moving.frameId, { window: moving.window, composed: false });
              return;
            }
            const marks = get().settings.originals[moving.originalId]?.marks;
            if (marks) get().set('originals', moving.originalId, { marks: withMoved(marks, moving) });
          },
          set(kind, id, change) {
            // What comes after a movement must not be overtaken by it.
            get().rest();
            const ledger = ledgerOf(get(), kind);
            const now = ledger.settings[id];
            if (!now) return;
            const next = { ...now, ...change };
            if (!equal(now, next)) {
              set(withLedger(kind, { ...ledger, settings: { ...ledger.settings, [id]: next } }));
            }
          },
          setFrames(changes) {
            get().rest();
            const { settings: before } = get();
            const settings = { ...before.frames };
            for (const [id, change] of changes) {
              const now = settings[id];
              if (now && !equal(now, { ...now, ...change })) settings[id] = { ...now, ...change };
            }
            if (!equal(settings, before.frames)) set({ settings: { ...before, frames: settings } });
          },
          arrived(kind, row, sent) {
            settle(withLedger(kind, rowArrived(ledgerOf(get(), kind), row, sent, settingsOf[kind])));
          },
          conflict(kind, row) {
            const ledger = ledgerOf(get(), kind);
            settle(withLedger(kind, { ...ledger, conflicts: { ...ledger.conflicts, [row.id]: row } }));
          },
          putBack(kind, id) {
            settle(withLedger(kind, rowPutBack(ledgerOf(get(), kind), id, settingsOf[kind])));
          },
          keepMine(kind, id) {
            settle(withLedger(kind, conflictSettled(ledgerOf(get(), kind), id)));
          },
          takeTheirs(kind, id) {
            const theirs = ledgerOf(get(), kind).conflicts[id];
            if (!theirs) return;
            get().set(kind, id, settingsOf[kind](theirs));
            settle(withLedger(kind, conflictSettled(ledgerOf(get(), kind), id)));
          },
          connect(connection) {
            if (get().connection !== connection) settle({ connection });
          },
          send(id, isUnderWay) {
            const sending = new Set(get().sending);
            if (isUnderWay) sending.add(id);
            else sending.delete(id);
            settle({ sending });
          },
        };
      },
      {
        partialize: ({ settings }) => ({ settings }),
        equality: (a, b) => kinds.every((kind) => a.settings[kind] === b.settings[kind]),
        // A step holds only what it changed: undoing it must not touch what came from elsewhere meanwhile.
        diff: (from, to) => {
          const changed = <K extends Kind>(kind: K) =>
            changedSettings<Kinds[K]['settings']>(from.settings?.[kind] ?? {}, to.settings?.[kind] ?? {});
          const settings: Settings = {
            frames: changed('frames'),
            originals: changed('originals'),
            projects: changed('projects'),
            finishes: changed('finishes'),
          };
          return kinds.some((kind) => Object.keys(settings[kind]).length > 0) ? { settings } : null;
        },
        limit: stepsKept,
      },
    ),
  );

  store.temporal.setState({
    pastStates: kept.past.map((settings) => ({ settings })),
    futureStates: kept.future.map((settings) => ({ settings })),
  });
  const keep = () => {
    const bench = store.getState();
    const { pastStates, futureStates } = store.temporal.getState();
    const steps = (states: Partial<Pick<Bench, 'settings'>>[]) =>
      states.flatMap((state) => (state.settings ? [state.settings] : []));
    const unsavedOf = <K extends Kind>(kind: K) => keptRows(unsavedRows(ledgerOf(bench, kind), settingsOf[kind]));
    const open = {
      frames: unsavedOf('frames'),
      originals: unsavedOf('originals'),
      projects: unsavedOf('projects'),
      finishes: unsavedOf('finishes'),
    };
    shelf.setItem(key, JSON.stringify({ unsaved: open, past: steps(pastStates), future: steps(futureStates) }));
  };
  store.subscribe((now, before) => {
    if (now.settings !== before.settings || now.saved !== before.saved) keep();
  });
  store.temporal.subscribe(keep);
  return store;
}

/** Goes one step back or forward. */
export function step(store: BenchStore, direction: 'undo' | 'redo'): void {
  store.getState().rest();
  const before = store.getState().settings;
  const history = store.temporal.getState();
  history[direction]();
  const { settings, saved } = store.getState();
  if (settings === before) return;
  // The step brought back only what it holds, and perhaps something that is no longer in the project.
  const merged = <Settings>(was: ById<Settings>, back: ById<Settings>, there: ById<unknown>) =>
    Object.fromEntries(Object.entries({ ...was, ...back }).filter(([id]) => there[id]));
  history.pause();
  store.setState({
    settings: {
      frames: merged(before.frames, settings.frames, saved.frames),
      originals: merged(before.originals, settings.originals, saved.originals),
      projects: merged(before.projects, settings.projects, saved.projects),
      finishes: merged(before.finishes, settings.finishes, saved.finishes),
    },
    moving: null,
  });
  history.resume();
}

export type BenchStore = ReturnType<typeof createBench>;

/** Rows of one kind that wait to be sent, leaving out what waits for a decision. */
export function unsaved<K extends Kind>(bench: Bench, kind: K) {
  const ledger = ledgerOf(bench, kind);
  return unsavedRows(ledger, settingsOf[kind]).filter(({ row }) => !ledger.conflicts[row.id]);
}
