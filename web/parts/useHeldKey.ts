import { useEffect, useRef } from 'react';

/** Says whether a key is held, except while something is typed. */
export function useHeldKey(key: string, onHeld: (held: boolean) => void) {
  const latest = useRef(onHeld);
  latest.current = onHeld;
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, [role="combobox"]');
      if (event.key.toLowerCase() === key && !event.ctrlKey && !event.metaKey && !typing) {
        latest.current(event.type === 'keydown');
      }
    };
    document.addEventListener('keydown', onKey);
    document.addEventListener('keyup', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('keyup', onKey);
    };
  }, [key]);
}
