import { useCallback, useSyncExternalStore } from 'react';

/** Whether a media query holds now, e.g. `(pointer: coarse)`. */
export function useMedia(query: string): boolean {
  const watch = useCallback(
    (onChange: () => void) => {
      const media = matchMedia(query);
      media.addEventListener('change', onChange);
      return () => media.removeEventListener('change', onChange);
    },
    [query],
  );
  return useSyncExternalStore(watch, () => matchMedia(query).matches);
}

/** Whether a finger is what points. */
export const useFinger = (): boolean => useMedia('(pointer: coarse)');
