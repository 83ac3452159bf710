import type { Bench } from './bench.ts';
import { rowOn } from './benchState.ts';
import { type Kind, kinds } from './kinds.ts';
import type { Phase, Row } from './rowMachine.ts';

/** What came of sending a row: saved; changed elsewhere and now as `row`; refused in words; not there any more; no answer. */
export type Outcome =
  | { is: 'saved' | 'elsewhere'; row: Row }
  | { is: 'refused'; reason: string }
  | { is: 'gone' }
  | { is: 'unheard' };

/** How a row is set, made on top of a version of it, and what is saved as that version. */
export interface SentRow {
  id: string;
  version: number;
  settings: object;
  saved: Row;
}

/** What the saver needs of the world outside. */
export interface Ports {
  /** Sends how rows of a kind are set, each made on top of a version. Gives what came of each. Never throws. */
  send(kind: Kind, rows: readonly SentRow[]): Promise<Outcome[]>;
  /** Hears what the server has of rows, as soon as that is known; null of one of which it has none any more. */
  heard(kind: Kind, rows: ReadonlyMap<string, Row | null>): void;
  /** Does something a while later. */
  later(task: () => void): void;
}

/** So many rows are on their way at once: about as many as a browser asks one server at a time. */
const mostAtOnce = 6;

/** Where more frames than that wait, so many go in one request. */
const mostTogether = 1000;

/**
 * Sends every change of a bench as soon as it is made, one save a row at a time; where many frames are changed, many of them in one request. While the server does not answer, all
 * that waits is tried again after a while. A bench has one saver as long as the page lives, whichever screen is shown.
 */
export class Saver {
  private isTryingLater = false;
  private isSendingAll = false;

  constructor(
    private readonly bench: Bench,
    private readonly ports: Ports,
  ) {
    bench.subscribe((now, before) => {
      if (now.phases !== before.phases || now.isOffline !== before.isOffline) this.sendAll();
    });
    this.sendAll();
  }

  private sendAll(): void {
    if (!this.bench.getState().isOffline) this.sendSome();
  }

  /** Sends what waits, as far as there is room on the way. What was never sent goes first, so that a row that fails holds up none. */
  private sendSome(): void {
    // That a row is sent is a change as well, of which this is told while it is at it.
    if (this.isSendingAll) return;
    this.isSendingAll = true;
    const { sending, waiting, retrying } = this.rowsByPhase();
    const room = Math.max(0, mostAtOnce - sending.length);
    const open = [...waiting, ...retrying];
    const frames = open.flatMap(([kind, id]) => (kind === 'frames' ? [id] : []));
    if (frames.length <= mostAtOnce) for (const [kind, id] of open.slice(0, room)) void this.send(kind, [id]);
    else if (room > 0) void this.send('frames', frames.slice(0, mostTogether));
    this.isSendingAll = false;
  }

  private rowsByPhase() {
    const { phases } = this.bench.getState();
    const rows: Record<'sending' | 'waiting' | 'retrying', [Kind, string][]> = {
      sending: [],
      waiting: [],
      retrying: [],
    };
    for (const kind of kinds) {
      for (const [id, { is }] of Object.entries<{ is: Phase<Row, object>['is'] }>(phases[kind])) {
        if (is === 'sending' || is === 'waiting' || is === 'retrying') rows[is].push([kind, id]);
      }
    }
    return rows;
  }

  private async send(kind: Kind, ids: readonly string[]): Promise<void> {
    const { bench, ports } = this;
    const state = bench.getState();
    const rows = ids.flatMap((id) => {
      const row = rowOn(state, kind, id);
      return row ? [{ id, version: row.saved.version, settings: row.settings, saved: row.saved }] : [];
    });
    if (rows.length === 0) return;
    bench.happenToAll(kind, ids, (machine, row) => machine.sent(row));
    const outcomes = await ports.send(kind, rows);
    const answers = new Map(rows.map(({ id, settings }, index) => [id, { settings, outcome: outcomes[index] }]));
    const isUnheard = outcomes.some(({ is }) => is === 'unheard');
    // Said first: what is not heard must not be sent again at once.
    bench.connect(isUnheard);
    bench.happenToAll(kind, ids, (machine, row, id) => {
      const { settings, outcome } = answers.get(id) ?? {};
      // The row has gone from the bench meanwhile, come back, and been sent anew: this answer is to something else.
      if (!outcome || row.phase.is !== 'sending' || row.phase.sent !== settings) return row;
      switch (outcome.is) {
        case 'saved':
          return machine.answered(row, outcome.row);
        case 'elsewhere':
          return machine.contradicted(row, outcome.row);
        case 'refused':
          return machine.refused(row, outcome.reason);
        case 'gone':
          return machine.wentMissing(row);
        case 'unheard':
          return machine.unheard(row);
      }
    });
    const heard = [...answers].flatMap(([id, { outcome }]): [string, Row | null][] => {
      if (outcome && 'row' in outcome) return [[id, outcome.row]];
      return outcome?.is === 'gone' ? [[id, null]] : [];
    });
    if (heard.length > 0) ports.heard(kind, new Map(heard));
    if (isUnheard) this.tryLater();
  }

  private tryLater(): void {
    if (this.isTryingLater) return;
    this.isTryingLater = true;
    this.ports.later(() => {
      this.isTryingLater = false;
      const { waiting, retrying } = this.rowsByPhase();
      if (waiting.length + retrying.length > 0) this.sendSome();
      else this.bench.connect(false);
    });
  }
}
