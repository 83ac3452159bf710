import type { FrameSettings, Hands, Lettering, Region, Window } from '@inkwell/core/model';
import { throttle } from 'es-toolkit';
import equal from 'fast-deep-equal';
import { createStore } from 'zustand';
import {
  type AnyMachine,
  type AnyRow,
  type BenchState,
  type LooseState,
  machines,
  rowOn,
  unsavedOf,
  withoutRows,
  withRows,
} from './benchState.ts';
import { changedFrom, emptyStep, type History, recorded, type Step, stepOf } from './history.ts';
import { type Kind, type Known, kinds, looseSettingsOf, restored, type SettingsOf } from './kinds.ts';
import { isHeld, withMoved } from './moving.ts';
import type { Row } from './rowMachine.ts';
import type { LeftRows, Shelf } from './shelf.ts';

/** So long after the last turn of the wheel, or press of a key, a movement is over. */
const restMs = 160;
/** So long after the last letter words are a step of undo, and are saved. */
const writingRestMs = 250;

/** What changes is kept at once, and then no more often than this: many saves one after the other are kept together. */
const keepMs = 150;

/** The bench of one project: what is on it, and everything that a person, or the server, does to that. */
export class Bench {
  private readonly store;
  /** Unsaved changes of rows that are not on the bench: those of an earlier page, and of rows that have gone from it. */
  private readonly left: LeftRows;
  private resting: ReturnType<typeof setTimeout> | undefined;
  /** Hears of a hand that tries to change something where nothing may be changed; null where it may. */
  private onTried: (() => void) | null = null;
  private readonly keepSoon = throttle(() => this.keep(), keepMs);

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

  /** From now on nothing can be changed here. @param onTried hears whenever that is tried; null: everything can be changed again */
  close(onTried: (() => void) | null): void {
    this.onTried = onTried;
  }

  /** Tells a hand that nothing may be changed here, where that is so. @returns whether it is */
  private refuses(): boolean {
    this.onTried?.();
    return this.onTried !== null;
  }

