import type { SettlingFrom } from '@inkwell/core/framing';
import { takesSeveral } from '@inkwell/core/geometry';
import type { Frame, PlaceOfNetwork } from '@inkwell/core/model';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import type { Bench } from '../state/bench.ts';

/** What the dimensions of frames follow from, as it is set on the bench now: it changes only where they could. */
export function useSettling(
  store: Bench,
  frames: readonly Frame[],
  places: ReadonlyMap<string, PlaceOfNetwork>,
): (frame: Frame) => SettlingFrom {
  const several = useMemo(
    () =>
      frames.filter(({ placeId }) => {
        const at = places.get(placeId);
        return at !== undefined && takesSeveral(at.place);
      }),
    [frames, places],
  );
  const key = useStore(store, ({ settings }) =>
    JSON.stringify(
      several.map((frame) => {
        const { dimensions, backing, window } = settings.frames[frame.id] ?? frame;
        return [dimensions, backing !== null, window.turn, window.mirror];
      }),
    ),
  );
  return useMemo(() => {
    const { frames: set } = store.getState().settings;
    return (frame) => set[frame.id] ?? frame;
  }, [store, key]);
}
