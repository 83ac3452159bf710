import type { FrameSettings, Mark, Region, Window } from '@inkwell/core/model';
import equal from 'fast-deep-equal';
import { createStore } from 'zustand';
import { changedFrom, emptyStep, type History, recorded, rowsOf, type Step, stepOf } from './history.ts';
import {
  type AllPhases,
  type AllRows,
  type AllSettings,
  type ById,
  type ForRows,
  type Kind,
  type Known,
  kinds,
  looseSettingsOf,
  restored,
  type SettingsOf,
} from './kinds.ts';
import { type Phase, type Row, type RowState, rowMachine, unansweredOf } from './rowMachine.ts';
import type { LeftRows, Shelf } from './shelf.ts';

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
export interface BenchState {
  /** How everything is set now. */
  settings: AllSettings;
  /** Everything as the server has it. */
  saved: AllRows;
  /** Where every row stands between the two. */
  phases: AllPhases;
  /** What a hand or the arrow keys move: seen, but neither saved nor a step of undo until it rests. */
  moving: Moving | null;
  history: History;
  /** The server does not answer. */
  isOffline: boolean;
  /** Whether steps of undo, and what is not sent yet, are there again after a reload. */
  outlivesReload: boolean;
}

/** How saving stands, for the person. */
export function connectionOf({ phases, isOffline }: BenchState): 'fine' | 'saving' | 'offline' | 'held' {
  if (isOffline) return 'offline';
  const all = new Set(kinds.flatMap((kind) => Object.values(phases[kind]).map(({ is }) => is)));
  if (all.has('waiting') || all.has('sending') || all.has('retrying')) return 'saving';
  return all.has('refused') || all.has('conflicted') ? 'held' : 'fine';
}

/** The same where the kind of a row is only known while the program runs. */
interface LooseState extends Omit<BenchState, 'settings' | 'saved' | 'phases'> {
  settings: ForRows<object>;
  saved: ForRows<Row>;
  phases: ForRows<Phase<Row, object>>;
}

/** So long after the last turn of the wheel, or press of a key, a movement is over. */
const restMs = 160;

const machine = {
  frames: rowMachine(looseSettingsOf.frames),
  originals: rowMachine(looseSettingsOf.originals),
  projects: rowMachine(looseSettingsOf.projects),
  finishes: rowMachine(looseSettingsOf.finishes),
};
export type AnyRow = RowState<Row, object>;
export type AnyMachine = (typeof machine)[Kind];

/** A row of the bench; undefined where there is none. */
export function rowOn({ settings, saved, phases }: LooseState, kind: Kind, id: string): AnyRow | undefined {
  const [now, there, phase] = [settings[kind][id], saved[kind][id], phases[kind][id]];
  return now && there && phase ? { settings: now, saved: there, phase } : undefined;
}

const withRow = (state: LooseState, kind: Kind, id: string, row: AnyRow): LooseState => ({
  ...state,
  settings: { ...state.settings, [kind]: { ...state.settings[kind], [id]: row.settings } },
  saved: { ...state.saved, [kind]: { ...state.saved[kind], [id]: row.saved } },
  phases: { ...state.phases, [kind]: { ...state.phases[kind], [id]: row.phase } },
});

function withoutRows(state: LooseState, kind: Kind, gone: readonly string[]): LooseState {
  const rest = <Value>(all: ForRows<Value>) => ({
    ...all,
    [kind]: Object.fromEntries(Object.entries(all[kind]).filter(([id]) => !gone.includes(id))),
  });
  return { ...state, settings: rest(state.settings), saved: rest(state.saved), phases: rest(state.phases) };
}

/** What of a row the server does not have; null where it has all. */
function unsavedOf(kind: Kind, row: AnyRow | undefined): LeftRows[Kind][string] | null {
  if (!row || row.phase.is === 'clean' || row.phase.is === 'gone') return null;
  const { settings, saved, phase } = row;
  const changed = changedFrom(settings, looseSettingsOf[kind](saved));
  return { settings: changed, version: saved.version, unanswered: unansweredOf(phase) };
}

