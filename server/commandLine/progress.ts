import { Presets, SingleBar } from 'cli-progress';

/** Shows how far something is: as a bar on a terminal, in lines elsewhere. It goes to standard error, so that results can be read from the other. */
export class Progress {
  private readonly bar: SingleBar | null;
  private last = -1;

  constructor(
    private readonly what: string,
    private readonly of: number,
    private readonly isQuiet: boolean,
  ) {
    const isTerminal = process.stderr.isTTY && !isQuiet;
    const format = `${what} {bar} {value} of {total}`;
    this.bar = isTerminal ? new SingleBar({ format, stream: process.stderr, hideCursor: true }, Presets.rect) : null;
    this.bar?.start(of, 0);
  }

  at(count: number): void {
    if (count === this.last) return;
    this.bar?.update(count);
    // Every tenth part is enough to see that it goes on.
    const tenthsAt = (some: number) => Math.floor((some * 10) / Math.max(1, this.of));
    if (!this.bar && !this.isQuiet && tenthsAt(count) > tenthsAt(this.last))
      console.error(`${this.what}: ${count} of ${this.of}`);
    this.last = count;
  }

  end(): void {
    this.bar?.stop();
  }
}
