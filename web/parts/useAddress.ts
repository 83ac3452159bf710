import { useSearchParams } from 'react-router';

/** What the address says behind its question mark, and the way to say something else there, which no step back returns to. */
export function useAddress(): [URLSearchParams, (values: Record<string, string>) => void] {
  const [search, setSearch] = useSearchParams();
  // The router shows a change when there is time for it; what is pressed next would meet what was shown before.
  const go = (values: Record<string, string>) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(values)) next.set(name, value);
        return next;
      },
      { replace: true, flushSync: true },
    );
  return [search, go];
}