  private hold(moving: NonNullable<BenchState['moving']>): void {
    if (!this.refuses()) this.store.setState({ moving });
  }

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
    this.hold({ kind: 'window', frameId, window });
  }

  moveMark(originalId: string, markId: string, region: Region): void {
    this.hold({ kind: 'mark', originalId, markId, region });
  }

  /** An item of a frame on its way. */
  moveItem(frameId: string, hands: Hands): void {
    this.hold({ kind: 'hands', frameId, hands });
  }

  /** Words on their way: seen at once, saved when the hands rest. */
  letter(projectId: string, lettering: Lettering): void {
    const { moving } = this.getState();
    if (moving && moving.kind !== 'lettering') this.commitMove();
    this.hold({ kind: 'lettering', projectId, lettering });
    this.commitMoveSoon(writingRestMs);
  }

  /** Ends a movement by the wheel or by keys once it rests: each turn or press puts that off. */
  commitMoveSoon(after: number = restMs): void {
    clearTimeout(this.resting);
    this.resting = setTimeout(() => this.commitMove(), after);
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
    if (moving.kind === 'hands') {
      this.set('frames', moving.frameId, { hands: moving.hands });
      return;
    }
    if (moving.kind === 'lettering') {
      this.set('projects', moving.projectId, { lettering: moving.lettering });
      return;
    }
    const marks = settings.originals[moving.originalId]?.marks;
    if (marks) this.set('originals', moving.originalId, { marks: withMoved(marks, moving) });
  }

  set<K extends Kind>(kind: K, id: string, some: Partial<SettingsOf<K>>): void {
    this.setRows({ [kind]: [[id, some]] });
  }

  /** Sets many frames as one step of undo. */
  setFrames(frames: ReadonlyMap<string, Partial<FrameSettings>>): void {
    this.setMany({ frames });
  }

  /** Sets many rows of one kind or several as one step of undo. */
  setMany(changes: { [K in Kind]?: ReadonlyMap<string, Partial<SettingsOf<K>>> }): void {
    this.setRows(changes);
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
    const next = row && machines[kind].tookTheirs(row);
    if (!row || next === undefined || next === row) return;
    const was = { [id]: changedFrom(row.settings, next.settings) };
    const history = recorded(state.history, stepOf(kind, was));
    this.change({ ...withRows(state, kind, new Map([[id, next]])), history });
  }

  /** Something has happened to a row; nothing does to one that is not on the bench. */
  happen(kind: Kind, id: string, event: (machine: AnyMachine, row: AnyRow) => AnyRow): void {
    this.happenToAll(kind, [id], event);
  }

  /** The same to many rows at once. */
  happenToAll(
    kind: Kind,
    ids: readonly string[],
    event: (machine: AnyMachine, row: AnyRow, id: string) => AnyRow,
  ): void {
    const state: LooseState = this.getState();
    const changed = new Map<string, AnyRow>();
    for (const id of ids) {
      const row = rowOn(state, kind, id);
      const next = row && event(machines[kind], row, id);
      if (next && next !== row) changed.set(id, next);
    }
    this.change(withRows(state, kind, changed));
  }

  /** Keeps at once what waits to be kept: the page goes. */
  flush(): void {
    this.keepSoon.flush();
  }

  connect(isOffline: boolean): void {
    if (this.getState().isOffline !== isOffline) this.store.setState({ isOffline });
  }

  private setRows(changes: { [K in Kind]?: Iterable<readonly [string, object]> }): void {
    if (this.refuses()) return;
    // What comes after a movement must not be overtaken by it.
    this.commitMove();
    const state: LooseState = this.getState();
    const was = emptyStep();
    let next = state;
    for (const kind of kinds) {
      const edited = new Map<string, AnyRow>();
      for (const [id, some] of changes[kind] ?? []) {
        const row = rowOn(state, kind, id);
        const settings = { ...row?.settings, ...some };
        if (!row || equal(row.settings, settings)) continue;
        was[kind][id] = changedFrom(row.settings, settings);
        edited.set(id, machines[kind].edited(row, settings));
      }
      next = withRows(next, kind, edited);
    }
    if (next !== state) this.change({ ...next, history: recorded(state.history, was) });
  }

  /** Takes the last of some steps that changes anything which is still there; the steps after it have nothing left to change. */
  private goOver(steps: readonly Step[], toHistory: (rest: readonly Step[], back: Step | null) => History): void {
    if (steps.length > 0 && this.refuses()) return;
    const state: LooseState = this.getState();
    for (let at = steps.length - 1; at >= 0; at -= 1) {
      const back = emptyStep();
      let next = state;
      for (const kind of kinds) {
        const edited = new Map<string, AnyRow>();
        for (const [id, was] of Object.entries(steps[at]?.[kind] ?? {})) {
          const row = rowOn(state, kind, id);
          const settings = row ? restored(kind, row.settings, was) : was;
          if (!row || equal(settings, row.settings)) continue;
          back[kind][id] = changedFrom(row.settings, settings);
          edited.set(id, machines[kind].edited(row, settings));
        }
        next = withRows(next, kind, edited);
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
    const found = new Map<string, AnyRow>();
    for (const there of rows) {
      const known = rowOn(before, kind, there.id);
      // What a hand holds stays where it is: what others have set meanwhile is found out when it is saved.
      if (known && isHeld(before.moving, kind, there.id)) continue;
      const row = known ? machines[kind].found(known, there) : this.taken(kind, there);
      if (row !== known) found.set(there.id, row);
    }
    const state = withRows(before, kind, found);
    const listed = new Set(rows.map(({ id }) => id));
    const gone = new Set(Object.keys(state.saved[kind]).filter((id) => !listed.has(id)));
    for (const id of gone) {
      const unsaved = unsavedOf(kind, rowOn(state, kind, id));
      if (unsaved) this.left[kind][id] = unsaved;
    }
    return gone.size > 0 ? withoutRows(state, kind, gone) : state;
  }

  /** A row that was not on the bench, with what was left unsaved of it. */
  private taken(kind: Kind, there: Row): AnyRow {
    const left = this.left[kind][there.id];
    delete this.left[kind][there.id];
    if (!left) return machines[kind].fresh(there);
    const own = looseSettingsOf[kind](there);
    const unanswered = left.unanswered.map((sent) => restored(kind, own, sent));
    const row = machines[kind].settled(there, restored(kind, own, left.settings), unanswered);
    // Sent as made on the version that it was made on: a conflict is found all the same.
    return row.phase.is === 'clean' ? row : { ...row, saved: { ...there, version: left.version } };
  }

  private change(next: LooseState): void {
    const before: LooseState = this.getState();
    if (next === before) return;
    // A row is only ever replaced by one of its own kind.
    this.store.setState(next as BenchState);
    if (next.phases !== before.phases || next.history !== before.history) this.keepSoon();
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
