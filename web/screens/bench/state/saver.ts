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

/** What the saver needs of the world outside. */
export interface Ports {
  /** Sends how a row is set, made on top of a version. Never throws. */
  send(kind: Kind, id: string, version: number, settings: object): Promise<Outcome>;
  /** Hears what the server has of a row, as soon as that is known; null where it has none any more. */
  heard(kind: Kind, id: string, row: Row | null): void;
  /** Does something a while later. */
  later(task: () => void): void;
}

/** So many rows are on their way at once: about as many as a browser asks one server at a time. */
const mostAtOnce = 6;

/**
 * Sends every change of a bench as soon as it is made, one save a row at a time. While the server does not answer, all
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
    for (const [kind, id] of [...waiting, ...retrying].slice(0, room)) void this.send(kind, id);
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

  private async send(kind: Kind, id: string): Promise<void> {
    const { bench, ports } = this;
    const row = rowOn(bench.getState(), kind, id);
    if (!row) return;
    bench.happen(kind, id, (machine, state) => machine.sent(state));
    const outcome = await ports.send(kind, id, row.saved.version, row.settings);
    // Said first: what is not heard must not be sent again at once.
    bench.connect(outcome.is === 'unheard');
    bench.happen(kind, id, (machine, state) => {
      // The row has gone from the bench meanwhile, come back, and been sent anew: this answer is to something else.
      if (state.phase.is !== 'sending' || state.phase.sent !== row.settings) return state;
      switch (outcome.is) {
        case 'saved':
          return machine.answered(state, outcome.row);
        case 'elsewhere':
          return machine.contradicted(state, outcome.row);
        case 'refused':
          return machine.refused(state, outcome.reason);
        case 'gone':
          return machine.wentMissing(state);
        case 'unheard':
          return machine.unheard(state);
      }
    });
    if ('row' in outcome) ports.heard(kind, id, outcome.row);
    if (outcome.is === 'gone') ports.heard(kind, id, null);
    if (outcome.is === 'unheard') this.tryLater();
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
