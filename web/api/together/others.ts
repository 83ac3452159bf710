import type { Present } from '@inkwell/core/model';
import { create } from 'zustand';

/** Whoever has said nothing for so long is not there any more. */
const goneMs = 25_000;
/** So often a page says where it is. */
export const sayMs = 10_000;

/** Somebody in another page, and when that was heard last. */
export interface Other extends Present {
  at: number;
}

/** Where others are at work, as far as this page has heard. */
export const useOthers = create<{ others: readonly Other[] }>(() => ({ others: [] }));

export const heardOf = (present: Present): void =>
  useOthers.setState(({ others }) => ({
    others: [...others.filter(({ pageId }) => pageId !== present.pageId), { ...present, at: Date.now() }],
  }));

/** Forgets whoever has said nothing for a while. */
export const forgetGone = (): void =>
  useOthers.setState((state) => {
    const there = state.others.filter(({ at }) => Date.now() - at < goneMs);
    return there.length === state.others.length ? state : { others: there };
  });
