import { useEffect, useMemo, useRef, useState } from 'react';

/** So long whoever asks first waits for an answer at once. */
const firstMs = 20;
/** So long the page is held up at a time after that: half the time between two pictures of a screen. */
const sliceMs = 8;

const none: never[] = [];

/** Works something out of items one after the other, for some milliseconds at a time. */
class Run<Item, Result> {
  readonly results: Result[] = [];

  constructor(
    private readonly items: readonly Item[],
    private readonly work: (item: Item) => Result,
  ) {}

  get isDone(): boolean {
    return this.results.length === this.items.length;
  }

  /** One item more at least, however late it is: on a busy machine the time may be over before the first. */
  goOn(ms: number): this {
    const until = performance.now() + ms;
    while (!this.isDone) {
      this.results.push(this.work(this.items[this.results.length] as Item));
      if (performance.now() >= until) break;
    }
    return this;
  }
}

/**
 * What comes of every item, in their order. Of a few it is worked out at once. Of thousands it takes a while, in which the page stays quick: until
 * then it is what came of them before, or nothing.
 *
 * @param work stays the same function as long as the same comes of the same item
 */
export function useUnhurried<Item, Result>(
  items: readonly Item[],
  work: (item: Item) => Result,
): { results: readonly Result[]; isDone: boolean } {
  const run = useMemo(() => new Run(items, work).goOn(firstMs), [items, work]);
  const before = useRef<Run<Item, Result> | null>(null);
  const [, setDone] = useState<Run<Item, Result> | null>(null);
  useEffect(() => {
    if (run.isDone) {
      before.current = run;
      return undefined;
    }
    let timer: ReturnType<typeof setTimeout>;
    const goOn = () => {
      if (!run.goOn(sliceMs).isDone) {
        timer = setTimeout(goOn);
        return;
      }
      // Kept at once: the next run may begin before this one has been drawn.
      before.current = run;
      setDone(run);
    };
    timer = setTimeout(goOn);
    return () => clearTimeout(timer);
  }, [run]);
  const shown = run.isDone ? run : before.current;
  return { results: shown?.results ?? none, isDone: run.isDone };
}
