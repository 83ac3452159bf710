import type { Item, Lettering, LetterStyle } from '@inkwell/core/model';
import { letteringOf, useBench, useBenchStore } from '../state/useBench.ts';

/** The item that is worked at: the one that was chosen, else the first. */
export const chosenItem = (items: Lettering, id: string | null): Item | undefined =>
  items.find((item) => item.id === id) ?? items[0];

export type UsedLettering = ReturnType<typeof useLettering>;

/** What is laid over the pictures of a project, and how that is changed. */
export function useLettering(projectId: string) {
  const store = useBenchStore();
  const items = useBench(letteringOf);
  const now = () => letteringOf(store.getState());
  const set = (next: Lettering) => store.set('projects', projectId, { lettering: next });
  const changed = (item: Item) => now().map((one) => (one.id === item.id ? item : one));
  return {
    items,
    add: (item: Item) => set([...now(), item]),
    change: (item: Item) => set(changed(item)),
    /** The same while hands are at it: seen at once, saved and undone as one step when they rest. */
    write: (item: Item) => store.letter(projectId, changed(item)),
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
