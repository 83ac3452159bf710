import { remembering } from '../../../parts/many/remembering.ts';
import { changedFrom, type History } from './history.ts';
import {
  type AllPhases,
  type AllRows,
  type AllSettings,
  type ForRows,
  type Kind,
  kinds,
  looseSettingsOf,
} from './kinds.ts';
import type { Moving } from './moving.ts';
import { type Phase, type Row, type RowState, rowMachine, unansweredOf } from './rowMachine.ts';
import type { LeftRow } from './shelf.ts';

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
export const connectionOf = ({ phases, isOffline }: BenchState): 'fine' | 'saving' | 'offline' | 'held' =>
  isOffline ? 'offline' : connections(phases, [], () => connectionIn(phases));

/** Whoever moves something asks at every step, and nothing of this changes. */
const connections = remembering<AllPhases, ReturnType<typeof connectionIn>>();

function connectionIn(phases: AllPhases): 'fine' | 'saving' | 'held' {
  const all = new Set(kinds.flatMap((kind) => Object.values(phases[kind]).map(({ is }) => is)));
  if (all.has('waiting') || all.has('sending') || all.has('retrying')) return 'saving';
  return all.has('refused') || all.has('conflicted') || all.has('gone') ? 'held' : 'fine';
}

/** The same where the kind of a row is only known while the program runs. */
export interface LooseState extends Omit<BenchState, 'settings' | 'saved' | 'phases'> {
  settings: ForRows<object>;
  saved: ForRows<Row>;
  phases: ForRows<Phase<Row, object>>;
}

export const machines = {
  frames: rowMachine(looseSettingsOf.frames),
  originals: rowMachine(looseSettingsOf.originals),
  projects: rowMachine(looseSettingsOf.projects),
  finishes: rowMachine(looseSettingsOf.finishes),
};
export type AnyRow = RowState<Row, object>;
export type AnyMachine = (typeof machines)[Kind];

/** A row of the bench; undefined where there is none. */
export function rowOn({ settings, saved, phases }: LooseState, kind: Kind, id: string): AnyRow | undefined {
  const [now, there, phase] = [settings[kind][id], saved[kind][id], phases[kind][id]];
  return now && there && phase ? { settings: now, saved: there, phase } : undefined;
}

/** The state with some rows of one kind replaced, all at once: a project may have thousands. */
export function withRows(state: LooseState, kind: Kind, rows: ReadonlyMap<string, AnyRow>): LooseState {
  if (rows.size === 0) return state;
  // What does not change stays the same object: nothing that follows from it is worked out again.
  const replaced = <Value>(all: ForRows<Value>, of: (row: AnyRow) => Value) => {
    const some = [...rows].filter(([id, row]) => all[kind][id] !== of(row)).map(([id, row]) => [id, of(row)] as const);
    return some.length > 0 ? { ...all, [kind]: { ...all[kind], ...Object.fromEntries(some) } } : all;
  };
  return {
    ...state,
    settings: replaced(state.settings, ({ settings }) => settings),
    saved: replaced(state.saved, ({ saved }) => saved),
    phases: replaced(state.phases, ({ phase }) => phase),
  };
}

export function withoutRows(state: LooseState, kind: Kind, gone: ReadonlySet<string>): LooseState {
  const rest = <Value>(all: ForRows<Value>) => ({
    ...all,
    [kind]: Object.fromEntries(Object.entries(all[kind]).filter(([id]) => !gone.has(id))),
  });
  return { ...state, settings: rest(state.settings), saved: rest(state.saved), phases: rest(state.phases) };
}

/** What of a row the server does not have; null where it has all. */
export function unsavedOf(kind: Kind, row: AnyRow | undefined): LeftRow | null {
  if (!row || row.phase.is === 'clean' || row.phase.is === 'gone') return null;
  const { settings, saved, phase } = row;
  const changed = changedFrom(settings, looseSettingsOf[kind](saved));
  return { settings: changed, version: saved.version, unanswered: unansweredOf(phase) };
}
