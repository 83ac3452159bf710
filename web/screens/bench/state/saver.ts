import { type Bench, rowOn } from './bench.ts';
import { type Kind, kinds } from './kinds.ts';
import type { Row } from './rowMachine.ts';

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

/**
 * Sends every change of a bench as soon as it is made, one save a row at a time. While the server does not answer, all
 * that waits is tried again after a while. A bench has one saver as long as the page lives, whichever screen is shown.
 */
export class Saver {
  private isTryingLater = false;

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
    for (const [kind, id] of this.rowsThatWait()) {
      if (this.bench.getState().isOffline) return;
      void this.send(kind, id);
    }
  }

  /** What was sent without an answer comes first. */
  private rowsThatWait(): [Kind, string][] {
    const { phases } = this.bench.getState();
    const rowsThatAre = (phase: 'retrying' | 'waiting') =>
      kinds.flatMap((kind) =>
        Object.entries(phases[kind]).flatMap(([id, { is }]): [Kind, string][] => (is === phase ? [[kind, id]] : [])),
      );
    return [...rowsThatAre('retrying'), ...rowsThatAre('waiting')];
  }

  private async send(kind: Kind, id: string): Promise<void> {
    const { bench, ports } = this;
    const row = rowOn(bench.getState(), kind, id);
    // What one change sets off may have been sent by what another has set off.
    if (row?.phase.is !== 'waiting' && row?.phase.is !== 'retrying') return;
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
      const waiting = this.rowsThatWait();
      if (waiting.length === 0) this.bench.connect(false);
      for (const [kind, id] of waiting) void this.send(kind, id);
    });
  }
}
