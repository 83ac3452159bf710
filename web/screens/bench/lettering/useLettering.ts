import type { Item, Lettering, LetterStyle } from '@inkwell/core/model';
import { useMemo } from 'react';
import type { Bench } from '../state/bench.ts';
import { letteringOf, useBench, useBenchStore } from '../state/useBench.ts';

/** The item that is worked at: the one that was chosen, else the first. */
export const chosenItem = (items: Lettering, id: string | null): Item | undefined =>
  items.find((item) => item.id === id) ?? items[0];

/** What can be done with a project's lettering. Everything is done to it as it is at that moment. */
export type LetteringHands = ReturnType<typeof handsOn>;

function handsOn(store: Bench, projectId: string) {
  const now = () => letteringOf(store.getState());
  const set = (next: Lettering) => store.set('projects', projectId, { lettering: next });
  const changed = (id: string, values: Partial<Item>) =>
    now().map((one) => (one.id === id ? ({ ...one, ...values } as Item) : one));
  return {
    items: now,
    add: (item: Item) => set([...now(), item]),
    change: (id: string, values: Partial<Item>) => set(changed(id, values)),
    /** The same while hands are at it: seen at once, saved and undone as one step when they rest. */
    write: (id: string, values: Partial<Item>) => store.letter(projectId, changed(id, values)),
    /** Sets all of them at once, as one step. */
    setAll: set,
    /** The same while hands are at it. */
    writeAll: (next: Lettering) => store.letter(projectId, next),
    /** Gives one style to everything that is written. */
    styleAll: (style: LetterStyle) => set(now().map((one) => (one.kind === 'words' ? { ...one, style } : one))),
    remove: (id: string) => set(now().filter((one) => one.id !== id)),
    /** Before or after the next one: the order is that of their importance. */
    shift(id: string, by: -1 | 1) {
      const all = [...now()];
      const at = all.findIndex((one) => one.id === id);
      const [item] = all.splice(at, 1);
      if (item && at + by >= 0 && at + by <= all.length) {
        all.splice(at + by, 0, item);
        set(all);
      }
    },
  };
}

/** Says how to change a project's lettering; stays the same while it changes. */
export function useLetteringHands(projectId: string): LetteringHands {
  const store = useBenchStore();
  return useMemo(() => handsOn(store, projectId), [store, projectId]);
}

/** What is laid over a project's pictures, as it is at this moment. */
export const useLettering = (): Lettering => useBench(letteringOf);