/** The bench of one project: what is on it, and everything that a person, or the server, does to that. */
export class Bench {
  private readonly store;
  /** Unsaved changes of rows that are not on the bench: those of an earlier page, and of rows that have gone from it. */
  private readonly left: LeftRows;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly shelf: Shelf) {
    const { left, history } = shelf.open();
    this.left = left;
    const none = { frames: {}, originals: {}, projects: {}, finishes: {} };
    this.store = createStore<BenchState>()(() => ({
      settings: none,
      saved: none,
      phases: none,
      moving: null,
      history,
      isOffline: false,
      outlivesReload: shelf.works,
    }));
  }

  getState = (): BenchState => this.store.getState();
  getInitialState = (): BenchState => this.store.getInitialState();
  subscribe = (listener: (now: BenchState, before: BenchState) => void): (() => void) => this.store.subscribe(listener);

  /** Takes over what the server has, except where this bench has changes of its own. */
  adopt(known: Known): void {
    let state: LooseState = this.getState();
    for (const kind of kinds) {
      const rows = known[kind];
      if (rows) state = this.adopted(state, kind, rows);
    }
    this.change(state);
  }

  move(frameId: string, window: Window): void {
    this.store.setState({ moving: { kind: 'window', frameId, window } });
  }

  moveMark(originalId: string, markId: string, region: Region): void {
    this.store.setState({ moving: { kind: 'mark', originalId, markId, region } });
  }

  /** Ends a movement by the wheel or by keys once it rests: each turn or press puts that off. */
  commitMoveSoon(): void {
    clearTimeout(this.resting);
    this.resting = setTimeout(() => this.commitMove(), restMs);
  }

  /** Ends a movement: what was moved becomes a step of undo and is saved. */
  commitMove(): void {
    const { moving, settings } = this.getState();
    clearTimeout(this.resting);
    if (!moving) return;
    this.store.setState({ moving: null });
    if (moving.kind === 'window') {
      this.set('frames', moving.frameId, { window: moving.window, composed: false });
      return;
    }
    const marks = settings.originals[moving.originalId]?.marks;
    if (marks) this.set('originals', moving.originalId, { marks: withMoved(marks, moving) });
  }

  set<K extends Kind>(kind: K, id: string, some: Partial<SettingsOf<K>>): void {
    this.setRows(kind, [[id, some]]);
  }

  /** Sets many frames as one step of undo. */
  setFrames(changes: ReadonlyMap<string, Partial<FrameSettings>>): void {
    this.setRows('frames', changes);
  }

  undo(): void {
    // A movement under way is the last step.
    this.commitMove();
    const { past, future } = this.getState().history;
    this.goOver(past, (rest, back) => ({ past: rest, future: back ? [...future, back] : future }));
  }

  redo(): void {
    this.commitMove();
    const { past, future } = this.getState().history;
    this.goOver(future, (rest, back) => ({ past: back ? [...past, back] : past, future: rest }));
  }

  /** What was set here is saved on top of what was changed elsewhere. */
  keepMine(kind: Kind, id: string): void {
    this.happen(kind, id, ({ keptMine }, row) => keptMine(row));
  }

  /** What the server has is taken instead of what was set here; that can be undone. */
  takeTheirs(kind: Kind, id: string): void {
    this.commitMove();
    const state: LooseState = this.getState();
    const row = rowOn(state, kind, id);
    if (!row) return;
    const next = machine[kind].tookTheirs(row);
    const was = { [id]: changedFrom(row.settings, next.settings) };
    this.change({ ...withRow(state, kind, id, next), history: recorded(state.history, stepOf(kind, was)) });
  }

  /** Something has happened to a row; nothing does to one that is not on the bench. */
  happen(kind: Kind, id: string, event: (machine: AnyMachine, row: AnyRow) => AnyRow): void {
    const state: LooseState = this.getState();
    const row = rowOn(state, kind, id);
    if (row) this.change(withRow(state, kind, id, event(machine[kind], row)));
  }

  connect(isOffline: boolean): void {
    if (this.getState().isOffline !== isOffline) this.store.setState({ isOffline });
  }

  private setRows(kind: Kind, changes: Iterable<readonly [string, object]>): void {
    // What comes after a movement must not be overtaken by it.
    this.commitMove();
    let state: LooseState = this.getState();
    const was: ById<object> = {};
    for (const [id, some] of changes) {
      const row = rowOn(state, kind, id);
      const settings = { ...row?.settings, ...some };
      if (!row || equal(row.settings, settings)) continue;
      was[id] = changedFrom(row.settings, settings);
      state = withRow(state, kind, id, machine[kind].edited(row, settings));
    }
    if (Object.keys(was).length > 0) this.change({ ...state, history: recorded(state.history, stepOf(kind, was)) });
  }

  /** Takes the last of some steps that changes anything which is still there; the steps after it have nothing left to change. */
  private goOver(steps: readonly Step[], toHistory: (rest: readonly Step[], back: Step | null) => History): void {
    const state: LooseState = this.getState();
    for (let at = steps.length - 1; at >= 0; at -= 1) {
      const back = emptyStep();
      let next = state;
      for (const [kind, id, was] of rowsOf(steps[at])) {
        const row = rowOn(next, kind, id);
        const settings = row ? restored(kind, row.settings, was) : was;
        if (!row || equal(settings, row.settings)) continue;
        back[kind][id] = changedFrom(row.settings, settings);
        next = withRow(next, kind, id, machine[kind].edited(row, settings));
      }
      if (next !== state) {
        this.change({ ...next, history: toHistory(steps.slice(0, at), back) });
        return;
      }
    }
    if (steps.length > 0) this.change({ ...state, history: toHistory([], null) });
  }

  /** Takes over what the server has of one kind. Rows that it has no more go; what was unsaved of them is kept, if they return. */
  private adopted(before: LooseState, kind: Kind, rows: readonly Row[]): LooseState {
    let state = before;
    for (const there of rows) {
      const known = rowOn(state, kind, there.id);
      const row = known ? machine[kind].found(known, there) : this.taken(kind, there);
      if (row !== known) state = withRow(state, kind, there.id, row);
    }
    const listed = new Set(rows.map(({ id }) => id));
    const gone = Object.keys(state.saved[kind]).filter((id) => !listed.has(id));
    if (gone.length === 0) return state;
    for (const id of gone) {
      const unsaved = unsavedOf(kind, rowOn(state, kind, id));
      if (unsaved) this.left[kind][id] = unsaved;
    }
    return withoutRows(state, kind, gone);
  }

  /** A row that was not on the bench, with what was left unsaved of it. */
  private taken(kind: Kind, there: Row): AnyRow {
    const left = this.left[kind][there.id];
    delete this.left[kind][there.id];
    const own = looseSettingsOf[kind](there);
    if (!left) return machine[kind].settled(there, own);
    const unanswered = left.unanswered.map((sent) => restored(kind, own, sent));
    const row = machine[kind].settled(there, restored(kind, own, left.settings), unanswered);
    // Sent as made on the version that it was made on: a conflict is found all the same.
    return row.phase.is === 'clean' ? row : { ...row, saved: { ...there, version: left.version } };
  }

  private change(next: LooseState): void {
    const before: LooseState = this.getState();
    if (next === before) return;
    // A row is only ever replaced by one of its own kind.
    this.store.setState(next as BenchState);
    if (next.phases !== before.phases || next.history !== before.history) this.keep();
  }

  private keep(): void {
    const { history, ...state }: LooseState = this.getState();
    const unsaved: LeftRows = { frames: {}, originals: {}, projects: {}, finishes: {} };
    for (const kind of kinds) {
      Object.assign(unsaved[kind], this.left[kind]);
      for (const id of Object.keys(state.saved[kind])) {
        const left = unsavedOf(kind, rowOn({ history, ...state }, kind, id));
        if (left) unsaved[kind][id] = left;
      }
    }
    this.shelf.keep(unsaved, history);
    const { works } = this.shelf;
    if (works !== state.outlivesReload) this.store.setState({ outlivesReload: works });
  }
}
